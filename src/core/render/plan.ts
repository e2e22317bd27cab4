import { posted, type Graph } from '../graph/node';
import type { Size } from '../image/motion';
import type { Region } from '../image/tile';

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
  /** What is clipped is painted over. */
  clipping?: boolean;
}

/** Pixels to one u. */
export const unitOf = ({ frame, scale }: Pick<Plan, 'frame' | 'scale'>): number => (Math.max(frame.width, frame.height) * scale) / 2000;

/** A plan as it is sent to the workers. */
export const postedPlan = (plan: Plan): Plan => ({ ...plan, graph: posted(plan.graph) });
