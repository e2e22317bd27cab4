import type { RegionId } from '../guards/schema';

type Rgb = [number, number, number];

/** What is drawn instead of the whole piece. */
export type View =
  | { kind: 'piece' }
  | { kind: 'photo' }
  /** All coats on mid grey, without the photo. */
  | { kind: 'texture' }
  | { kind: 'without'; coat: string }
  | { kind: 'alone'; coat: string }
  /** One coat at full strength on a plain ground. The coats below show faintly through the ground. */
  | { kind: 'onGround'; coat: string; colour: Rgb }
  /** One coat alone at full strength, on a transparent background. */
  | { kind: 'layer'; coat: string }
  | { kind: 'upTo'; coat: string | null }
  | { kind: 'mask'; coat: string }
  | { kind: 'maskOver'; coat: string; colour: Rgb }
  /** One region, or all by their amounts, in colour over the piece; as grey when `bare`. */
  | { kind: 'guards'; region: RegionId | null; colour: Rgb; bare?: boolean }
  /** Where the piece differs from the photo. */
  | { kind: 'heat' };
