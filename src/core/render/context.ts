import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import type { Scratch } from '../image/tile';
import type { PlannedReady } from '../ready/photo';

/** What operations may ask about the drawing they are part of. */
export interface RenderContext {
  machine: Machine;
  scratch: Scratch;
  photo: Picture;
  /** How the photo is readied; the file as it is when left out. */
  ready?: PlannedReady;
  /** Pixels drawn to one pixel of the readied photo. */
  scale: number;
  /** Size of the whole piece (the readied photo) at this scale, not rounded. */
  width: number;
  height: number;
  /** Pixels to one u: 1/2000 of the long side. */
  unit: number;
}
