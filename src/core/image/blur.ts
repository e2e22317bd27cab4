import type { Machine } from './machine';
import { grow, padded, shrink, type Scratch, type Tile } from './tile';

/**
 * Up to this standard deviation, in pixels, the taps of a Gaussian are laid on as they are. A wider one is laid on the means of cells, so large
 * that it is under this many of them: what such a blur leaves needs no more.
 */
const WIDE = 5;

/** Pixels around a pixel that a blur of that standard deviation reads; of a wide one in fours, so that rows stay aligned in memory. */
export function blurReach(sigma: number): number {
  if (sigma < 0.15) return 0;
  return sigma > WIDE ? 4 * Math.ceil((3 * sigma + 1) / 4) : Math.ceil(3 * sigma) + 1;
}

/** A plane's wide Gaussian, as the means of cells. */
interface Means {
  at: number;
  columns: number;
  rows: number;
  cell: number;
  work: number;
}

function blurredMeans(machine: Machine, scratch: Scratch, plane: number, width: number, height: number, sigma: number): Means {
  const cell = 2 ** Math.ceil(Math.log2(sigma / WIDE));
  const [columns, rows] = [Math.ceil(width / cell), Math.ceil(height / cell)];
  const at = scratch.plane(columns * rows + 8);
  const work = scratch.take((columns * Math.max(4, cell) + 6 * Math.max(4, cell) + 32) * 4);
  machine.kernels.meanCells(plane, width, height, at, columns, rows, cell, work);
  // The mean of a cell is a blur of its own, of variance (cell² − 1) / 12.
  blurPlane(machine, scratch, at, columns, rows, Math.sqrt(sigma * sigma - (cell * cell - 1) / 12) / cell);
  return { at, columns, rows, cell, work };
}

/**
 * Gaussian blur of one plane in place; the edge is extended. `sigma` in pixels. Pixels nearer than `rim` to the plane's edges need not be
 * right: the caller leaves them away.
 */
export function blurPlane(machine: Machine, scratch: Scratch, plane: number, width: number, height: number, sigma: number, rim = 0): void {
  if (sigma < 0.15) return;
  const { kernels, floats } = machine;
  const mark = scratch.mark();
  if (sigma > WIDE) {
    const { at, columns, rows, cell, work } = blurredMeans(machine, scratch, plane, width, height, sigma);
    const inner = plane + (rim * width + rim) * 4;
    if (2 * rim < Math.min(width, height))
      kernels.spreadCells({ src: at, columns, rows, cell, dst: inner, pitch: width, x0: rim, x1: width - rim, y0: rim, y1: height - rim, work });
    scratch.release(mark);
    return;
  }
  const other = scratch.plane(width * height + 8);
  const radius = Math.ceil(3 * sigma);
  const taps = Array.from({ length: 2 * radius + 1 }, (_, i) => Math.exp(-((i - radius) ** 2) / (2 * sigma * sigma)));
  const sum = taps.reduce((a, b) => a + b);
  const table = scratch.take(taps.length * 4);
  floats.set(
    taps.map((v) => v / sum),
    table / 4,
  );
  const line = scratch.take((width + 2 * radius + 8) * 4);
  kernels.convolveRows(plane, other, width, height, table, radius, 0, line);
  kernels.convolveColumns(other, plane, width, height, table, radius, 0);
  scratch.release(mark);
}

/** Gaussian blur of a tile's colours in place. What is transparent does not bleed in, and alpha stays as it is. `rim` as for a plane. */
export function blurTile(machine: Machine, scratch: Scratch, tile: Tile, sigma: number, rim = 0): void {
  if (sigma < 0.15) return;
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  // Alpha need not be looked after where every pixel covers fully.
  if (kernels.isFilled(ptr + 3 * stride, width * height, 1)) {
    for (let c = 0; c < 3; c++) blurPlane(machine, scratch, ptr + c * stride, width, height, sigma, rim);
    scratch.release(mark);
    return;
  }
  const alpha = scratch.plane(count);
  const plane = (c: number) => ptr + c * stride;
  kernels.copyWindow(plane(3), width, alpha, width, width, height);
  kernels.premultiply(ptr, stride, count, 0);
  for (let c = 0; c < 4; c++) blurPlane(machine, scratch, plane(c), width, height, sigma);
  kernels.premultiply(ptr, stride, count, 1);
  kernels.copyWindow(alpha, width, plane(3), width, width, height);
  scratch.release(mark);
}

/** Gaussian blur of a tile's colours, cut down by `rim` pixels at each side, unless nothing would be left: what is returned lies at the same place. */
export function blurAndCut(machine: Machine, scratch: Scratch, tile: Tile, sigma: number, rim: number): Tile {
  const { kernels } = machine;
  const { ptr, stride, width, height } = tile;
  const inner = grow(tile, -rim);
  if (inner.width < 1 || inner.height < 1) {
    blurTile(machine, scratch, tile, sigma);
    return tile;
  }
  if (sigma <= WIDE || rim < 1 || !kernels.isFilled(ptr + 3 * stride, width * height, 1)) {
    blurTile(machine, scratch, tile, sigma, rim);
    return shrink(machine, tile, inner);
  }
  const mark = scratch.mark();
  const means = [0, 1, 2].map((c) => blurredMeans(machine, scratch, ptr + c * stride, width, height, sigma));
  const count = padded(inner.width, inner.height);
  const small: Tile = { ...inner, ptr, stride: count * 4, count };
  means.forEach(({ at, columns, rows, cell, work }, c) =>
    kernels.spreadCells({
      src: at,
      columns,
      rows,
      cell,
      dst: ptr + c * small.stride,
      pitch: inner.width,
      x0: rim,
      x1: rim + inner.width,
      y0: rim,
      y1: rim + inner.height,
      work,
    }),
  );
  kernels.fill(ptr + 3 * small.stride, count, 1);
  scratch.release(mark);
  return small;
}
