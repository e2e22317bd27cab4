import type { Face } from '../guards/finding';
import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { Planes } from '../image/planes';
import { samplePhoto } from '../image/sample';
import { padded, Scratch } from '../image/tile';
import { drawNormals, meanWithin } from './normals';
import { solidOf } from './solid';

/** All lengths in widths of the largest face. How far in from its edge the subject is taken to be round. */
const ROUND = 0.16;
const NORMAL_BLUR = 0.05;
const CROSS = 0.12;
const SOFT = 0.012;
/** Where no face is found, the width of one by the square root of the subject's area. */
const BY_AREA = 0.35;
/** Where a place counts as the subject. */
const INSIDE = [0.35, 0.65] as const;
/** Beyond this many pixels a distance is not wanted. */
const FAR = 400;

export interface ContourOrder {
  /** The subject as a grey picture over the whole file, and the size of what is drawn. */
  subject: Picture;
  faces: readonly Face[];
  size: { width: number; height: number };
}

export const contourScratch = ({ width, height }: { width: number; height: number }): number => (padded(width, height) + 16) * 4 * 24 + 2 ** 20;

/**
 * Draws how far the surface of the subject is turned towards the viewer, as a grey picture over the file: the third part of its unit normal, 0 where there is
 * no subject. By the mesh where there is a face; elsewhere as if the subject were round along its edge.
 */
export function drawContour(machine: Machine, { subject, faces, size }: ContourOrder, target: Picture, scratchAt: number): void {
  const { width, height } = size;
  const scratch = new Scratch(machine, scratchAt, scratchAt + contourScratch(size));
  const planes = new Planes(machine, scratch, width, height);
  const long = Math.max(width, height);
  const solids = faces.map((face) => solidOf(face, long, (p) => p));
  const person = planes.make();
  planes.briefly(() => {
    const tile = scratch.tile({ x: 0, y: 0, width, height });
    samplePhoto(machine, subject, width / subject.width, tile);
    planes.put(tile.ptr, person);
  });
  const face = Math.max(0, ...solids.map((solid) => solid.width)) || BY_AREA * Math.sqrt(planes.sum(person));
  const out = roundEdge(planes, person, ROUND * face);
  for (const solid of solids)
    planes.briefly(() => {
      const near = planes.around(
        [-1, 1].map((s) => [solid.middle[0] + s * solid.half, solid.middle[1] + s * solid.half] as const),
        (CROSS + 3 * NORMAL_BLUR) * solid.width,
      );
      const drawn = drawNormals(near, solid, 1, near.x, near.y);
      // A face belongs to the subject, whatever the map of people says.
      near.mostOf(planes, person, drawn.cover);
      near.change(planes, out, (there) => {
        const facing = facingOf(near, drawn, NORMAL_BLUR * solid.width);
        const weight = distanceTo(near, drawn.cover, FAR);
        near.invert(weight);
        machine.kernels.mixIn(weight, weight, near.count, 1, 0, CROSS * solid.width - 1);
        near.ramp(weight, 0, CROSS * solid.width);
        machine.kernels.lerpTo(there, facing, weight, near.count);
      });
    });
  planes.ramp(person, ...INSIDE);
  planes.times(out, person);
  planes.blur(out, SOFT * face);
  machine.kernels.greyPicture(out, target.levels[0], width * height);
}

/** The third part of the unit normal, spread a little beyond the face. */
function facingOf(planes: Planes, { nx, ny, nz, cover }: ReturnType<typeof drawNormals>, sigma: number): number {
  const [x, y, z] = [nx, ny, nz].map((plane) => meanWithin(planes, plane, cover, sigma));
  planes.machine.kernels.facingOf(x, y, z, planes.count);
  return z;
}

/** Distance in pixels to the nearest place where a plane is over one half. */
function distanceTo(planes: Planes, plane: number, cap: number): number {
  const out = planes.make();
  planes.machine.kernels.distance(plane, out, planes.width, planes.height, 0.5, cap, 0, 0);
  return out;
}

/** The third part of the normal of a shape that is round along its edge, by a radius in pixels. */
function roundEdge(planes: Planes, shape: number, radius: number): number {
  const outside = planes.copy(shape);
  planes.invert(outside);
  const distance = distanceTo(planes, outside, FAR);
  planes.machine.kernels.roundedOf(distance, planes.count, Math.max(1, radius));
  return distance;
}
