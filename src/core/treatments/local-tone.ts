import * as z from 'zod';
import { share, slider } from '../schema';
import { applyBase } from './base';
import { defineTreatment } from './treatment';

export const localToneFields = {
  flatten: share('Flatten', 0, { help: 'Brings light and dark areas closer together.' }),
  detail: share('Detail', 0, { min: -1, max: 1, help: 'How much detail is kept.' }),
  lift: share('Lift', 0, { min: -1, max: 1, help: 'Lighter or darker overall.' }),
  reach: slider('Reach', 10, 160, 60, { unit: 'u', step: 1, help: 'The size of the areas.' }),
};
export type LocalTone = Omit<z.output<typeof localToneSchema>, 'kind'>;
const localToneSchema = z.object({ kind: z.literal('local-tone'), ...localToneFields });

/** Named places to begin from. */
export const localToneStarts: readonly { name: string; values: LocalTone }[] = [
  { name: 'Clear morning', values: { flatten: 0.35, detail: 0.25, lift: 0.1, reach: 60 } },
  { name: 'Storm light', values: { flatten: 0.6, detail: 0.75, lift: -0.25, reach: 80 } },
  { name: 'Faded card', values: { flatten: 0.55, detail: -0.3, lift: 0.3, reach: 60 } },
  { name: 'Etched', values: { flatten: 0.85, detail: 1, lift: 0, reach: 30 } },
];

/** The base of luma pressed together around its middle and lifted; rises everywhere. */
export const baseCurve = ({ flatten, lift }: Pick<LocalTone, 'flatten' | 'lift'>): ((v: number) => number) => {
  const power = 2 ** (-0.8 * lift);
  return (v) => (0.5 + (v - 0.5) * (1 - 0.8 * flatten)) ** power;
};

/** Strong tone mapping by places instead of pixels. */
export default defineTreatment({
  kind: 'local-tone',
  label: 'Local tone',
  words: 'hdr tone mapping',
  schema: localToneSchema,
  source: 'Durand & Dorsey 2002 (base and detail), with the guided filter of He, Sun & Tang 2013 for the base',
  reach: () => 0,
  neutral: (p) => p.flatten === 0 && p.detail === 0 && p.lift === 0,
  needs: (p) => ({ survey: { need: 'survey', radius: p.reach, eps: 0.02 } }),
  apply: (context, tile, p) => applyBase(context, tile, p, () => baseCurve(p), p.detail > 0 ? 1 + 2 * p.detail : 1 + 0.8 * p.detail),
});
