import * as z from 'zod';
import { adaptation, D50, D65, tintedDaylight } from '../color/daylight';
import { multiply3, type Matrix3 } from '../color/matrix3';
import { toEncoded, toLinear } from '../color/srgb';
import type { Need } from '../graph/needs';
import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { share } from '../schema';
import { defineTreatment } from './treatment';

export const balanceFields = {
  warmth: share('Temperature', 0, { min: -1, max: 1, help: 'From cool blue to warm yellow.' }),
  tint: share('Tint', 0, { min: -1, max: 1, help: 'From green to magenta.' }),
  paper: share('Warm paper', 0, { help: 'Turns white into warm paper white.' }),
};

/** Gains of red, green and blue in linear light that come first: what makes a picked spot, or the whole picture, grey. */
export const gainsField = z.tuple([z.number().positive(), z.number().positive(), z.number().positive()]);

const schema = z.object({
  kind: z.literal('balance'),
  ...balanceFields,
  gains: gainsField.default([1, 1, 1]),
  /** A spot of the photo's file, in its pixels, whose mean becomes grey with its luma kept; its gains come before the others. */
  grey: z.object({ x: z.number(), y: z.number(), side: z.number().positive() }).optional(),
});
export type Balance = z.output<typeof schema>;

const MIRED = 1e6 / 6504;

/** Matrix on linear sRGB. Warmth goes from 4000 K (+1) over D65 to 18900 K (−1) in even steps of reciprocal temperature. */
export function balanceMatrix({ warmth, tint, paper, gains }: Pick<Balance, 'warmth' | 'tint' | 'paper' | 'gains'>): Matrix3 {
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

const known = new WeakMap<object, { address: number; gains: Balance['gains'] }>();

/** Gains that make the mean of a square spot grey, in linear light, with its luma kept: read from the file itself. */
export function greyGains(machine: Machine, photo: Picture, spot: NonNullable<Balance['grey']>): Balance['gains'] {
  const [address] = photo.levels;
  const before = known.get(spot);
  if (before?.address === address) return before.gains;
  const half = spot.side / 2;
  const x0 = Math.min(photo.width - 1, Math.max(0, Math.round(spot.x - half)));
  const y0 = Math.min(photo.height - 1, Math.max(0, Math.round(spot.y - half)));
  const x1 = Math.min(photo.width, Math.max(x0 + 1, Math.round(spot.x + half)));
  const y1 = Math.min(photo.height, Math.max(y0 + 1, Math.round(spot.y + half)));
  const sum = [0, 0, 0];
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++) for (let c = 0; c < 3; c++) sum[c] += toLinear(machine.bytes[address + (y * photo.width + x) * 4 + c] / 255);
  const mean = sum.map((v) => Math.max(1e-4, v / ((x1 - x0) * (y1 - y0))));
  const luma = 0.2126 * toEncoded(mean[0]) + 0.7152 * toEncoded(mean[1]) + 0.0722 * toEncoded(mean[2]);
  const gains = mean.map((v) => toLinear(luma) / v) as Balance['gains'];
  known.set(spot, { address, gains });
  return gains;
}

export default defineTreatment({
  kind: 'balance',
  label: 'White balance',
  words: 'temperature warm cold cast',
  schema,
  source: 'CIE 15:2004 daylight locus; Bradford adaptation as in ICC.1:2010, annex E',
  reach: () => 0,
  neutral: (p) => p.warmth === 0 && p.tint === 0 && p.paper === 0 && p.gains.every((g) => g === 1) && !p.grey,
  needs: (p): Record<string, Need> => (p.grey ? { file: { need: 'photo' } } : {}),
  apply(context, tile, p) {
    const gains = p.grey ? greyGains(context.machine, context.needed('file', 'picture').picture, p.grey) : p.gains;
    const { ptr, stride, count } = tile;
    context.machine.kernels.linearMatrix({ tile: ptr, stride, count, m: balanceMatrix({ ...p, gains }) });
  },
});
