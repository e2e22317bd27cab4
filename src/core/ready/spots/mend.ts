import type { Machine } from '../../image/machine';
import { buildLevels, type Picture } from '../../image/picture';
import { solveMembrane, membraneBytes } from './membrane';
import type { Spot } from './schema';
import { pathOf, type Path } from './line';
import { findSource } from './source';

export interface Box {
  x: number;
  y: number;
  width: number;
  height: number;
}

/** A long stroke is mended in stretches whose boxes are no larger than this, so that a wire across the picture needs little memory. */
const LARGEST_BOX = 2 ** 21;

/** The pixels that a path touches and one more around, cut at the picture's edges; null when it lies outside. */
export function boxOfPath({ points, radius }: Path, picture: { width: number; height: number }, margin = 2): Box | null {
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const reach = radius + margin;
  const x = Math.max(0, Math.floor(Math.min(...xs) - reach));
  const y = Math.max(0, Math.floor(Math.min(...ys) - reach));
  const right = Math.min(picture.width, Math.ceil(Math.max(...xs) + reach));
  const bottom = Math.min(picture.height, Math.ceil(Math.max(...ys) + reach));
  return right > x && bottom > y ? { x, y, width: right - x, height: bottom - y } : null;
}

/** A path cut into stretches with small boxes; each begins where the one before it ends. */
export function stretches(path: Path, picture: { width: number; height: number }, largest = LARGEST_BOX): Path[] {
  const box = boxOfPath(path, picture);
  if (!box || box.width * box.height <= largest) return [path];
  const { points, radius } = path;
  if (points.length === 1) return [path];
  if (points.length === 2) {
    const [[ax, ay], [bx, by]] = points;
    // A line no longer than its tip is wide gains nothing by being cut.
    if (Math.hypot(bx - ax, by - ay) <= 2 * radius) return [path];
    const middle: [number, number] = [(ax + bx) / 2, (ay + by) / 2];
    return [
      { points: [points[0], middle], radius },
      { points: [middle, points[1]], radius },
    ].flatMap((p) => stretches(p, picture, largest));
  }
  const at = points.length >> 1;
  return [
    { points: points.slice(0, at + 1), radius },
    { points: points.slice(at), radius },
  ].flatMap((p) => stretches(p, picture, largest));
}

/** Bytes of working memory that mending these spots needs. */
export function mendScratch(picture: { width: number; height: number }, spots: readonly Spot[]): number {
  const boxes = spots.flatMap((s) => stretches(pathOf(s, picture), picture).map((p) => boxOfPath(p, picture)));
  const most = Math.max(0, ...boxes.map((b) => (b ? membraneBytes(b.width, b.height) : 0)));
  const points = Math.max(0, ...spots.map((s) => s.points.length));
  return most + points * 8 + 4096;
}

/**
 * Takes the spots out of a picture one after another, in its own memory, and makes its smaller levels anew. Seamless cloning: the source
 * plus the membrane that closes the gap along the edge (Pérez, Gangnet & Blake 2003, §3, with the source's gradient as guide).
 * Returns the offsets used, in pixels.
 */
export function mend(machine: Machine, picture: Picture, spots: readonly Spot[], scratch: number): [number, number][] {
  const offsets = spots.map((spot) => {
    const path = pathOf(spot, picture);
    const from = spot.from
      ? ([Math.round(spot.from[0] * picture.width), Math.round(spot.from[1] * picture.height)] as [number, number])
      : findSource(machine, picture, path);
    const parts = stretches(path, picture);
    parts.forEach((part, i) => mendPart(machine, picture, part, parts.slice(i + 1), from, scratch));
    return from;
  });
  const boxes = spots.map((s) => boxOfPath(pathOf(s, picture), picture)).filter((b) => b !== null);
  if (boxes.length > 0) buildLevels(machine, picture, Math.min(...boxes.map((b) => b.y)), Math.max(...boxes.map((b) => b.y + b.height)));
  return offsets;
}

function mendPart(machine: Machine, picture: Picture, path: Path, later: Path[], [dx, dy]: [number, number], scratch: number): void {
  const box = boxOfPath(path, picture);
  if (!box) return;
  const { kernels } = machine;
  const { width: w, height: h } = box;
  const count = w * h;
  const mask = scratch;
  const values = mask + Math.ceil(count / 16) * 16;
  const rest = values + count * 4;
  const mark = ({ points, radius }: Path, value: number) => {
    machine.floats.set(
      points.flatMap(([x, y]) => [x - box.x, y - box.y]),
      rest / 4,
    );
    kernels.markPath(mask, w, h, rest, points.length, radius, value);
  };
  machine.bytes.fill(0, mask, mask + count);
  // What is not mended yet is not known, so nothing is taken from it.
  for (const other of later) mark(other, 2);
  mark(path, 1);
  const [pixels] = picture.levels;
  const place = { picture: pixels, w: picture.width, x: box.x, y: box.y, bw: w, bh: h, mask };
  const moved = { ...place, h: picture.height, dx, dy, out: values };
  for (let c = 0; c < 3; c++) {
    kernels.sourceGap({ ...moved, channel: c });
    solveMembrane(machine, { values, mask, width: w, height: h }, rest);
    kernels.addSource({ ...moved, channel: c });
    kernels.putSought({ ...place, channel: c, values });
  }
}
