import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, dark, parameter } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.streaks',
  label: 'Streaks',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.04,
  suggest: { blend: 'screen', strength: 0.7 },
  first: [amount(0.02, [0.8, 0.5, 0.25]), dark(), colourFirst, parameter('density')],
  help: 'Light dragged across the picture, by angle, length and density. On black, for screen.',
  params: z.object({
    angle: slider('Angle', -90, 90, 78, { unit: '°', step: 1 }),
    length: share('Length', 0.5, { min: 0.05, max: 1.5 }),
    density: slider('Density', 20, 600, 220, { step: 10 }),
    soft: share('Softness', 0.5),
  }),
  paint(sheet, { angle, length, density, soft }) {
    const { random } = sheet;
    const [c, s] = [Math.cos((angle * Math.PI) / 180), Math.sin((angle * Math.PI) / 180)];
    const [right, bottom] = [sheet.right, sheet.bottom];
    const make = (count: number, half: () => number, gain: number): StrokePoint[][] =>
      Array.from({ length: count }, () => {
        const long = length * random.logNormal(0.6, 0.6);
        const [x, y, value, wide] = [random.between(-0.2, right + 0.2), random.between(-0.2, bottom + 0.2), gain * random.power(0.1, 1, 1.7), half()];
        const bend = 0.02 * random.gauss();
        return Array.from({ length: 14 }, (_, i): StrokePoint => {
          const t = i / 13 - 0.5;
          const off = bend * t * t;
          return [
            x + long * t * c - off * s,
            y + long * t * s + off * c,
            wide * (1 - 1.2 * t * t),
            value * Math.max(0, Math.cos(Math.PI * t)) ** 1.4,
          ];
        });
      });
    const fine = sheet.strokes(make(density, () => random.power(0.0003, 0.0016, 1.8), 1)).blur(0.0003 + 0.0016 * soft);
    const broad = sheet.strokes(make(Math.round(density / 9), () => random.power(0.003, 0.02, 1.8), 0.34)).blur(0.004 + 0.006 * soft);
    const light = fine.add(broad).add(sheet.white(0.0008), 0.004).scale(1, 0.018).clamp();
    return { lightness: light.copy(), a: light.copy().scale(0.97), b: light.scale(0.91), encoded: true };
  },
});
