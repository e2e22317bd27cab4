import type { Features, Gaussian } from './appearance';
import type { Face } from './finding';
import type { Planes } from '../image/planes';

/** A head that is being looked at, in planes about it. */
export interface Head {
  planes: Planes;
  face: Face;
  long: number;
  /** Width of the face in pixels. */
  width: number;
  features: Features;
  /** Planes: inside the mesh's outline, and where a person surely is. */
  oval: number;
  person: number;
  /** What its skin looks like. */
  skin: Gaussian[];
}

/** Planes about one head: its skin, its hair, its bare ears, and what by its looks is no bare skin at all, on the face or elsewhere. */
export interface HeadPlanes {
  skin: number;
  hair: number;
  ears: number;
  other: number;
}
