import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, followPhoto, greyGrain, raised, size, tone } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'living.fur',
  label: 'Seal fur',
  family: 'living',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.35,
  suggest: { blend: 'soft-light', strength: 0.8 },
  start: { steps: [tone(0.35, 0, -0.5)] },
  first: [raised(0.25, 1), followPhoto, size, colourStrength, greyGrain],
  help: 'A short dense coat that parts and whorls; dark roots, light tips.',
  params: z.object({
    hairs: slider('Hairs', 4000, 26000, 15000, { step: 500 }),
    length: share('Length', 1, { min: 0.4, max: 2 }),
    spots: share('Spots', 0.6),
  }),
  paint(sheet, { hairs, length, spots }) {
    const { random } = sheet;
    const turn = sheet.noise(2, { octaves: 3 });
    const mottle = sheet.noise(5, { octaves: 4 }).step(0.5, 1.3).scale(spots);
    const layers = [0, 1, 2].map(() => [] as StrokePoint[][]);
    for (let k = 0; k < Math.round(hairs); k++) {
      let [x, y] = [random.next(), random.next()];
      const long = length * random.logNormal(0.026, 0.3);
      const stray = 0.28 * random.gauss();
      const value = random.between(0.35, 1);
      const points: StrokePoint[] = [];
      for (let s = 0; s <= 5; s++) {
        const t = s / 5;
        // The root is dark, the tip light and thin.
        points.push([x, y, 0.0008 * (1 - 0.7 * t), value * (0.25 + 0.75 * t)]);
        const a = 1.35 + 0.75 * sheet.at(turn, x - Math.floor(x), y - Math.floor(y)) + stray * (0.5 + t);
        x += (Math.cos(a) * long) / 5;
        y += (Math.sin(a) * long) / 5;
      }
      layers[k % 3].push(points);
    }
    const [deep, middle, top] = layers.map((list) => sheet.strokes(list));
    const coat = deep.scale(0.45).max(middle.scale(0.72)).max(top);
    return {
      lightness: coat.copy().scale(62, 33).add(mottle, -13).clamp(2, 96),
      a: sheet.plane(1.6).add(mottle, 0.8),
      b: sheet.noise(2.4, { octaves: 3 }).scale(0.9, 7).add(mottle, -2),
      height: coat.scale(0.0016),
      elevation: 0.62,
      contrast: 0.4,
      occlusion: { k1: 0.07, k2: 0.05, amount: 0.6 },
    };
  },
});
