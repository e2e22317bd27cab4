import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size, tone } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'metal.patina',
  label: 'Copper patina',
  family: 'wood',
  seamless: true,
  shape: 'square',
  luma: 0.42,
  suggest: { blend: 'soft-light', strength: 0.65 },
  start: { steps: [tone(0.15, 0, -0.25)] },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, size],
  help: 'A lantern roof: brown copper gone green, with runs where the rain took it.',
  params: z.object({
    green: share('Green', 0.6, { help: 'How far it has turned.' }),
    runs: slider('Runs', 0, 260, 120, { step: 5, help: 'Streaks of washed-down green.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { green, runs, relief }) {
    const wide = sheet.noise(2.4, { octaves: 7, gain: 0.66 });
    const mottle = sheet.noise(21, { octaves: 5, gain: 0.78 });
    const level = 1 - 2 * green;
    const turned = wide
      .copy()
      .add(mottle, 0.3)
      .step(level - 0.6, level + 0.5);
    const list: StrokePoint[][] = sheet.scatter(Math.round(runs * 2.5), turned, 1, -0.9).map(({ x, y, random }) => {
      const length = random.power(0.05, 0.5, 1.6);
      const half = random.power(0.0008, 0.006, 2);
      let at = x;
      return Array.from({ length: 12 }, (_, s): StrokePoint => {
        at += 0.0009 * random.gauss();
        return [at, y + (length * s) / 11, half * (1 - 0.6 * (s / 11)), random.between(0.4, 1) * (1 - s / 11)];
      });
    });
    const run = sheet.strokes(list).blur(0.0014);
    const all = turned.copy().add(run, 0.7).clamp();
    const chalk = sheet.noise(11, { octaves: 6, gain: 0.72 }).scale(0.5, 0.1).clamp(0, 1.5).times(all);
    const height = all
      .copy()
      .scale(0.001)
      .add(mottle, 0.0004)
      .add(sheet.band(0.001, 0.003), 0.00035)
      .add(sheet.noise(4, { octaves: 4 }), 0.001);
    return {
      lightness: sheet.noise(3.4, { octaves: 4 }).scale(1.6, 36).add(all, 13).add(chalk, 11).add(mottle, 1.3),
      a: sheet.plane(12).add(all, -27).add(chalk, 3),
      b: sheet.noise(2.2, { octaves: 3 }).scale(1.2, 17).add(all, -15).add(chalk, -1),
      height,
      elevation: 0.62,
      contrast: 0.5 * relief,
      occlusion: { k1: 0.1, k2: 0.05, amount: 0.6 },
    };
  },
});
