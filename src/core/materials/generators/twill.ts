import * as z from 'zod';
import { slider } from '../../schema';
import { colourStrength, follow, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'cloth.twill',
  label: 'Twill',
  family: 'cloth',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.45,
  suggest: { blend: 'overlay', strength: 0.6 },
  first: [raised(0.25, 1), colourStrength, follow, parameter('ribs')],
  help: 'Work cloth with ribs on the slant, worn lighter along their backs.',
  params: z.object({
    ribs: slider('Ribs', 40, 130, 84, { step: 2, help: 'Along the long side.' }),
    wear: slider('Wear', 0, 2, 1, { step: 0.05 }),
    lightness: slider('Lightness', 25, 75, 50, { step: 1 }),
  }),
  paint(sheet, { ribs, wear, lightness }) {
    const { random } = sheet;
    const n = 2 * Math.round(ribs / 2);
    // A rib is a row of short slanting floats, each a stitch of its own length and height.
    const floats: StrokePoint[][] = [];
    const plies: StrokePoint[][] = [];
    for (let i = 0; i < n; i++) {
      const shade = 0.78 + 0.1 * random.gauss();
      for (let k = 0; k < n; k++) {
        const [u, w] = [(i + 0.5) / n + (k % 3) / (3 * n) + (0.07 * random.gauss()) / n, (k + 0.5 + 0.12 * random.gauss()) / n];
        const x = u + w;
        const half = (0.3 * (1 + 0.12 * random.gauss())) / n;
        const value = Math.max(0.3, shade + 0.1 * random.gauss());
        floats.push([
          [x - 0.32 / n, w - 0.62 / n, half * 0.55, value * 0.65],
          [x, w, half, value],
          [x + 0.32 / n, w + 0.62 / n, half * 0.55, value * 0.65],
        ]);
        // The yarn is spun of finer ones, which turn about each other.
        for (const side of [-0.62, -0.1, 0.42]) {
          const [from, to] = [side - 0.22 + 0.06 * random.gauss(), side + 0.3 + 0.06 * random.gauss()];
          const ply = (t: number, across: number): StrokePoint => {
            const narrow = half * (1 - 0.4 * Math.abs(t));
            return [x + (0.3 * t) / n + 0.89 * across * narrow, w + (0.58 * t) / n - 0.46 * across * narrow, half * 0.11, random.between(0.5, 1)];
          };
          plies.push([ply(-0.95, from), ply(0, (from + to) / 2), ply(0.95, to)]);
        }
      }
    }
    const rib = sheet.strokes(floats);
    const ply = sheet.strokes(plies, { broken: true });
    const strand = sheet.white(0.0012, 0.0012);
    const rubbed = sheet.noise(2.4, { octaves: 5, gain: 0.6 }).scale(0.4, 0.4).clamp(0, 1.5);
    const height = rib
      .copy()
      .blur(0.0012)
      .scale((0.0026 * 84) / n)
      .add(strand, 0.00012)
      .add(ply, 0.00032)
      .add(sheet.noise(4, { octaves: 3 }), 0.0008)
      .add(sheet.fibres(2600, { length: 0.008 }), 0.0003);
    const back = rib.copy().scale(1, -0.62).clamp(0, 1).times(rubbed);
    return {
      lightness: rib
        .copy()
        .scale(9, lightness - 7.6)
        .add(strand, 1)
        .add(ply, 3)
        .add(back, 30 * wear),
      a: sheet.plane(-0.4),
      b: sheet
        .noise(2.1, { octaves: 3 })
        .scale(0.8, -3.5)
        .add(back, 8 * wear),
      height,
      elevation: 0.62,
      contrast: 0.5,
      occlusion: { k1: 0.09, k2: 0.05, amount: 0.7 },
    };
  },
});
