import type { Machine } from './machine';
import type { Scratch, Tile } from './tile';

/** A picture's colours as a linear model of a luma over surroundings, channel by channel: planes. */
export interface ColourModel {
  slope: [number, number, number];
  offset: [number, number, number];
}

/**
 * Fits every channel of a tile as slope · luma + offset over boxes (He, Sun & Tang 2013, equations 5 to 8, the guide being a luma), and takes the mean of
 * the models that hold for a pixel. In memory that the caller releases.
 *
 * @param guide - A plane of luma.
 * @param radius - Of a box, in pixels, any number of at least 0.
 * @param eps - Variance of the guide below which it counts as flat.
 */
export function modelOf(machine: Machine, scratch: Scratch, tile: Tile, guide: number, radius: number, eps: number): ColourModel {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const planes = () => [0, 1, 2].map(() => scratch.plane(count + 8)) as [number, number, number];
  const [slope, offset] = [planes(), planes()];
  const mark = scratch.mark();
  const [mean, square, product, middle] = Array.from({ length: 4 }, () => scratch.plane(count + 8));
  const line = scratch.take((width + 2 * Math.ceil(radius) + 32) * 4);
  const box = (from: number, to: number) => kernels.boxMean(from, to, width, height, radius, middle, line);
  box(guide, mean);
  kernels.multiplied(guide, guide, product, count);
  box(product, square);
  for (let c = 0; c < 3; c++) {
    const channel = ptr + c * stride;
    box(channel, offset[c]);
    kernels.multiplied(guide, channel, product, count);
    box(product, slope[c]);
    kernels.guidedModel(mean, offset[c], square, slope[c], slope[c], offset[c], count, eps);
    box(slope[c], slope[c]);
    box(offset[c], offset[c]);
  }
  scratch.release(mark);
  return { slope, offset };
}

/** What a model makes of a luma: written over a tile's colours. */
export function applyModel(
  machine: Machine,
  { slope, offset }: ColourModel,
  luma: number,
  { ptr, stride, count }: Pick<Tile, 'ptr' | 'stride' | 'count'>,
): void {
  for (let c = 0; c < 3; c++) machine.kernels.modelled(slope[c], offset[c], luma, ptr + c * stride, count);
}
