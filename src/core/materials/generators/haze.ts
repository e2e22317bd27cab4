import * as z from 'zod';
import { share } from '../../schema';
import { amount, colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'air.haze',
  label: 'Sea haze',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.25,
  suggest: { blend: 'screen', strength: 0.45 },
  first: [amount(0, [1, 0.75, 0.5]), colourFirst, parameter('height')],
  help: 'Mist that lies low and thins upwards, in drifts; for screen, over what is far away.',
  params: z.object({
    height: share('Height', 0.6, { help: 'How far up it reaches.' }),
    drifts: share('Drifts', 1, { max: 2 }),
    warmth: share('Warmth', 0, { min: -1, max: 1 }),
  }),
  paint(sheet, { height: up, drifts, warmth }) {
    const { y } = sheet.coordinates();
    const low = y.scale(1 / sheet.bottom).step(0.85 - up, 1.05);
    const drift = sheet
      .noise(1.6, { octaves: 6, gain: 0.56, stretch: [0.5, 2] })
      .add(sheet.noise(5, { octaves: 5, gain: 0.6, stretch: [0.5, 1.7] }), 0.35);
    const fog = low
      .scale(0.9, 0.04)
      .times(drift, 0.26 * drifts, 0.85)
      .clamp(0, 1);
    const grain = sheet.white(0.0009);
    const channel = (k: number) =>
      fog
        .copy()
        .scale(0.93 * k)
        .add(grain, 0.006)
        .clamp();
    return { lightness: channel(1 + 0.05 * warmth), a: channel(1), b: channel(1.02 - 0.1 * warmth), encoded: true };
  },
});
