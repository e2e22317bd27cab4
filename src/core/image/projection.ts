import { inverse3, multiply3, type Matrix3 } from '../color/matrix3';

/** A projective map of the plane, row by row: (x, y) goes to ((m0·x + m1·y + m2) / w, (m3·x + m4·y + m5) / w), w = m6·x + m7·y + m8. */
export type Projection = Matrix3;

export type Point = [number, number];

export const identity: Projection = [1, 0, 0, 0, 1, 0, 0, 0, 1];

/** a after b. */
export const multiply = multiply3;

export const chain = (...maps: Projection[]): Projection => maps.reduce((a, b) => multiply3(a, b));

/** @throws RangeError when the map folds the plane together. */
export const invert = inverse3;

export function apply(m: Projection, [x, y]: Point): Point {
  const w = m[6] * x + m[7] * y + m[8];
  return [(m[0] * x + m[1] * y + m[2]) / w, (m[3] * x + m[4] * y + m[5]) / w];
}

/** First derivatives at a point: [∂u/∂x, ∂v/∂x, ∂u/∂y, ∂v/∂y]. */
export function slope(m: Projection, [x, y]: Point): [number, number, number, number] {
  const w = m[6] * x + m[7] * y + m[8];
  const [u, v] = apply(m, [x, y]);
  return [(m[0] - u * m[6]) / w, (m[3] - v * m[6]) / w, (m[1] - u * m[7]) / w, (m[4] - v * m[7]) / w];
}

export const scaled = (x: number, y = x): Projection => [x, 0, 0, 0, y, 0, 0, 0, 1];
export const moved = (x: number, y: number): Projection => [1, 0, x, 0, 1, y, 0, 0, 1];

/** Clockwise, with y downwards. */
export function turned(degrees: number): Projection {
  const c = Math.cos((degrees * Math.PI) / 180);
  const s = Math.sin((degrees * Math.PI) / 180);
  return [c, -s, 0, s, c, 0, 0, 0, 1];
}

/** Whether parallel lines stay parallel. */
export const isAffine = (m: Projection): boolean => Math.abs(m[6]) < 1e-12 && Math.abs(m[7]) < 1e-12;

/**
 * The map that takes the corners of the unit square, (0, 0), (1, 0), (1, 1), (0, 1), to four points.
 * Heckbert, Fundamentals of Texture Mapping and Image Warping (1989), §2.2.3.
 */
export function squareTo([[x0, y0], [x1, y1], [x2, y2], [x3, y3]]: [Point, Point, Point, Point]): Projection {
  const sx = x0 - x1 + x2 - x3;
  const sy = y0 - y1 + y2 - y3;
  if (Math.abs(sx) < 1e-12 && Math.abs(sy) < 1e-12) return [x1 - x0, x3 - x0, x0, y1 - y0, y3 - y0, y0, 0, 0, 1];
  const [dx1, dx2, dy1, dy2] = [x1 - x2, x3 - x2, y1 - y2, y3 - y2];
  const det = dx1 * dy2 - dx2 * dy1;
  if (!(Math.abs(det) > 1e-12)) throw new RangeError('The corners of the perspective lie on one line; move them apart.');
  const g = (sx * dy2 - dx2 * sy) / det;
  const h = (dx1 * sy - sx * dy1) / det;
  return [x1 - x0 + g * x1, x3 - x0 + h * x3, x0, y1 - y0 + g * y1, y3 - y0 + h * y3, y0, g, h, 1];
}
