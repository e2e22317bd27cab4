import * as z from 'zod';
import { share } from '../schema';
import { defineTreatment } from './treatment';

export const noiseFields = {
  luma: share('Noise in light', 0, { help: 'Smooths grey grain and keeps edges.' }),
  colour: share('Noise in colour', 0, { help: 'Removes coloured specks.' }),
};

/** Radii of the surroundings in u, and what full strength takes for noise: a standard deviation of luma, a step of colour. */
const LUMA = { radius: 1.3, most: 0.06 };
const COLOUR = { radius: 3, most: 0.15 };

const radiusOf = (p: { luma: number; colour: number }, unit: number): number =>
  Math.max(p.luma > 0 ? LUMA.radius : 0, p.colour > 0 ? COLOUR.radius : 0) * unit;

/** Noise of light and of colour, taken down apart. */
export default defineTreatment({
  kind: 'noise',
  label: 'Noise',
  words: 'denoise clean',
  schema: z.object({ kind: z.literal('noise'), ...noiseFields }),
  source: 'Lee 1980, digital image enhancement and noise filtering by use of local statistics, for luma; colour is common practice, no source',
  reach: (p, unit) => radiusOf(p, unit) + 2,
  neutral: (p) => p.luma === 0 && p.colour === 0,
  apply({ machine, scratch, unit }, tile, p) {
    const { kernels } = machine;
    const mark = scratch.mark();
    const plane = () => scratch.plane(tile.count + 8);
    const [luma, blue, red, mean, squared, middle] = [plane(), plane(), plane(), plane(), plane(), plane()];
    const line = scratch.take((tile.width + 2 * Math.ceil(radiusOf(p, unit)) + 32) * 4);
    const box = (from: number, to: number, radius: number) => kernels.boxMean(from, to, tile.width, tile.height, radius, middle, line);
    kernels.splitLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    // Where a pixel is wider than the surroundings, noise has already been averaged away.
    if (p.colour > 0 && COLOUR.radius * unit > 0.2) {
      for (const difference of [blue, red]) {
        box(difference, mean, COLOUR.radius * unit);
        kernels.drawTo(difference, mean, tile.count, Math.min(1, 0.4 + p.colour), 0.05 + COLOUR.most * p.colour);
      }
    }
    if (p.luma > 0 && LUMA.radius * unit > 0.2) {
      kernels.multiplied(luma, luma, squared, tile.count);
      box(squared, squared, LUMA.radius * unit);
      box(luma, mean, LUMA.radius * unit);
      kernels.calm(luma, mean, squared, tile.count, (LUMA.most * p.luma) ** 2);
    }
    kernels.joinLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    scratch.release(mark);
  },
});
