import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, followPhoto, greyGrain, parameter, raised } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'brush.dots',
  label: 'Raised dots',
  family: 'brush',
  seamless: true,
  shape: 'square',
  luma: 0.5,
  marks: 'lights',
  suggest: { blend: 'soft-light', strength: 0.9 },
  first: [raised(0.2, 1), followPhoto, parameter('size'), colourStrength, greyGrain],
  help: 'Paint set down in thick touches, crowded and thin by turns; mid grey, for soft light and overlay.',
  params: z.object({
    count: slider('Dots', 500, 9000, 4200, { step: 100 }),
    size: share('Size', 1, { min: 0.4, max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { count, size, relief }) {
    const density = sheet.noise(3, { octaves: 4 });
    const layer = (share: number, r: number) =>
      sheet.spots(
        sheet.scatter(Math.round(count * share), density, 0.5, -0.3).map(({ x, y, random }) => ({
          x,
          y,
          r: size * random.logNormal(r, 0.32),
          lobes: 0.3,
          long: random.between(1, 1.5),
          angle: random.between(0, 3.14),
          value: random.between(0.45, 1),
        })),
        0.5,
      );
    const low = layer(0.7, 0.0085);
    const high = layer(0.6, 0.006);
    const body = low.copy().scale(0.7).max(high);
    const drag = sheet.white(0.0009, 0.005);
    const height = body
      .copy()
      .scale(0.0046)
      .add(drag, 0.00012)
      .add(sheet.noise(5, { octaves: 4 }), 0.0008)
      .add(sheet.band(0.001, 0.003), 0.00022);
    const tone = sheet.noise(7, { octaves: 4 });
    return {
      lightness: tone.scale(2, 52).add(low, 3).add(high, 4),
      a: sheet.noise(9, { octaves: 3 }).scale(0.8, 0.4),
      b: sheet.noise(6, { octaves: 3 }).scale(1.4, 2.6),
      height,
      elevation: 0.62,
      contrast: 0.6 * relief,
      occlusion: { k1: 0.1, k2: 0.06, amount: 0.7 },
      shadow: { low: 0.65, reach: 0.008 },
      gain: 1.06,
    };
  },
});
