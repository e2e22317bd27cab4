import * as z from 'zod';
import { share, slider } from '../schema';
import { applyBase } from './base';
import { defineTreatment } from './treatment';

export const localContrastFields = {
  amount: share('Local contrast', 0, { min: -1, max: 1, help: 'Strengthens detail; negative softens it.' }),
  reach: slider('Reach', 5, 120, 40, { unit: 'u', step: 1, help: 'The size of the detail that changes.' }),
};

/** Luma's detail over its surroundings, multiplied; strong edges belong to the surroundings, so that no halo stands beside them. */
export default defineTreatment({
  kind: 'local-contrast',
  label: 'Local contrast',
  words: 'clarity structure',
  schema: z.object({ kind: z.literal('local-contrast'), ...localContrastFields }),
  source: 'He, Sun & Tang 2013, guided image filtering, §4.2 (detail enhancement)',
  reach: () => 0,
  neutral: (p) => p.amount === 0,
  needs: (p) => ({ survey: { need: 'survey', radius: p.reach, eps: 0.01 } }),
  apply: (context, tile, p) => applyBase(context, tile, p, null, p.amount > 0 ? 1 + 1.5 * p.amount : 1 + 0.9 * p.amount),
});
