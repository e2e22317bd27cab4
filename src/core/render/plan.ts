import { posted, type Graph } from '../graph/node';
import type { Size } from '../image/motion';
import type { Region } from '../image/tile';
import { pixelBytes } from '../image/picture';
import { unitOf } from '../image/unit';

/** All that a worker needs to draw any tile: plain data, with addresses into kernel memory. */
export interface Plan {
  graph: Graph;
  /** Size of the readied photo in its own pixels. */
  frame: Size;
  /** Pixels drawn to one pixel of the readied photo. */
  scale: number;
  region: Region;
  /** Side of a tile in pixels. */
  tile: number;
  /** How much smaller it is than the drawing that it is made ahead of. */
  factor?: number;
  /** Pixels from one row of the output to the next, where it is a part of a larger picture. */
  pitch?: number;
  /** 16 bits a channel. */
  deep?: boolean;
  /** What is clipped is painted over. */
  clipping?: boolean;
}

/** Bytes of one pixel of what a plan draws. */
export const bytesOfPlan = ({ deep }: Plan): number => pixelBytes(deep);

/** Pixels to one u in a plan's drawing. */
export const unitOfPlan = ({ frame, scale }: Pick<Plan, 'frame' | 'scale'>): number => unitOf(frame, scale);

/** A plan as it is sent to the workers. */
export const postedPlan = (plan: Plan): Plan => ({ ...plan, graph: posted(plan.graph) });
