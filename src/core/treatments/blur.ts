import * as z from 'zod';
import { blurAndCut, blurReach, blurTile } from '../image/blur';
import { slider } from '../schema';
import { defineTreatment } from './treatment';

/** Gaussian blur of the colours. */
export default defineTreatment({
  kind: 'blur',
  label: 'Blur',
  shows: true,
  schema: z.object({
    kind: z.literal('blur'),
    radius: slider('Radius', 0, 60, 3, {
      unit: 'u',
      step: 0.5,
      accepts: [0, 400],
      help: 'Softens the material; colours at its edge are extended, never darkened.',
    }),
  }),
  source: 'W3C Filter Effects, Level 1, feGaussianBlur (standard deviation)',
  reach: (p, unit) => blurReach(p.radius * unit),
  neutral: (p) => p.radius === 0,
  apply: ({ machine, scratch, unit }, tile, p) => blurTile(machine, scratch, tile, p.radius * unit, Math.floor(2 * p.radius * unit)),
  applyAndCut: ({ machine, scratch, unit }, tile, p) => blurAndCut(machine, scratch, tile, p.radius * unit, blurReach(p.radius * unit)),
});
