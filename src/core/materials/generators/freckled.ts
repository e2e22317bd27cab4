import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, parameter } from '../first';
import { defineMaterial } from '../material';
import { creases } from '../nets';

export default defineMaterial({
  id: 'skin.freckled',
  label: 'Freckles',
  family: 'skin',
  seamless: true,
  unlit: true,
  shape: 'square',
  luma: 0.93,
  suggest: { blend: 'multiply', strength: 0.6 },
  start: { guardAmounts: { lips: 1 } },
  first: [
    { control: 'only', label: 'Only the marks', black: 0.6, white: [0.95, 0.92, 0.88], grey: false, blend: 'multiply', strength: 0.6 },
    colourFirst,
    parameter('freckles'),
    follow,
  ],
  help: 'Freckles and a little redness, in colour only, on near white; for multiply, painted in where they should be.',
  params: z.object({
    freckles: share('Freckles', 1, { max: 2 }),
    redness: share('Redness', 0.6, { max: 1.5 }),
    size: slider('Size', 0.4, 2.5, 1, { step: 0.05 }),
  }),
  paint(sheet, { freckles, redness, size }) {
    const where = sheet.noise(3.2, { octaves: 4 });
    const make = (tries: number, r: [number, number, number], soft: number) =>
      sheet
        .spots(
          sheet.scatter(Math.round(tries * freckles), where, 1.1, -1.3).map(({ x, y, random }) => ({
            x,
            y,
            r: size * random.power(...r),
            lobes: 1.3,
            long: random.between(1, 1.7),
            angle: random.between(0, 3.14),
            value: random.between(0.2, 1),
          })),
          0.9,
        )
        .blur(soft);
    // Colour lies in the cells of the skin and is thin along their furrows, which fray the rim of every spot.
    const [warpX, warpY] = [0, 1].map(() => sheet.noise(9, { octaves: 4 }).scale(0.006));
    const net = (cells: number, angle: number) => creases(sheet, { cells, angle, stretch: 1.3, width: 0.24, sharp: 1.3 }, warpX, warpY).line;
    const furrow = net(150, 0.6).max(net(96, 1.2).scale(0.7));
    const speck = sheet.band(0.0007, 0.0024);
    const fine = make(5200, [0.0012, 0.006, 2.4], 0.0008);
    const large = make(420, [0.004, 0.011, 2], 0.0022);
    const spot = fine.add(large, 0.7).clamp(0, 1.2).times(speck, 0.13, 1).times(furrow, -0.4, 1).clamp(0, 1.2);
    const flush = sheet.noise(2.3, { octaves: 5, gain: 0.6 }).scale(0.3, 0.1).clamp(0, 1.6);
    const mottle = sheet.band(0.003, 0.012);
    return {
      lightness: sheet
        .plane(96.5)
        .add(spot, -22)
        .add(flush, -1.6 * redness)
        .add(mottle, 0.35)
        .add(speck, 0.35)
        .add(furrow, -1.3),
      a: sheet
        .plane(0.4)
        .add(spot, 6.5)
        .add(flush, 4 * redness)
        .add(mottle, 0.3),
      b: sheet
        .plane(1.2)
        .add(spot, 14)
        .add(flush, 2.4 * redness),
    };
  },
});
