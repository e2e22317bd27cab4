import * as z from 'zod';
import { share, slider } from '../../schema';
import { otherEnd, parameter } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.mist',
  label: 'Spray mist',
  family: 'wear',
  seamless: true,
  unlit: true,
  shape: 'square',
  luma: 0.87,
  suggest: { blend: 'multiply', strength: 0.8 },
  first: [parameter('passes'), parameter('drops'), otherEnd('White paint')],
  help: 'Black paint from a can held far away: a fine mist with coarser drops where it spat. For multiply.',
  params: z.object({
    passes: slider('Passes', 1, 14, 6, { step: 1, help: 'How often the can went over it.' }),
    drops: share('Drops', 1, { max: 2, help: 'How coarse it is.' }),
  }),
  paint(sheet, { passes, drops }) {
    const { random } = sheet;
    const sweeps: StrokePoint[][] = Array.from({ length: Math.round(passes) }, () => {
      let [x, y, angle] = [random.next(), random.next(), 0.35 * random.gauss()];
      const [half, value, bend] = [random.logNormal(0.05, 0.35), random.between(0.4, 1), 0.06 * random.gauss()];
      return Array.from({ length: 12 }, (_, s): StrokePoint => {
        angle += bend;
        x += 0.05 * Math.cos(angle);
        y += 0.05 * Math.sin(angle);
        return [x, y, half, value * Math.sin(Math.PI * Math.min(0.97, Math.max(0.03, s / 11))) ** 0.5];
      });
    });
    const cloud = sheet
      .strokes(sweeps)
      .blur(0.035)
      .times(sheet.noise(3, { octaves: 4 }), 0.18, 1)
      .clamp(0, 1.4);
    const dense = cloud.copy().scale(9, -5);
    const spots = (tries: number, least: number, most: number, power: number) =>
      sheet.spots(
        sheet
          .scatter(tries, dense, 1, 0)
          .map(({ x, y, random: own }) => ({ x, y, r: own.power(least, most, power), lobes: 0.5, value: own.between(0.55, 1) })),
        0.35,
      );
    const fine = spots(26000, 0.0006, 0.0016, 2.4);
    const coarse = spots(Math.round(2600 * drops), 0.0012, 0.0062, 3);
    // The finest of it is a tone that nobody sees single drops of.
    const tone = cloud
      .copy()
      .power(1.5)
      .times(sheet.noise(260, { octaves: 6, gain: 0.95 }), 0.24, 0.62);
    const ink = tone.max(fine).max(coarse).clamp();
    return {
      lightness: ink.copy().scale(-86, 97.5).add(sheet.white(0.001), 0.3).clamp(4, 99),
      a: ink.copy().scale(0.3, 0.1),
      b: ink.scale(-0.4, 0.6),
    };
  },
});
