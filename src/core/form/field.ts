import { fromBase64 } from '../guards/bytes';
import type { Face, Finding } from '../guards/finding';
import { spreadPerson } from '../guards/personMap';
import type { Machine } from '../image/machine';
import { Planes } from '../image/planes';
import { apply } from '../image/projection';
import { Scratch } from '../image/tile';
import type { Framing } from '../ready/framing';
import { placeIn } from './frame';
import { drawNormals, meanWithin } from './normals';
import { solidOf, type Solid } from './solid';

/** Side of a face's field, in values. */
export const FIELD_SIDE = 256;
/** Faces that have a field; smaller ones are left flat. */
export const MOST_FIELDS = 8;
/** All lengths in widths of the face. How far the field reaches beyond the face's box, how far its form goes on beyond it, and how soft it is. */
const BEYOND = 0.6;
const SPREAD = 0.07;
const FADE = 0.11;
const SMOOTH = 0.02;
const SCREEN = 0.6;
/** Greatest slope. */
const STEEPEST = 3;
const METRIC = 1.4;
const LEAN = 0.035;
/** What is left at the tightest place. */
const TIGHTEST = 0.2;
const LEVELS = 5;
const SWEEPS = 24;
const OVER = 1.6;
/** Where a place of the map of people counts as one. */
const PERSON = [0.25, 0.6] as const;

export interface FieldOrder {
  faces: readonly Face[];
  person: Finding['person'];
  framing: Framing;
}

/** Offsets about one face: two planes of `FIELD_SIDE`² f32 at `at`, in pixels of the readied photo. */
export interface FormField {
  at: number;
  /** Where its first value lies in the readied photo, and the distance between values. */
  left: number;
  top: number;
  cell: number;
  /** The greatest part, 0..1, of which offsets may be taken: with more the surface would fold. */
  most: number;
}

export const fieldsBytes = (faces: number): number => faces * 2 * FIELD_SIDE ** 2 * 4;
export const FIELD_SCRATCH = 40 * FIELD_SIDE ** 2 * 4 + 2 ** 21;

/**
 * Draws the fields by which a texture follows faces: read at x + D(x), it is drawn together where the surface turns away from the viewer, as one that lies on
 * it would be. D solves ∇²D − λD = div(S − I), S the stretch of the surface, so that it is the smooth map nearest to that stretch; a small part along the
 * normal is added. Where no mesh lies it runs out softly.
 */
export function drawFields(machine: Machine, { faces, person, framing }: FieldOrder, target: number, scratchAt: number): FormField[] {
  const place = placeIn(framing);
  const long = Math.max(framing.file.width, framing.file.height);
  const solids = faces.map((face) => solidOf(face, long, place));
  return solids.map((solid, i) => {
    const scratch = new Scratch(machine, scratchAt, scratchAt + FIELD_SCRATCH);
    const planes = new Planes(machine, scratch, FIELD_SIDE, FIELD_SIDE);
    const half = solid.half + BEYOND * solid.width;
    const cell = (2 * half) / FIELD_SIDE;
    const [left, top] = [solid.middle[0] - half, solid.middle[1] - half];
    const { dx, dy } = fieldOf(planes, solid, cell, left, top);
    if (person) withinPerson(planes, person, framing, { left, top, cell }, [dx, dy]);
    const others = solids.filter((other) => other !== solid && Math.hypot(...[0, 1].map((c) => other.middle[c] - solid.middle[c])) < 3 * half);
    if (others.length > 0) shareWith(planes, [solid, ...others], { left, top, cell }, [dx, dy]);
    const most = greatest(planes, dx, dy);
    const at = target + fieldsBytes(i);
    [dx, dy].forEach((plane, c) => {
      const out = at + c * FIELD_SIDE ** 2 * 4;
      machine.kernels.mixIn(plane, plane, planes.count, cell, 0, 0);
      machine.bytes.copyWithin(out, plane, plane + FIELD_SIDE ** 2 * 4);
    });
    return { at, left: left + cell / 2, top: top + cell / 2, cell, most };
  });
}

