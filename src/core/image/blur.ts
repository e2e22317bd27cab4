import type { Machine } from './machine';
import type { Scratch, Tile } from './tile';

/** Standard deviation up to which taps of a Gaussian are laid on; above it three box means come close enough (within 3 % of its weights). */
const EXACT = 2.5;

/** Pixels around a pixel that a blur of that standard deviation reads. */
export const blurReach = (sigma: number): number => (sigma < 0.15 ? 0 : Math.ceil(3 * sigma) + 1);

/** Gaussian blur of one plane in place; the edge is extended. `sigma` in pixels. */
export function blurPlane({ kernels, floats }: Machine, scratch: Scratch, plane: number, width: number, height: number, sigma: number): void {
  if (sigma < 0.15) return;
  const mark = scratch.mark();
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

/** Gaussian blur of a tile's colours in place. What is transparent does not bleed in, and alpha stays as it is. */
export function blurTile(machine: Machine, scratch: Scratch, tile: Tile, sigma: number): void {
  if (sigma < 0.15) return;
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const alpha = scratch.plane(count);
  const plane = (c: number) => ptr + c * stride;
  kernels.copyWindow(plane(3), width, alpha, width, width, height);
  kernels.premultiply(ptr, stride, count, 0);
  for (let c = 0; c < 4; c++) blurPlane(machine, scratch, plane(c), width, height, sigma);
  kernels.premultiply(ptr, stride, count, 1);
  kernels.copyWindow(alpha, width, plane(3), width, width, height);
  scratch.release(mark);
}
