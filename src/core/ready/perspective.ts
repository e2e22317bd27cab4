import { fits } from './editing';
import { largestFrame } from './frame';
import { quarteredSize, type Size } from './geometry';
import type { Line } from './level';
import { wholeCorners, type Corners } from '../image/corners';
import { squareTo, type Point } from '../image/projection';
import { neutralReady, type Ready } from './schema';

/** Where two lines meet; null when they are parallel. */
function meet([[ax, ay], [bx, by]]: Line, [[cx, cy], [dx, dy]]: Line): Point | null {
  const det = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
  if (Math.abs(det) < 1e-9) return null;
  const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / det;
  return [ax + t * (bx - ax), ay + t * (by - ay)];
}

/**
 * The four points of the photo that become its corners so that two lines along upright things become upright: all that meets in their
 * vanishing point does (Hartley & Zisserman, Multiple View Geometry, 2nd ed., §8.6). The middle row keeps its place. Lines are in
 * fractions of the photo after quarter turns. @throws RangeError when they cross inside the picture or run level.
 */
export function uprightCorners(one: Line, two: Line): Corners {
  for (const [[ax, ay], [bx, by]] of [one, two]) {
    if (Math.abs(bx - ax) > Math.abs(by - ay)) throw new RangeError('These lines run level rather than upright; draw them along two upright edges.');
  }
  const vanishing = meet(one, two);
  // Parallel lines only lean: sheared upright about the middle row.
  const lean = (one[1][0] - one[0][0]) / (one[1][1] - one[0][1]);
  const at = (x: number, y: number): Point => {
    if (!vanishing || Math.abs(vanishing[1]) > 1e4) return [x + lean * (y - 0.5), y];
    const [vx, vy] = vanishing;
    return [vx + ((x - vx) * (y - vy)) / (0.5 - vy), y];
  };
  if (vanishing && vanishing[1] > -0.35 && vanishing[1] < 1.35)
    throw new RangeError('These lines meet too near the picture; draw them along two edges that are upright in life.');
  return wholeCorners.map(([x, y]) => at(x, y)) as Corners;
}

/**
 * The readying with another perspective. Its frame is what lies between the four corners where they lie in the photo, else the largest of
 * the photo's shape without empty corners.
 */
export function withCorners(photo: Size, ready: Ready, corners: Corners | null): Ready {
  if (corners) squareTo(corners);
  const { width, height } = quarteredSize(photo, ready);
  const next: Ready = { ...ready, perspective: corners ? { corners } : undefined, crop: neutralReady.crop };
  return fits(photo, next, next.crop) ? next : { ...next, crop: largestFrame(photo, next, width / height, 0) };
}
