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
    // From the root a hair rises out of the dark; its tip is light and thin.
    const layer = (count: number, reach: number, half: number, strands: number) => {
      const list: StrokePoint[][] = [];
      for (let k = 0; k < Math.round(count); k++) {
        let [x, y] = [random.next(), random.next()];
        const long = length * random.logNormal(reach, 0.3);
        const stray = 0.26 * random.gauss();
        const [value, wide] = [random.between(0.45, 1), half * random.between(0.7, 1.3)];
        const points: StrokePoint[] = [];
        for (let s = 0; s <= 5; s++) {
          const t = s / 5;
          points.push([x, y, wide * (0.75 + 0.25 * Math.sin(Math.PI * t)) * (1 - 0.7 * t * t), value * (1 - (1 - t) ** 2)]);
          const a = 1.35 + 0.75 * sheet.at(turn, x - Math.floor(x), y - Math.floor(y)) + stray * (0.5 + t);
          x += (Math.cos(a) * long) / 5;
          y += (Math.sin(a) * long) / 5;
        }
        list.push(points);
      }
      return sheet.strokes(list, { strands });
    };
    const wool = [0, 1].map(() => layer(1.1 * hairs, 0.013, 0.0011, 6));
    const under = layer(hairs, 0.02, 0.00075, 4);
    const guard = layer(0.4 * hairs, 0.03, 0.00055, 2);
    const coat = wool[0].scale(0.34).max(wool[1].scale(0.46)).max(under.scale(0.72)).max(guard.copy());
    return {
      lightness: coat.copy().scale(60, 30).add(mottle, -13).clamp(2, 96),
      a: sheet.plane(1.6).add(mottle, 0.8),
      b: sheet.noise(2.4, { octaves: 3 }).scale(0.9, 7).add(mottle, -2).add(guard, 2.5),
      height: coat.scale(0.0016),
      elevation: 0.62,
      contrast: 0.4,
      occlusion: { k1: 0.07, k2: 0.05, amount: 0.6 },
      // Hairs are smooth: they have no rougher surface to go on with.
      detail: { amount: 0.25 },
    };
  },
});
