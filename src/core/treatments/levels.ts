import * as z from 'zod';
import { share, slider } from '../schema';
import { defineCurves } from './treatment';

export const levelsFields = {
  black: share('Black from', 0, { min: 0, max: 0.9, help: 'Everything darker than this becomes black.' }),
  middle: slider('Middle', 0.2, 5, 1, { step: 0.01, help: 'Above 1 lightens the middle tones, below it darkens them.' }),
  white: share('White from', 1, { min: 0.1, max: 1, help: 'Everything lighter than this becomes white.' }),
  floor: share('Darkest', 0, { help: 'Lifts the darkest tone.' }),
  ceiling: share('Lightest', 1, { help: 'Lowers the lightest tone.' }),
};
export type Levels = z.output<typeof levelsSchema>;
const levelsSchema = z.object({ kind: z.literal('levels'), ...levelsFields });

export function levelsCurve({ black, middle, white, floor, ceiling }: Omit<Levels, 'kind'>): (v: number) => number {
  // A white at or under the black leaves a hard step.
  const width = Math.max(1 / 255, white - black);
  return (v) => floor + (ceiling - floor) * Math.min(1, Math.max(0, (v - black) / width)) ** (1 / middle);
}

export default defineCurves({
  kind: 'levels',
  label: 'Levels',
  words: 'fade contrast black point white point clipping',
  schema: levelsSchema,
  source: 'common practice, no source',
  neutral: (p) => p.black === 0 && p.middle === 1 && p.white === 1 && p.floor === 0 && p.ceiling === 1,
  curves: levelsCurve,
});