/** Offsets of one face, in cells. */
function fieldOf(planes: Planes, solid: Solid, cell: number, left: number, top: number): { dx: number; dy: number } {
  const { kernels } = planes.machine;
  const width = solid.width / cell;
  const dx = planes.make();
  const dy = planes.make();
  planes.briefly(() => {
    const drawn = drawNormals(planes, solid, 1 / cell, left, top);
    const normal = (plane: number) => {
      const inside = meanWithin(planes, plane, drawn.cover, SMOOTH * width);
      const beyond = meanWithin(planes, plane, drawn.cover, SPREAD * width);
      kernels.lerpTo(beyond, inside, drawn.cover, planes.count);
      return beyond;
    };
    const [nx, ny, nz] = [normal(drawn.nx), normal(drawn.ny), normal(drawn.nz)];
    const fade = planes.copy(drawn.cover);
    planes.blur(fade, FADE * width);
    planes.ramp(fade, 0.02, 0.5);
    planes.most(fade, drawn.cover);
    for (const [plane, out] of [
      [nx, dx],
      [ny, dy],
    ]) {
      planes.put(plane, out);
      planes.times(out, fade);
    }
    kernels.slopesOf(nx, ny, nz, planes.count, STEEPEST);
    for (const plane of [nx, ny]) {
      planes.times(plane, fade);
      planes.blur(plane, SMOOTH * width);
    }
    const [a, b, c] = [planes.make(), planes.make(), planes.make()];
    kernels.stretchOf(nx, ny, a, b, c, planes.count);
    const right = planes.make();
    kernels.divergence(a, b, right, FIELD_SIDE, FIELD_SIDE);
    const across = screened(planes, right, 1 / (SCREEN * width) ** 2);
    kernels.divergence(b, c, right, FIELD_SIDE, FIELD_SIDE);
    const down = screened(planes, right, 1 / (SCREEN * width) ** 2);
    kernels.mixIn(dx, across, planes.count, LEAN * width, METRIC, 0);
    kernels.mixIn(dy, down, planes.count, LEAN * width, METRIC, 0);
    for (const plane of [dx, dy]) planes.blur(plane, SMOOTH * width);
  });
  return { dx, dy };
}

/** Solves ∇²u − λu = f with u = 0 along the border, from a coarse plane to the fine one, as a new plane. */
function screened(planes: Planes, f: number, lambda: number): number {
  const { kernels } = planes.machine;
  const out = planes.make();
  planes.briefly(() => {
    const sides = Array.from({ length: LEVELS }, (_, l) => FIELD_SIDE >> l);
    const rights = [f];
    for (const side of sides.slice(0, -1)) {
      const half = planes.scratch.plane((side / 2) ** 2 + 8);
      kernels.halvedPlane(rights[rights.length - 1], side, side, half);
      rights.push(half);
    }
    let u = planes.scratch.plane(sides[LEVELS - 1] ** 2 + 8, 0);
    for (let l = LEVELS - 1; l >= 0; l--) {
      kernels.solveScreened(u, rights[l], sides[l], sides[l], 1 << l, lambda, OVER, l === LEVELS - 1 ? 4 * SWEEPS : SWEEPS);
      if (l === 0) break;
      const finer = planes.scratch.plane(sides[l - 1] ** 2 + 8);
      kernels.doubledPlane(u, sides[l], sides[l], finer);
      u = finer;
    }
    planes.put(u, out);
  });
  return out;
}

interface Placed {
  left: number;
  top: number;
  cell: number;
}

/** Ends a field at the person's edge, so that what lies behind stays flat. */
function withinPerson(planes: Planes, person: NonNullable<Finding['person']>, framing: Framing, { left, top, cell }: Placed, of: number[]): void {
  const { width, height, map } = person;
  planes.briefly(() => {
    // The map is coarse: about the face, a straight map is near enough to a perspective.
    const [kx, ky] = [width / framing.file.width, height / framing.file.height];
    const cellAt = (x: number, y: number) => apply(framing.map, [left + x * cell, top + y * cell]);
    const [o, across, down] = [cellAt(0, 0), cellAt(FIELD_SIDE, 0), cellAt(0, FIELD_SIDE)];
    const inside = planes.make();
    spreadPerson(planes, { width, height, bytes: fromBase64(map) }, inside, {
      a: ((across[0] - o[0]) * kx) / FIELD_SIDE,
      b: ((across[1] - o[1]) * ky) / FIELD_SIDE,
      c: ((down[0] - o[0]) * kx) / FIELD_SIDE,
      d: ((down[1] - o[1]) * ky) / FIELD_SIDE,
      e: o[0] * kx,
      f: o[1] * ky,
    });
    planes.ramp(inside, ...PERSON);
    planes.blur(inside, 3);
    for (const plane of of) planes.times(plane, inside);
  });
}

function shareWith(planes: Planes, solids: readonly Solid[], { left, top, cell }: Placed, of: number[]): void {
  const { machine, scratch } = planes;
  planes.briefly(() => {
    const table = scratch.take(solids.length * 12);
    machine.floats.set(
      solids.flatMap(({ middle: [x, y], width }) => [(x - left) / cell, (y - top) / cell, width / cell]),
      table / 4,
    );
    for (const plane of of) machine.kernels.shareByDistance(plane, FIELD_SIDE, FIELD_SIDE, table, solids.length);
  });
}

/** The greatest part of the offsets under which the surface is nowhere drawn together more than it may be. */
function greatest(planes: Planes, dx: number, dy: number): number {
  const least = (k: number) => planes.machine.kernels.leastDeterminant(dx, dy, FIELD_SIDE, FIELD_SIDE, k);
  if (least(1) >= TIGHTEST) return 1;
  let [low, high] = [0, 1];
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2;
    if (least(middle) >= TIGHTEST) low = middle;
    else high = middle;
  }
  return low;
}
