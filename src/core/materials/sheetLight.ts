import { slope, type Point, type Projection } from '../image/projection';

/** How the light falls on a sheet that is laid on a piece. */
export interface SheetLight {
  /** Where the light stands over the piece: degrees clockwise from the top, and above the picture. The material's own when left out. */
  lamp?: { direction: number; elevation: number };
  /** Degrees from the piece's axes to those of the sheet. */
  turn: number;
  /** Whether the sheet is mirrored on the piece. */
  mirrored: boolean;
}

/** What a person says about the light on a material. */
export interface MaterialLight {
  from: 'own' | 'side' | 'none';
  direction: number;
  elevation: number;
}

/** A light to be drawn in a sheet: none at all, or from somewhere. Left out where the sheet is as its generator lights it. */
export type Lighting = 'none' | SheetLight;

/** Steps of a turn for which a sheet is drawn again, in degrees: nobody sees a light that is half of this aside. */
const STEP = 5;
const DEGREE = Math.PI / 180;

/**
 * The light in a sheet, from that on the piece and how the sheet lies on it.
 *
 * @param lay - From pixels of the piece to those of the sheet.
 * @param at - The middle of the sheet on the piece.
 */
export function lightingOf({ from, direction, elevation }: MaterialLight, lay: Projection, at: Point): Lighting | undefined {
  if (from === 'none') return 'none';
  const [ux, vx, uy, vy] = slope(lay, at);
  const mirrored = ux * vy - uy * vx < 0;
  // The rotation nearest to the map, or to the map with its sheet mirrored.
  const angle = mirrored ? Math.atan2(vx + uy, ux - vy) : Math.atan2(vx - uy, ux + vy);
  const turn = (Math.round(angle / DEGREE / STEP) * STEP + 360) % 360;
  if (from === 'side') return { lamp: { direction, elevation }, turn, mirrored };
  return turn === 0 && !mirrored ? undefined : { turn, mirrored };
}

/**
 * The light as it is drawn, in radians: its direction in the sheet from the right downwards, and its elevation.
 *
 * @param own - How the generator lights it.
 */
export function drawnLight(
  own: { azimuth: number; elevation: number },
  { lamp, turn, mirrored }: SheetLight,
): { azimuth: number; elevation: number } {
  const { azimuth, elevation } = lamp ? { azimuth: (lamp.direction - 90) * DEGREE, elevation: lamp.elevation * DEGREE } : own;
  return { azimuth: turn * DEGREE + (mirrored ? -azimuth : azimuth), elevation };
}

/** Names a light apart from how its sheet is turned, so that one that is turned otherwise can stand in for it. */
export function lightingKey(lighting: Lighting | undefined): { lamp: string; turn: string } {
  if (!lighting) return { lamp: '', turn: '' };
  if (lighting === 'none') return { lamp: 'unlit', turn: '' };
  const { lamp, turn, mirrored } = lighting;
  return { lamp: lamp ? `${lamp.direction},${lamp.elevation}` : '', turn: turn === 0 && !mirrored ? '' : `${turn}${mirrored ? 'm' : ''}` };
}
