import * as z from 'zod';
import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import { share } from '../schema';
import { defineTreatment } from './treatment';

export const noiseFields = {
  luma: share('Noise in light', 0, { help: 'Calms light and dark grain; edges stay.' }),
  colour: share('Noise in colour', 0, { help: 'Calms coloured specks; light and dark stay as they are.' }),
};

/** Radii of the surroundings in u, and the noise (standard deviation, 0..1) that full strength takes for noise. */
const LUMA = { radius: 1.3, most: 0.07 };
const COLOUR = { radius: 4, most: 0.06 };

const radiusOf = (p: { luma: number; colour: number }, unit: number): number =>
  Math.max(p.luma > 0 ? LUMA.radius : 0, p.colour > 0 ? COLOUR.radius : 0) * unit;

/** Planes of a guided filter over a tile's size, taken from scratch memory. */
function guided(
  { machine, scratch }: RenderContext,
  tile: Tile,
  guide: number,
  radius: number,
  eps: number,
): (plane: number, share: number, own: boolean) => void {
  const { kernels } = machine;
  const { count, width, height } = tile;
  const take = () => scratch.plane(count + 8);
  const [mean, squared, input, product, slope, offset, middle] = Array.from({ length: 7 }, take);
  const line = scratch.take((width + 2 * Math.ceil(radius) + 16) * 4);
  const box = (from: number, to: number) => kernels.boxMean(from, to, width, height, radius, middle, line);
  box(guide, mean);
  kernels.multiplied(guide, guide, product, count);
  box(product, squared);
  return (plane, strength, own) => {
    if (!own) {
      box(plane, input);
      kernels.multiplied(guide, plane, offset, count);
      box(offset, product);
    }
    kernels.guidedModel(mean, own ? mean : input, squared, own ? squared : product, slope, offset, count, eps);
    box(slope, slope);
    box(offset, offset);
    kernels.applyModel(plane, guide, slope, offset, count, strength);
  };
}

/** Noise of light and of colour, taken down apart: a guided filter of luma by itself, and of the colour differences by luma. */
export default defineTreatment({
  kind: 'noise',
  label: 'Noise',
  schema: z.object({ kind: z.literal('noise'), ...noiseFields }),
  source: 'He, Sun & Tang 2013, guided image filtering',
  // Means are taken of means.
  reach: (p, unit) => 2 * (radiusOf(p, unit) + 1),
  neutral: (p) => p.luma === 0 && p.colour === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const mark = scratch.mark();
    const [luma, blue, red] = [0, 1, 2].map(() => scratch.plane(tile.count + 8));
    kernels.splitLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    // Where a pixel is wider than the surroundings, noise has already been averaged away.
    if (p.colour > 0 && COLOUR.radius * unit > 0.2) {
      const inner = scratch.mark();
      const smooth = guided(context, tile, luma, COLOUR.radius * unit, (0.02 + COLOUR.most * p.colour) ** 2);
      for (const plane of [blue, red]) smooth(plane, Math.min(1, 0.4 + p.colour), false);
      scratch.release(inner);
    }
    if (p.luma > 0 && LUMA.radius * unit > 0.2) {
      const inner = scratch.mark();
      guided(context, tile, luma, LUMA.radius * unit, (LUMA.most * p.luma) ** 2)(luma, 1, true);
      scratch.release(inner);
    }
    kernels.joinLuma(tile.ptr, tile.stride, tile.count, luma, blue, red);
    scratch.release(mark);
  },
});
