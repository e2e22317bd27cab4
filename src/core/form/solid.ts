import { fromBase64 } from '../guards/bytes';
import { GRID, MESH_POINTS, type Face } from '../guards/finding';
import type { Point } from '../image/projection';
import { TRIANGLES } from './triangles';

/** A face as a surface in pixels of a picture. */
export interface Solid {
  /** x, y and depth away from the viewer of each point of its mesh, and its unit normal (right, down, towards the viewer): six numbers a point. */
  vertices: Float32Array;
  /** The sense in which triangles that face the viewer go round: −1, or 1 where the picture is mirrored. */
  facing: 1 | -1;
  /** Its width in space, and the middle of its box. */
  width: number;
  middle: Point;
  /** Half the longer side of its box. */
  half: number;
}

let list: Uint16Array | undefined;

/** The triangles of a face's mesh, three numbers of points each. */
export const trianglesOf = (): Uint16Array => (list ??= new Uint16Array(fromBase64(TRIANGLES).buffer));

/**
 * A face's mesh as a surface.
 *
 * @param long - Long side of the file, in pixels of what `place` takes.
 * @param place - Takes a point of the file to where it lies in the picture; depth is scaled as the picture is about the face's middle.
 */
export function solidOf({ mesh }: Face, long: number, place: (p: Point) => Point): Solid {
  const at = (i: number): [number, number, number] => [0, 1, 2].map((c) => (mesh[3 * i + c] * long) / GRID) as [number, number, number];
  const [cx, cy] = at(168);
  const [o, right, down] = [place([cx, cy]), place([cx + 1, cy]), place([cx, cy + 1])];
  const turn = (right[0] - o[0]) * (down[1] - o[1]) - (right[1] - o[1]) * (down[0] - o[0]);
  const scale = Math.sqrt(Math.abs(turn));
  const points = Array.from({ length: MESH_POINTS }, (_, i) => {
    const [x, y, z] = at(i);
    return [...place([x, y]), z * scale] as const;
  });
  // Triangles that face the viewer go round against the clock.
  const facing = turn < 0 ? 1 : -1;
  const normals = normalsOf(points, facing);
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const [left, right2, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  const [a, b] = [points[234], points[454]];
  return {
    vertices: Float32Array.from(points.flatMap((p, i) => [...p, ...normals[i]])),
    facing,
    width: Math.hypot(a[0] - b[0], a[1] - b[1], a[2] - b[2]),
    middle: [(left + right2) / 2, (top + bottom) / 2],
    half: Math.max(right2 - left, bottom - top) / 2,
  };
}

type Triple = readonly [number, number, number];

/** Unit normals at the points, each the sum of those of its triangles weighted by area. */
function normalsOf(points: readonly Triple[], facing: number): Triple[] {
  const sums = points.map((): [number, number, number] => [0, 0, 0]);
  const triangles = trianglesOf();
  for (let t = 0; t < triangles.length; t += 3) {
    const corners = [triangles[t], triangles[t + 1], triangles[t + 2]];
    const [a, b, c] = corners.map((i) => points[i]);
    const [u, v] = [b, c].map((p) => [p[0] - a[0], p[1] - a[1], a[2] - p[2]]);
    // Towards the viewer is the third axis, so that depth counts backwards.
    const n = [u[1] * v[2] - u[2] * v[1], u[2] * v[0] - u[0] * v[2], u[0] * v[1] - u[1] * v[0]];
    for (const i of corners) for (let k = 0; k < 3; k++) sums[i][k] += n[k] * facing;
  }
  return sums.map(([x, y, z]) => {
    const length = Math.hypot(x, y, z) || 1;
    return [x / length, y / length, z / length];
  });
}
