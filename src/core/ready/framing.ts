import type { Size } from '../image/motion';
import type { Projection } from '../image/projection';
import type { PlannedLens } from './lens';

/** How a picture of the photo's file is framed: plain data. */
export interface Framing extends Size {
  /** From pixels of the readied photo to pixels of the file. */
  map: Projection;
  /** What the lens did, between the map and the file. */
  lens?: PlannedLens;
  /** Size of the file. */
  file: Size;
  /** The photo is used as it is: nothing is readied. */
  asIs?: boolean;
  /** Nothing beyond the file's edge instead of the edge extended: for showing where a frame may lie. */
  clear?: boolean;
}
