import * as z from 'zod';
import { blurReach, blurTile } from '../image/blur';
import { slider } from '../schema';
import { defineTreatment } from './treatment';

/** Unsharp masking: what a blur takes away is added once more. */
export default defineTreatment({
  kind: 'sharpen',
  label: 'Sharpen',
  shows: true,
  schema: z.object({
    kind: z.literal('sharpen'),
    amount: slider('Amount', 0, 3, 0.8, { unit: '%', factor: 100, step: 0.05, help: 'Brings out the grain of the material.' }),
    radius: slider('Radius', 0.5, 20, 1.5, { unit: 'u', step: 0.5 }),
  }),
  source: 'unsharp masking, common practice, no source',
  reach: (p, unit) => blurReach(p.radius * unit),
  neutral: (p) => p.amount === 0,
  apply({ machine, scratch, unit }, tile, p) {
    const sigma = p.radius * unit;
    if (sigma < 0.15) return;
    const mark = scratch.mark();
    const base = scratch.tile(tile);
    machine.bytes.copyWithin(base.ptr, tile.ptr, tile.ptr + 4 * tile.stride);
    blurTile(machine, scratch, base, sigma);
    for (let c = 0; c < 3; c++) machine.kernels.recombine(tile.ptr + c * tile.stride, base.ptr + c * base.stride, tile.count, 1 + p.amount, 1, 0);
    scratch.release(mark);
  },
});
