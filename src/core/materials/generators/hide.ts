import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import { creases } from '../nets';

export default defineMaterial({
  id: 'skin.hide',
  label: 'Wrinkled hide',
  family: 'skin',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.36,
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [raised(0.35, 1.4), follow, colourFirst, parameter('wrinkles'), parameter('dust')],
  help: 'Thick grey hide in deep wrinkles, dusty on its ridges.',
  params: z.object({
    wrinkles: slider('Wrinkles', 0.5, 2, 1, { step: 0.05, help: 'How many there are.' }),
    dust: share('Dust', 0.6),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { wrinkles, dust, relief }) {
    const bend = (slow: number, quick: number) =>
      sheet
        .noise(2, { octaves: 4 })
        .scale(slow)
        .add(sheet.noise(16, { octaves: 4 }), quick);
    const [warpX, warpY] = [bend(0.035, 0.004), bend(0.035, 0.004)];
    const net = (cells: number, angle: number, stretch: number, width: number) =>
      creases(sheet, { cells: Math.round(cells * wrinkles), angle, stretch, width, sharp: 1.25 }, warpX, warpY);
    const deep = net(8, 0.25, 2.2, 0.13);
    const middle = net(23, 0.5, 1.7, 0.17);
    const small = net(64, 1, 1.25, 0.22);
    const slack = sheet.noise(3, { octaves: 4 });
    const ridge = small.dome.copy();
    const height = small.dome
      .scale(0.0011)
      .add(small.line, -0.0009)
      .add(middle.line, -0.0022)
      .add(deep.line, -0.0056)
      .add(middle.dome, 0.0014)
      .add(slack, 0.004)
      .add(sheet.band(0.0008, 0.0022), 0.00022);
    const dusty = sheet
      .noise(2.6, { octaves: 6, gain: 0.66 })
      .add(slack, 0.4)
      .step(1.7 - 2 * dust, 3 - 1.9 * dust)
      .times(ridge);
    return {
      lightness: slack.scale(1.2, 43).add(small.line, -4).add(middle.line, -7).add(deep.line, -13).add(dusty, 15).clamp(5, 90),
      a: sheet.noise(2.4, { octaves: 4 }).scale(0.6, 2.6).add(dusty, 1.5),
      b: sheet.noise(2.1, { octaves: 4 }).scale(0.8, 5.5).add(dusty, 7),
      height,
      elevation: 0.58,
      contrast: 0.62 * relief,
      occlusion: { k1: 0.09, k2: 0.06, s2: 0.011, amount: 0.85 },
      gain: 1.1,
      detail: { amount: 0.6 },
    };
  },
});
