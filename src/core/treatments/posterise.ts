import * as z from 'zod';
import { slider } from '../schema';
import { applyCurves } from './curve';
import { soften } from './soften';
import { defineTreatment } from './treatment';

const schema = z.object({
  kind: z.literal('posterise'),
  levels: slider('Levels', 2, 16, 4, { step: 1, accepts: [2, 64], help: 'Three or four make a poster.' }),
  soften: slider('Soften first', 0, 20, 3, { unit: 'u', step: 0.5, help: 'Keeps grain from fraying the edges of the steps.' }),
});

/** The even steps as a function of 0..1. */
export const steps = (levels: number) => {
  const n = Math.round(levels);
  return (v: number) => Math.min(n - 1, Math.floor(v * n)) / (n - 1);
};

/** A few even steps a channel instead of a run of tones. */
export default defineTreatment({
  kind: 'posterise',
  label: 'Posterise',
  words: 'poster steps',
  shows: true,
  schema,
  source: 'W3C Filter Effects, Level 1, feComponentTransfer of type discrete with evenly spaced values',
  reach: () => 0,
  softens: (p, unit) => p.soften * unit,
  neutral: () => false,
  apply(context, tile, p) {
    soften(context, tile, p.soften * context.unit);
    applyCurves(context, tile, [p], (q) => steps((q as z.output<typeof schema>).levels));
  },
});
