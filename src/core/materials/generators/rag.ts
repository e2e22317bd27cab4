import * as z from 'zod';
import { share, slider } from '../../schema';
import { detail, grain, paleColour, raised, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.rag',
  label: 'Rag paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.87,
  suggest: { blend: 'multiply', strength: 0.9 },
  start: { steps: [detail(1.6, 1)] },
  first: [grain, raised(0.5, 1), paleColour(), size],
  help: 'A hand-made sheet with long fibres and threads in it, a few of them coloured.',
  params: z.object({
    fibres: share('Fibres', 1, { max: 2 }),
    threads: share('Coloured threads', 1, { max: 3 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { fibres, threads, relief }) {
    const { random } = sheet;
    const long = sheet.fibres(Math.round(1500 * fibres), { length: 0.06, half: 0.0007, curvature: 16, value: 0.7 });
    const short = sheet.fibres(Math.round(6500 * fibres), { length: 0.02, half: 0.00035, curvature: 45 });
    const coloured = [0, 1].map(() => {
      const list: StrokePoint[][] = [];
      for (let k = 0; k < Math.round(60 * threads); k++) {
        let [x, y, a] = [random.next(), random.next(), random.between(0, 2 * Math.PI)];
        let bend = 12 * random.gauss();
        const length = random.logNormal(0.035, 0.5);
        const value = random.between(0.25, 0.9);
        const path: StrokePoint[] = [];
        for (let s = 0; s <= 14; s++) {
          path.push([x, y, random.between(0.00045, 0.0009), value * Math.sin(Math.PI * Math.min(0.97, Math.max(0.05, s / 14))) ** 0.5]);
          a += (bend * length) / 14;
          bend += 7 * random.gauss();
          x += (Math.cos(a) * length) / 14;
          y += (Math.sin(a) * length) / 14;
        }
        list.push(path);
      }
      return sheet.strokes(list);
    });
    const [blue, red] = coloured;
    const cloud = sheet.noise(5, { octaves: 6, gain: 0.7 });
    const height = sheet.band(0.003, 0.009).scale(0.00055).add(cloud, 0.00035).add(long, 0.0011).add(short, 0.0006).add(sheet.white(0.0009), 0.00012);
    return {
      lightness: sheet.noise(2.2, { octaves: 4 }).scale(0.6, 91).add(cloud, 0.7).add(long, -4.5).add(blue, -26).add(red, -20),
      a: sheet.plane(0.7).add(long, 0.5).add(blue, -1).add(red, 14),
      b: sheet.noise(2.4, { octaves: 3 }).scale(0.5, 7).add(long, 3.5).add(blue, -17).add(red, 5),
      height,
      elevation: 0.62,
      translucency: [0.4, 0.0014],
      contrast: 0.24 * relief,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.5 },
    };
  },
});
