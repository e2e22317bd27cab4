import * as z from 'zod';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';

/** A tint of a hue without luma: red, green and blue that add up to none (Rec. 709). */
export function tintOf(hue: number, amount: number): [number, number, number] {
  const angle = (hue * Math.PI) / 180;
  const rgb = [0, 1, 2].map((c) => Math.cos(angle - (c * 2 * Math.PI) / 3));
  const luma = 0.2126 * rgb[0] + 0.7152 * rgb[1] + 0.0722 * rgb[2];
  return rgb.map((v) => amount * (v - luma)) as [number, number, number];
}

/** Shadows and highlights each drawn to a hue; how light anything is stays. */
export default defineTreatment({
  kind: 'two-tones',
  label: 'Two tones',
  words: 'split toning shadows highlights duotone tint grade colour',
  shows: true,
  schema: z.object({
    kind: z.literal('two-tones'),
    shadowHue: slider('Hue of shadows', 0, 360, 215, { unit: '°', step: 1, dial: true }),
    shadows: share('Shadows', 0.3),
    highlightHue: slider('Hue of highlights', 0, 360, 40, { unit: '°', step: 1, dial: true }),
    highlights: share('Highlights', 0.3),
    balance: share('Balance', 0.5, { help: 'Lower gives more of the picture to the highlights.' }),
  }),
  source: 'common practice, no source; luma by ITU-R BT.709',
  reach: () => 0,
  neutral: (p) => p.shadows === 0 && p.highlights === 0,
  apply({ machine }, { ptr, stride, count }, p) {
    // At full, ten times what is hardly seen.
    const [rs, gs, bs] = tintOf(p.shadowHue, 0.17 * p.shadows);
    const [rh, gh, bh] = tintOf(p.highlightHue, 0.17 * p.highlights);
    machine.kernels.twoTones({ tile: ptr, stride, count, rs, gs, bs, rh, gh, bh, balance: p.balance });
  },
});
