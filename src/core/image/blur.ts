import type { Machine } from './machine';
import type { Scratch, Tile } from './tile';

/** Standard deviation up to which taps of a Gaussian are laid on; above it three box means come close enough (within 3 % of its weights). */
const EXACT = 2.5;

/** Pixels around a pixel that a blur of that standard deviation reads. */
export const blurReach = (sigma: number): number => (sigma < 0.15 ? 0 : Math.ceil(3 * sigma) + 1);

/** A wide blur is done on a plane halved until its deviation is under this: nothing that such a blur leaves is lost by halving. */
const WIDE = 9;

/** A Gaussian wider than `WIDE` pixels, on a reduced copy of the plane. Only what lies further than `rim` from its edges is put back. */
function blurReduced(machine: Machine, scratch: Scratch, plane: number, width: number, height: number, sigma: number, rim: number): void {
  const { kernels } = machine;
  const levels = Math.ceil(Math.log2(sigma / WIDE));
  const cell = 2 ** levels;
  const [w, h] = [Math.ceil(width / (4 * cell)) * 4 * cell, Math.ceil(height / cell) * cell];
  const planes = [scratch.plane(w * h + 8)];
  kernels.copyWindow(plane, width, planes[0], w, width, height);
  kernels.extendEdges(planes[0], w, h, 0, 0, width, height);
  for (let l = 1; l <= levels; l++) {
    planes.push(scratch.plane((w >> l) * (h >> l) + 8));
    kernels.shrink(planes[l - 1], w >> (l - 1), h >> (l - 1), planes[l]);
    // The mean of two neighbours is a blur of its own, of variance 1/4.
    sigma = Math.sqrt(sigma * sigma - 0.25) / 2;
  }
  blurPlane(machine, scratch, planes[levels], w >> levels, h >> levels, sigma);
  // The window that is wanted, with two cells around it for the interpolation; columns in fours.
  const [low, across] = [w >> levels, h >> levels];
  const x0 = Math.floor(Math.max(0, Math.floor(rim / cell) - 2) / 4) * 4;
  const y0 = Math.max(0, Math.floor(rim / cell) - 2);
  const cw = Math.ceil((Math.min(low, Math.ceil((width - rim) / cell) + 2) - x0) / 4) * 4;
  const ch = Math.min(across, Math.ceil((height - rim) / cell) + 2) - y0;
  if (cw <= 0 || ch <= 0) return;
  const rows = scratch.take(cw * cell * 16 + 64);
  let from = scratch.plane(cw * ch + 8);
  kernels.copyWindow(planes[levels] + (y0 * low + x0) * 4, low, from, cw, cw, ch);
  for (let l = 1; l <= levels; l++) {
    const to = planes[levels - l];
    kernels.enlarge(from, cw << (l - 1), ch << (l - 1), to, cw << l, ch << l, 0, rows);
    from = to;
  }
  const at = plane + (y0 * cell * width + x0 * cell) * 4;
  kernels.copyWindow(from, cw * cell, at, width, Math.min(cw * cell, width - x0 * cell), Math.min(ch * cell, height - y0 * cell));
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
    blurReduced(machine, scratch, plane, width, height, sigma, rim);
    scratch.release(mark);
    return;
  }
  const other = scratch.plane(width * height + 8);
  if (sigma <= EXACT) {
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
  } else {
    // Three boxes of variance σ²/3 each: (2r + 1)² = 1 + 4σ².
    const radius = (Math.sqrt(1 + 4 * sigma * sigma) - 1) / 2;
    const middle = scratch.plane(width * height + 8);
    const line = scratch.take((width + 2 * Math.ceil(radius) + 32) * 4);
    kernels.boxMean(plane, other, width, height, radius, middle, line);
    kernels.boxMean(other, plane, width, height, radius, middle, line);
    kernels.boxMean(plane, other, width, height, radius, middle, line);
    kernels.copyWindow(other, width, plane, width, width, height);
  }
  scratch.release(mark);
}

/** Gaussian blur of a tile's colours in place. What is transparent does not bleed in, and alpha stays as it is. `rim` as for a plane. */
export function blurTile(machine: Machine, scratch: Scratch, tile: Tile, sigma: number, rim = 0): void {
  if (sigma < 0.15) return;
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const opaque = isOpaque(machine, scratch, tile);
  if (opaque) {
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

/** Whether every pixel of a tile covers fully: then alpha need not be looked after. */
function isOpaque({ kernels, memory }: Machine, scratch: Scratch, { ptr, stride, width, height }: Tile): boolean {
  const at = scratch.take(16);
  kernels.moments(ptr + 3 * stride, width * height, at);
  const [sum, squares] = new Float64Array(memory.buffer, at, 2);
  return sum === width * height && squares === sum;
}
