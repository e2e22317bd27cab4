import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, parameter, range } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'air.rain',
  label: 'Rain',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.035,
  suggest: { blend: 'screen', strength: 0.8 },
  start: { steps: [range(0.03, 0.4)] },
  first: [amount(0.03, [0.6, 0.4, 0.25]), colourFirst, parameter('drops'), parameter('angle')],
  help: 'Driven rain at three distances: short and thin behind, long and soft in front. On black, for screen.',
  params: z.object({
    angle: slider('Angle', -40, 40, 14, { unit: '°', step: 1, help: 'How far the wind drives it.' }),
    drops: slider('Drops', 200, 5000, 2400, { step: 100 }),
    near: share('Near drops', 0.5, { help: 'Large and out of focus.' }),
  }),
  paint(sheet, { angle, drops, near }) {
    const { random } = sheet;
    const gusts = sheet.noise(2, { octaves: 3 });
    const fall = (count: number, length: number, half: number, gain: number): StrokePoint[][] =>
      Array.from({ length: Math.round(count) }, () => {
        const [x, y] = [random.between(-0.1, sheet.right + 0.1), random.between(-0.1, sheet.bottom + 0.1)];
        const turn = ((90 - angle + 2.5 * random.gauss()) * Math.PI) / 180;
        const [long, wide, value] = [random.logNormal(length, 0.4), random.logNormal(half, 0.25), gain * random.power(0.15, 1, 1.4)];
        return Array.from({ length: 6 }, (_, s): StrokePoint => {
          const t = s / 5;
          return [x - Math.cos(turn) * long * t, y + Math.sin(turn) * long * t, wide, value * Math.sin(Math.PI * Math.min(0.95, 0.08 + 0.8 * t))];
        });
      });
    const far = sheet
      .strokes(fall(drops, 0.022, 0.00042, 0.42))
      .times(gusts, 0.3, 0.75)
      .clamp();
    const mid = sheet.strokes(fall(drops / 4, 0.05, 0.0006, 0.6)).blur(0.0004);
    const front = sheet.strokes(fall(drops * 0.03 * near, 0.13, 0.0026, 0.4)).blur(0.0026);
    const light = far.add(mid).add(front).scale(0.95, 0.022).add(sheet.white(0.0009), 0.004).clamp();
    return { lightness: light.copy().scale(0.97), a: light.copy(), b: light.scale(1.03).clamp(), encoded: true };
  },
});
