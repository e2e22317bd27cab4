import type { Planes } from '../image/planes';
import { trianglesOf, type Solid } from './solid';

/** How far away what is not there is. */
const NOWHERE = 1e9;

/** Planes of a face's surface: its normals where it is seen, and where that is. */
export interface NormalPlanes {
  nx: number;
  ny: number;
  nz: number;
  cover: number;
}

/**
 * Draws a face's normals.
 *
 * @param scale - Pixels of the planes to one of the solid's picture.
 * @param left - Where the planes begin in that picture, across, and `top` down.
 */
export function drawNormals(planes: Planes, { vertices, facing }: Solid, scale: number, left: number, top: number): NormalPlanes {
  const { machine, scratch, width, height } = planes;
  const out = { nx: planes.make(), ny: planes.make(), nz: planes.make(), cover: planes.make() };
  planes.briefly(() => {
    const placed = vertices.map((v, i) => (i % 6 === 0 ? (v - left) * scale : i % 6 === 1 ? (v - top) * scale : v));
    const at = scratch.take(placed.length * 4);
    machine.floats.set(placed, at / 4);
    const triangles = trianglesOf();
    const list = scratch.take(triangles.length * 2);
    new Uint16Array(machine.memory.buffer, list, triangles.length).set(triangles);
    const depth = planes.make(NOWHERE);
    machine.kernels.drawMesh({ vertices: at, triangles: list, n: triangles.length / 3, w: width, h: height, facing, depth, ...out });
  });
  return out;
}

/** The mean of a plane where `cover` is, with a Gaussian of `sigma`; far from it, nothing. Both stay as they are. */
export function meanWithin(planes: Planes, plane: number, cover: number, sigma: number): number {
  const out = planes.product(plane, cover);
  planes.briefly(() => {
    const weight = planes.copy(cover);
    planes.blur(out, sigma);
    planes.blur(weight, sigma);
    planes.machine.kernels.dividedBy(out, weight, planes.count, 1e-4);
  });
  return out;
}
