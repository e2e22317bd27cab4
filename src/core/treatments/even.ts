import * as z from 'zod';
import type { Survey } from '../measure/survey';
import { share } from '../schema';
import { applyBase } from './base';
import { defineTreatment } from './treatment';

export const evenFields = {
  amount: share('Even out', 0, { help: 'Opens shadows, calms highlights and brings back detail.' }),
};

/** From the picture's own levels: its range spread, its middle brought towards the middle, dark places opened and light ones calmed. */
export function evenCurve(amount: number, { low, middle, high }: Pick<Survey, 'low' | 'middle' | 'high'>): (v: number) => number {
  const from = Math.min(low, 0.05) * 0.8 * amount;
  const to = 1 - (1 - Math.max(high, 0.75)) * 0.8 * amount;
  const centre = Math.min(0.95, Math.max(0.05, (middle - from) / (to - from)));
  const wanted = Math.min(1.5, Math.max(0.5, Math.log(0.46) / Math.log(centre)));
  const power = 1 + (wanted - 1) * 0.6 * amount;
  return (v) => {
    const x = Math.min(1, Math.max(0, (v - from) / (to - from))) ** power;
    return x + 0.5 * amount * (x * (1 - x) ** 3 - x ** 3 * (1 - x));
  };
}

/** One slider for the whole of the light. */
export default defineTreatment({
  kind: 'even',
  label: 'Even out',
  schema: z.object({ kind: z.literal('even'), ...evenFields }),
  source: 'base and detail by He, Sun & Tang 2013; what is done to them is common practice, no source',
  reach: () => 0,
  neutral: (p) => p.amount === 0,
  needs: () => ({ survey: { need: 'survey', radius: 60, eps: 0.02 } }),
  apply(context, tile, p) {
    const { survey } = context.needed('survey', 'survey');
    applyBase(context, tile, p, () => evenCurve(p.amount, survey), 1 + 0.35 * p.amount);
  },
});
