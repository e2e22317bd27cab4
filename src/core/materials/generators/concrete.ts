import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, onlyGrooves, raised } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'masonry.concrete',
  label: 'Cast concrete',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.5,
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [greyGrain, raised(0.4, 2), colourStrength, onlyGrooves(0.2, [0.42, 0.38, 0.32], '#2c2a28')],
  help: 'Grey wall from a mould: air holes, clouds of cement, water that ran down.',
  params: z.object({
    holes: share('Air holes', 1, { max: 2 }),
    stains: share('Run-down water', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { holes, stains, relief }) {
    const cloud = sheet.noise(2.2, { octaves: 7, gain: 0.64 });
    const fine = sheet.noise(26, { octaves: 5, gain: 0.8 });
    const pit = sheet.spots(
      sheet.scatter(Math.round(5200 * holes), sheet.noise(2.6, { octaves: 4 }), 1.3, -1.7).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0006, 0.0075, 2.7),
        lobes: 0.7,
        long: random.between(1, 1.35),
        angle: random.between(0, 3.14),
        value: random.between(0.5, 1),
      })),
      0.45,
    );
    const runs: StrokePoint[][] = sheet.scatter(Math.round(150 * stains), cloud, 0.8, -0.6).map(({ x, y, random }) => {
      const length = random.power(0.06, 0.6, 1.5);
      const half = random.power(0.0016, 0.012, 1.8);
      let at = x;
      return Array.from({ length: 12 }, (_, s): StrokePoint => {
        at += 0.0012 * random.gauss();
        return [at, y + (length * s) / 11, half * (1 - 0.5 * (s / 11)), random.between(0.5, 1) * (1 - s / 11) ** 1.3];
      });
    });
    const run = sheet
      .strokes(runs)
      .blur(0.003)
      .times(
        sheet
          .noise(14, { octaves: 4, stretch: [2.5, 0.3] })
          .scale(0.3, 0.7)
          .clamp(0, 1.4),
      );
    const height = sheet
      .noise(3, { octaves: 4 })
      .scale(0.0013)
      .add(fine, 0.0003)
      .add(sheet.band(0.0009, 0.0024), 0.00026)
      .add(sheet.white(0.0008), 0.00013)
      .add(pit, -0.0046);
    return {
      lightness: cloud.copy().scale(2.6, 55.5).add(fine, 0.9).add(run, -9).add(pit, -12),
      a: sheet.plane(-0.2).add(run, 0.7),
      b: sheet.noise(1.7, { octaves: 3 }).scale(0.6, 2.6).add(run, 2.4),
      height,
      elevation: 0.6,
      contrast: 0.62 * relief,
      detail: { amount: 0.8 },
      occlusion: { k1: 0.13, k2: 0.06, amount: 0.75 },
    };
  },
});
