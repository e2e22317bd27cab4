import { apply, slope, type Point, type Projection } from './projection';

/** A size in pixels. */
export interface Size {
  width: number;
  height: number;
}

/** How the readied photo moved under its coats: a point for point map in fractions, and the turn, size and flip near the middle. */
export interface Motion {
  from: Size;
  to: Size;
  point(p: Point): Point;
  /** Pixels of the new frame to one of the old. */
  scale: number;
  /** Degrees clockwise, done after the flip. */
  turn: number;
  /** Left and right have changed places. */
  flip: boolean;
  /** The same length in u before and after. */
  length(u: number): number;
}

/** The motion that a map from fractions of one frame to fractions of another makes. */
export function motionBy(map: Projection, from: Size, to: Size): Motion {
  const [ux, vx, uy, vy] = slope(map, [0.5, 0.5]);
  // From fractions to pixels on both sides.
  const a = (ux * to.width) / from.width;
  const b = (vx * to.height) / from.width;
  const c = (uy * to.width) / from.height;
  const d = (vy * to.height) / from.height;
  const det = a * d - b * c;
  const flip = det < 0;
  // With a flip, the first axis points the other way before it is turned.
  const turn = (Math.atan2(flip ? -b : b, flip ? -a : a) * 180) / Math.PI;
  const scale = Math.sqrt(Math.abs(det));
  const longFrom = Math.max(from.width, from.height);
  const longTo = Math.max(to.width, to.height);
  return { from, to, point: (p) => apply(map, p), scale, turn, flip, length: (u) => (u * scale * longFrom) / longTo };
}

const around = (degrees: number) => {
  const v = ((((degrees + 180) % 360) + 360) % 360) - 180;
  return Math.round(v * 1e6) / 1e6;
};

/** An angle of something on the photo, clockwise, after the motion. */
export const turnBy = (motion: Motion, degrees: number): number => around((motion.flip ? -degrees : degrees) + motion.turn);
