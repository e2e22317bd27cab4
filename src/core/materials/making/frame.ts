import type { Region } from '../../image/tile';

/** A size at which a sheet is drawn. */
export interface Frame {
  width: number;
  height: number;
  /** The long side: lengths of materials are fractions of it. */
  size: number;
  /** What is drawn continues on the opposite side. */
  wrap: boolean;
}

/** Windows begin and end at multiples of this many pixels. */
export const GRID = 16;

export const wholeOf = ({ width, height }: Frame): Region => ({ x: 0, y: 0, width, height });

/** A frame whose long side is `size` pixels, of a sheet that reaches to `right` and `bottom`; its sides are multiples of `grid`. */
export function frameOf(size: number, right: number, bottom: number, wrap: boolean, grid = GRID): Frame {
  const side = (share: number) => Math.max(grid, Math.ceil((size * share - 1e-6) / grid) * grid);
  return { width: side(right), height: side(bottom), size, wrap };
}

/** A region grown by so many pixels on every side. */
export const grown = ({ x, y, width, height }: Region, by: number): Region => ({
  x: x - by,
  y: y - by,
  width: width + 2 * by,
  height: height + 2 * by,
});

/** A region widened to multiples of `across` and `down`, and cut where a sheet that does not continue ends. */
export function onGrid(region: Region, frame: Frame, across = GRID, down = across): Region {
  const first = (at: number, step: number) => Math.floor(at / step) * step;
  const last = (at: number, step: number) => Math.ceil(at / step) * step;
  let [left, top] = [first(region.x, across), first(region.y, down)];
  let [right, bottom] = [last(region.x + region.width, across), last(region.y + region.height, down)];
  if (!frame.wrap) {
    [left, top] = [Math.max(0, left), Math.max(0, top)];
    [right, bottom] = [Math.min(frame.width, right), Math.min(frame.height, bottom)];
  }
  return { x: left, y: top, width: right - left, height: bottom - top };
}

/** The smallest region that holds two. */
export function around(a: Region | undefined, b: Region): Region {
  if (!a) return b;
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return { x, y, width: Math.max(a.x + a.width, b.x + b.width) - x, height: Math.max(a.y + a.height, b.y + b.height) - y };
}

export const isSame = (a: Region, b: Region): boolean => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;
