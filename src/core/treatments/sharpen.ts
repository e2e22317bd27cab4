import * as z from 'zod';
import { slider } from '../schema';
import { softened } from './soften';
import { defineTreatment } from './treatment';

/** Unsharp masking: what a blur takes away is added once more. */
export default defineTreatment({
  kind: 'sharpen',
  label: 'Sharpen',
  words: 'crisp detail',
  shows: true,
  schema: z.object({
    kind: z.literal('sharpen'),
    amount: slider('Amount', 0, 3, 0.8, { unit: '%', factor: 100, step: 0.05, help: 'Brings out the grain of the material.' }),
    radius: slider('Radius', 0.5, 20, 1.5, { unit: 'u', step: 0.5 }),
  }),
  source: 'unsharp masking, common practice, no source',
  reach: () => 0,
  softens: (p, unit) => p.radius * unit,
  neutral: (p) => p.amount === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const sigma = p.radius * unit;
    if (sigma < 0.15) return;
    const mark = scratch.mark();
    const base = softened(context, tile, sigma);
    for (let c = 0; c < 3; c++) machine.kernels.recombine(tile.ptr + c * tile.stride, base.ptr + c * base.stride, tile.count, 1 + p.amount, 1, 0);
    scratch.release(mark);
  },
});
