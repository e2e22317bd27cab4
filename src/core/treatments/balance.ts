import * as z from 'zod';
import { adaptation, D50, D65, tintedDaylight } from '../color/daylight';
import { multiply3, type Matrix3 } from '../color/matrix3';
import { share } from '../schema';
import { defineTreatment } from './treatment';

export const balanceFields = {
  warmth: share('Warmth', 0, { min: -1, max: 1, help: 'Along daylight, from blue shade to low sun.' }),
  tint: share('Tint', 0, { min: -1, max: 1, help: 'Across daylight, from green to magenta.' }),
  paper: share('Warm paper', 0, { help: 'White turns to the warm white of paper.' }),
};

/** Gains of red, green and blue in linear light that come first: what makes a picked spot, or the whole picture, grey. */
export const gainsField = z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]);

const schema = z.object({
  kind: z.literal('balance'),
  ...balanceFields,
  gains: gainsField.default([1, 1, 1]),
});
export type Balance = z.output<typeof schema>;

const MIRED = 1e6 / 6504;

/** Matrix on linear sRGB. Warmth goes from 4000 K (+1) over D65 to 18900 K (−1) in even steps of reciprocal temperature. */
export function balanceMatrix({ warmth, tint, paper, gains }: Omit<Balance, 'kind'>): Matrix3 {
  let matrix: Matrix3 = [gains[0], 0, 0, 0, gains[1], 0, 0, 0, gains[2]];
  if (warmth !== 0 || tint !== 0) {
    const mired = MIRED + warmth * (warmth > 0 ? 250 - MIRED : 100);
    // Full tint is a Duv of 0.03; towards magenta is below the locus.
    const origin = tintedDaylight(6504, 0);
    matrix = multiply3(adaptation(origin, tintedDaylight(Math.min(25000, Math.max(4000, 1e6 / mired)), -0.03 * tint)), matrix);
  }
  if (paper !== 0) {
    const to: [number, number] = [D65[0] + (D50[0] - D65[0]) * paper, D65[1] + (D50[1] - D65[1]) * paper];
    matrix = multiply3(adaptation(D65, to), matrix);
  }
  return matrix;
}

export default defineTreatment({
  kind: 'balance',
  label: 'White balance',
  schema,
  source: 'CIE 15:2004 daylight locus; Bradford adaptation as in ICC.1:2010, annex E',
  reach: () => 0,
  neutral: (p) => p.warmth === 0 && p.tint === 0 && p.paper === 0 && p.gains.every((g) => g === 1),
  apply: ({ machine }, tile, p) => void machine.kernels.linearMatrix(tile.ptr, tile.stride, tile.count, ...balanceMatrix(p)),
});
