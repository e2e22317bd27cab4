import * as z from 'zod';
import { blurAndCut, blurReach } from '../image/blur';
import { slider } from '../schema';
import { soften } from './soften';
import { defineTreatment } from './treatment';

/** Gaussian blur of the colours. */
export default defineTreatment({
  kind: 'blur',
  label: 'Blur',
  words: 'soft focus out of focus',
  shows: true,
  schema: z.object({
    kind: z.literal('blur'),
    radius: slider('Radius', 0, 60, 3, {
      unit: 'u',
      step: 0.5,
      accepts: [0, 400],
      help: 'Softens the material.',
    }),
  }),
  source: 'W3C Filter Effects, Level 1, feGaussianBlur (standard deviation)',
  reach: () => 0,
  softens: (p, unit) => p.radius * unit,
  neutral: (p) => p.radius === 0,
  apply: (context, tile, p) => soften(context, tile, p.radius * context.unit, Math.floor(2 * p.radius * context.unit)),
  applyAndCut: ({ machine, scratch, unit }, tile, p) => blurAndCut(machine, scratch, tile, p.radius * unit, blurReach(p.radius * unit)),
});
