import * as z from 'zod';
import { share } from '../../schema';
import { colourFirst, grain, onlyStains, raised, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'brush.charcoal',
  label: 'Charcoal',
  family: 'brush',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.74,
  marks: 'darks',
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [onlyStains(0.15, [0.8, 0.7, 0.6], '#141414', 0.9), colourFirst, grain, raised(0.2, 1), size],
  help: 'Broad strokes with the side of the stick on laid paper, rubbed here and there with a thumb.',
  params: z.object({
    dark: share('Dark', 0.55, { help: 'How much of the paper is covered.' }),
    rubbed: share('Rubbed', 0.5),
    tooth: share('Tooth', 0.7, { help: 'How coarse the paper is.' }),
  }),
  paint(sheet, { dark, rubbed, tooth }) {
    const { random } = sheet;
    const sides: StrokePoint[][] = Array.from({ length: Math.round(40 + 220 * dark) }, () => {
      let [x, y, angle] = [random.next(), random.next(), -0.6 + 0.5 * random.gauss()];
      const half = random.logNormal(0.017, 0.45);
      const press = random.power(0.2, 0.95, 1.2);
      const bend = 0.1 * random.gauss();
      return Array.from({ length: 16 }, (_, s): StrokePoint => {
        angle += bend / 4 + 0.03 * random.gauss();
        x += 0.013 * Math.cos(angle);
        y += 0.013 * Math.sin(angle);
        return [x, y, half, press * random.between(0.8, 1) * Math.sin(Math.PI * Math.min(0.94, Math.max(0.06, s / 15))) ** 0.35];
      });
    });
    const points: StrokePoint[][] = Array.from({ length: 44 }, () => {
      let [x, y, angle] = [random.next(), random.next(), random.between(0, 6.28)];
      const half = random.logNormal(0.0018, 0.3);
      return Array.from({ length: 20 }, (): StrokePoint => {
        angle += 0.16 * random.gauss();
        x += 0.009 * Math.cos(angle);
        y += 0.009 * Math.sin(angle);
        return [x, y, half, random.between(0.55, 1)];
      });
    });
    // Chain and laid lines of the paper, and its grain.
    const laid = sheet.white(0.0016, 0.03);
    const rough = sheet.band(0.0016, 0.0046);
    const fine = sheet.white(0.0009);
    const ground = rough.copy().scale(0.62).add(laid, 0.42).add(fine, 0.3);
    const broad = sheet.strokes(sides).blur(0.0012);
    const line = sheet.strokes(points);
    const body = broad.copy().max(line);
    const hit = ground
      .copy()
      .scale(0.55 * tooth + 0.15)
      .add(body, 1.5)
      .step(0.3, 1.8);
    const mark = body.times(hit);
    const dust = broad.blur(0.006).times(sheet.noise(2.6, { octaves: 5 }).scale(0.4, 0.55).clamp(0, 1.3), rubbed);
    const height = ground
      .scale(0.0003)
      .add(sheet.noise(3.4, { octaves: 4 }), 0.0006)
      .add(mark, 0.00016);
    return {
      lightness: sheet.noise(2.6, { octaves: 4 }).scale(0.6, 88).add(dust, -34).add(mark, -76).clamp(6, 98),
      a: sheet.plane(0.5),
      b: sheet.noise(2.2, { octaves: 3 }).scale(0.4, 6).add(dust, -3).add(mark, -4.5),
      height,
      elevation: 0.64,
      contrast: 0.34,
      detail: { amount: 1.5 },
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.35 },
    };
  },
});
