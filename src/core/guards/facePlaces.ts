import { faceWidth, meshPoint, type Face } from './finding';
import { outlineOf } from './outlines';

type Outline = [number, number][];

/** An outline made smaller about its middle. */
export function shrunk(outline: readonly (readonly [number, number])[], by: number): [number, number][] {
  const [x, y] = [0, 1].map((c) => outline.reduce((sum, p) => sum + p[c], 0) / outline.length);
  return outline.map((p): [number, number] => [x + (p[0] - x) * by, y + (p[1] - y) * by]);
}

/** The throat: from the jaw, between its corners, 0.6 face widths down. */
export function throat(face: Face, long: number, width: number): [number, number][] {
  const jaw = [132, 172, 150, 152, 379, 397, 361].map((i) => meshPoint(face, i, long));
  const [top, chin] = [meshPoint(face, 10, long), meshPoint(face, 152, long)];
  const away = Math.hypot(chin[0] - top[0], chin[1] - top[1]) || 1;
  const down = [((chin[0] - top[0]) / away) * 0.6 * width, ((chin[1] - top[1]) / away) * 0.6 * width];
  return [...jaw, ...jaw.map(([x, y]): [number, number] => [x + down[0], y + down[1]]).reverse()];
}

/** All that lies more than `far` face widths below the chin, between two columns of the picture. */
export function below(face: Face, long: number, far: number, left = -1e5, right = 1e5): [number, number][] {
  const top = meshPoint(face, 152, long)[1] + far * faceWidth(face, long);
  return [
    [left, top],
    [right, top],
    [right, 1e5],
    [left, 1e5],
  ];
}

/** The two halves of a face, to the left and right of its nose. */
export function halves(face: Face, long: number): Outline[] {
  const oval = outlineOf(face, 'oval', long);
  const middle = [10, 168, 4, 152].map((i) => meshPoint(face, i, long));
  // The outline begins at the top and goes down on one side, and up again on the other.
  return [
    [...oval.slice(0, 19), ...[...middle].reverse()],
    [...oval.slice(18), ...middle],
  ];
}

/** The oval above the tip of the nose. */
export function upperFace(face: Face, long: number): [number, number][] {
  const [tip, left, right] = [2, 234, 454].map((i) => meshPoint(face, i, long));
  const side = ([x, y]: readonly [number, number]) => (right[0] - left[0]) * (y - tip[1]) - (right[1] - left[1]) * (x - tip[0]);
  return outlineOf(face, 'oval', long).filter((p) => side(p) < 0);
}
