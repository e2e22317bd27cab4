import { apply, isAffine, slope, type Point, type Projection } from '../image/projection';
import type { Region } from '../image/tile';
import { cornerSpread, layProjection, NOMINAL, type Frame, type Lay, type Size } from './lay';

/** A part of a sheet is read where the drawing takes about as many pixels of it as the sheet has; smaller drawings read the whole picture. */
const MOST_REDUCTION = 1.8;
/** In perspective the far end of a part is seen smaller than the near one, at most by so much. */
const MOST_IN_PERSPECTIVE = 4;
/** Long side of the whole picture of a material: a sheet that is no finer is not drawn in parts. */
export const WHOLE_SIDE = 2048;

/** Pixels read around a place: the nearest ones, and those of smaller levels. */
const MARGIN = 4;
const MARGIN_IN_PERSPECTIVE = 8;

/** How a sheet is read by a drawing: where its pixels lie, and how much smaller than they are it may be drawn. */
export interface Reading {
  map: Projection;
  limit: number;
}

/** Levels of a part: it is read at its own size, or a little smaller where a lay stretches it; in perspective from near to far. */
export const levelsOfPart = ({ corners }: Pick<Lay, 'corners'>): number => (corners ? 3 : 2);

/** Whether the sheet that a lay lies on is repeated on all sides. */
export const continues = ({ fit }: Pick<Lay, 'fit'>): boolean => fit === 'tile';

/**
 * How a drawing reads parts of a sheet.
 *
 * @param held - How much of the sheet is the source, in its pixels.
 * @returns null for a drawing so much smaller than the sheet that it reads the whole picture
 */
export function readingOf(lay: Lay, nominal: Size, drawn: Frame, held: Size): Reading | null {
  const map = layProjection(lay, nominal, drawn, held);
  if (isAffine(map)) {
    const [ux, vx, uy, vy] = slope(map, [0, 0]);
    return Math.max(Math.hypot(ux, vx), Math.hypot(uy, vy)) <= MOST_REDUCTION ? { map, limit: Infinity } : null;
  }
  // Its nearest place, by the scale that the sheet was made for.
  const flat = layProjection({ ...lay, corners: undefined }, nominal, drawn, held);
  const [ux, vx] = slope(flat, [0, 0]);
  if (Math.hypot(ux, vx) / cornerSpread(lay) > MOST_REDUCTION) return null;
  const finer = (Math.max(held.width / nominal.width, held.height / nominal.height) * NOMINAL) / WHOLE_SIDE;
  return { map, limit: Math.min(MOST_IN_PERSPECTIVE, Math.max(MOST_REDUCTION, finer)) };
}

/** What a region reads of a sheet: the box around it, with the pixels between which values are interpolated; null where it reads the whole picture. */
export function readOn({ map, limit }: Reading, { x, y, width, height }: Region): Region | null {
  const corners: Point[] = [
    [x, y],
    [x + width, y],
    [x, y + height],
    [x + width, y + height],
  ];
  const isFlat = isAffine(map);
  if (!isFlat && corners.some((corner) => isBehind(map, corner) || reduction(map, corner) > limit)) return null;
  const read = corners.map((corner) => apply(map, corner));
  const [xs, ys] = [read.map(([u]) => u), read.map(([, v]) => v)];
  const margin = isFlat ? MARGIN : MARGIN_IN_PERSPECTIVE;
  const [left, top] = [Math.floor(Math.min(...xs)) - margin, Math.floor(Math.min(...ys)) - margin];
  return { x: left, y: top, width: Math.ceil(Math.max(...xs)) + margin - left, height: Math.ceil(Math.max(...ys)) + margin - top };
}

/** Side of the places that are looked at one by one in perspective, in pixels of the drawing. */
const CELL = 128;

/** The part of a sheet that is drawn for a region: all that it reads, or in perspective what its nearer places do, up to `most` pixels. */
export function partFor(reading: Reading, region: Region, most = Infinity): Region | null {
  if (isAffine(reading.map)) return readOn(reading, region);
  for (let limit = reading.limit; limit > 0.5; limit *= 0.8) {
    const box = boxOf(cellsOf(region).flatMap((cell) => readOn({ ...reading, limit }, cell) ?? []));
    if (!box || box.width * box.height <= most) return box;
  }
  return null;
}

/** How often a sheet is halved for a region that lies far away in perspective, so that the region still takes no less than its pixels. */
export function halvings({ map }: Reading, region: Region): number {
  if (isAffine(map)) return 0;
  const corners = cellsOf(region).flatMap(({ x, y, width, height }): Point[] => [
    [x, y],
    [x + width, y + height],
  ]);
  const nearest = Math.min(...corners.map((corner) => (isBehind(map, corner) ? Infinity : reduction(map, corner))));
  return Number.isFinite(nearest) ? Math.max(0, Math.floor(Math.log2(nearest))) : 0;
}

const isBehind = (m: Projection, [x, y]: Point): boolean => m[6] * x + m[7] * y + m[8] <= 1e-9;

/** How many pixels of the sheet there are to one of the drawing, in the direction in which there are fewest: the smaller singular value of the derivative. */
function reduction(map: Projection, at: Point): number {
  const [ux, vx, uy, vy] = slope(map, at);
  const [a, b, p] = [ux * ux + vx * vx, uy * uy + vy * vy, ux * uy + vx * vy];
  return Math.sqrt(Math.max(0, (a + b) / 2 - Math.hypot((a - b) / 2, p)));
}

function cellsOf({ x, y, width, height }: Region): Region[] {
  const cells: Region[] = [];
  for (let top = y; top < y + height; top += CELL)
    for (let left = x; left < x + width; left += CELL)
      cells.push({ x: left, y: top, width: Math.min(CELL, x + width - left), height: Math.min(CELL, y + height - top) });
  return cells;
}

function boxOf(regions: Region[]): Region | null {
  if (regions.length === 0) return null;
  const x = Math.min(...regions.map((r) => r.x));
  const y = Math.min(...regions.map((r) => r.y));
  const right = Math.max(...regions.map((r) => r.x + r.width));
  const bottom = Math.max(...regions.map((r) => r.y + r.height));
  return { x, y, width: right - x, height: bottom - y };
}
