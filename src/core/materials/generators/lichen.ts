import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, parameter, raised } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'living.lichen',
  label: 'Moss and lichen',
  family: 'living',
  seamless: true,
  shape: 'square',
  luma: 0.42,
  suggest: { blend: 'overlay', strength: 0.6 },
  first: [raised(0.3, 1.4), follow, colourFirst, parameter('moss'), parameter('lichen')],
  help: 'Old stone with crusts of lichen and cushions of moss in its hollows.',
  params: z.object({
    moss: share('Moss', 0.5),
    lichen: share('Lichen', 0.6),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { moss, lichen, relief }) {
    const form = sheet.noise(2.4, { octaves: 6, gain: 0.62 });
    const rough = sheet.noise(24, { octaves: 6, gain: 0.76 });
    const rosettes = (tries: number, most: number) =>
      sheet.spots(
        sheet.scatter(Math.round(tries * lichen), form, 0.9, -1).map(({ x, y, random }) => ({
          x,
          y,
          r: random.power(0.004, most, 1.7),
          lobes: 1.4,
          long: random.between(1, 1.35),
          angle: random.between(0, 3.14),
          value: random.between(0.6, 1),
        })),
        0.12,
      );
    const eaten = sheet.noise(38, { octaves: 5, gain: 0.76 });
    const crust = (tries: number, most: number) => rosettes(tries, most).times(eaten.copy().step(-1.5, -0.4));
    const [grey, ochre] = [crust(150, 0.045), crust(70, 0.026)];
    const cushion = sheet
      .noise(7, { octaves: 5, gain: 0.6 })
      .add(form, -0.9)
      .add(rough, 0.22)
      .step(2.3 - 2.3 * moss, 3.4 - 2.2 * moss);
    const tufts = sheet.noise(90, { octaves: 4, gain: 0.85 });
    const shoots = sheet.fibres(9000, { length: 0.006, half: 0.00032, curvature: 120, value: 0.8 }).times(cushion);
    const height = form
      .copy()
      .scale(0.004)
      .add(rough, 0.0007)
      .add(grey, 0.0006)
      .add(ochre, 0.0007)
      .add(eaten.times(grey.copy().max(ochre)), 0.00035)
      .add(cushion, 0.0045)
      .add(tufts.copy().times(cushion), 0.0008)
      .add(shoots, 0.0009)
      .add(sheet.band(0.0009, 0.0025), 0.00016);
    return {
      lightness: rough.scale(1.5, 46).add(grey, 17).add(ochre, 9).add(cushion, -14).add(tufts.times(cushion), 3).add(shoots, 11).clamp(5, 92),
      a: sheet.noise(3, { octaves: 4 }).scale(0.6, 0.8).add(grey, -4).add(ochre, 7).add(cushion, -13).add(shoots, -3),
      b: sheet.noise(2.3, { octaves: 4 }).scale(1, 5).add(grey, 4).add(ochre, 30).add(cushion, 22).add(shoots, 9),
      height,
      elevation: 0.6,
      contrast: 0.52 * relief,
      occlusion: { k1: 0.1, k2: 0.06, amount: 0.85 },
      gain: 1.12,
      detail: { amount: 0.8 },
    };
  },
});
