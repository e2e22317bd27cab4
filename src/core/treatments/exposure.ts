import * as z from 'zod';
import { toEncoded, toLinear } from '../color/srgb';
import { share, slider } from '../schema';
import { defineCurves } from './treatment';

export const exposureFields = {
  exposure: slider('Exposure', -4, 4, 0, { unit: 'stops', step: 0.05, help: 'Lighter or darker, like another exposure.' }),
  contrast: share('Contrast', 0, { min: -1, max: 1 }),
  shadows: share('Shadows', 0, { min: -1, max: 1, help: 'Opens or deepens the dark parts.' }),
  highlights: share('Highlights', 0, { min: -1, max: 1, help: 'Darkens or lightens the light parts.' }),
  white: share('White', 0, { min: -1, max: 1, help: 'Sets where white begins.' }),
  black: share('Black', 0, { min: -1, max: 1, help: 'Lifts black to dark grey, or deepens it.' }),
  fade: share('Fade', 0, { help: 'Pale blacks and soft whites, like an old print.' }),
};

const schema = z.object({ kind: z.literal('exposure'), ...exposureFields });
type Exposure = z.output<typeof schema>;

/** The tone curve on encoded values 0..1 that follows the exposure; rises everywhere. Common practice, no source. */
export function toneCurve(p: Omit<Exposure, 'kind'>): (v: number) => number {
  const low = Math.max(0, -p.black) * 0.15;
  const high = 1 - Math.max(0, p.white) * 0.15;
  const floor = Math.max(0, p.black) * 0.12 + 0.1 * p.fade;
  const ceiling = 1 + Math.min(0, p.white) * 0.15 - 0.06 * p.fade;
  return (input) => {
    let v = Math.min(1, Math.max(0, (input - low) / (high - low)));
    // v(1 − v)³ is highest at a quarter; the factor keeps the curve rising at full strength either way.
    v += 0.94 * (p.shadows * v * (1 - v) ** 3 + p.highlights * v ** 3 * (1 - v));
    if (p.contrast > 0) v += 0.7 * p.contrast * (v * v * (3 - 2 * v) - v);
    else v = 0.5 + (v - 0.5) * (1 + 0.7 * p.contrast);
    return floor + (ceiling - floor) * Math.min(1, Math.max(0, v));
  };
}

/** Exposure in linear light, then one tone curve on the encoded values of each channel: together one function of each. */
export default defineCurves({
  kind: 'exposure',
  label: 'Light',
  words: 'fade brightness contrast highlights shadows',
  schema,
  source: 'IEC 61966-2-1 for linear light; the curve is common practice, no source',
  neutral: (p) => Object.keys(exposureFields).every((key) => p[key as keyof typeof exposureFields] === 0),
  curves(p) {
    const [light, tone] = [2 ** p.exposure, toneCurve(p)];
    return (v) => tone(light === 1 ? v : Math.min(1, toEncoded(Math.min(1, light * toLinear(v)))));
  },
});
