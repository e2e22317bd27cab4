import * as z from 'zod';
import { share, slider } from '../../schema';
import { roughBorder } from '../border';
import { parameter } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'edges.lifted',
  label: 'Lifted emulsion',
  family: 'edges',
  seamless: false,
  shape: 'piece',
  luma: 0.93,
  suggest: { blend: 'multiply', strength: 1 },
  first: [parameter('width'), parameter('folds')],
  help: 'An emulsion floated off its print: torn and wrinkled at its rims, folds running in. For multiply.',
  params: z.object({
    width: slider('Width', 0.01, 0.12, 0.04, { unit: '%', factor: 100, step: 0.005, help: 'Of the long side.' }),
    folds: share('Folds', 1, { max: 2 }),
  }),
  paint(sheet, { width, folds }) {
    const { random, right, bottom } = sheet;
    const outside = roughBorder(sheet, width, 1.3);
    const rim = outside.copy().times(outside.copy().scale(-1, 1), 4).clamp();
    const list: StrokePoint[][] = Array.from({ length: Math.round(64 * folds) }, () => {
      // From somewhere along the border, inwards.
      const t = random.next() * 2 * (right + bottom);
      const [x0, y0, a0] =
        t < right
          ? [t, 0, Math.PI / 2]
          : t < right + bottom
            ? [right, t - right, Math.PI]
            : t < 2 * right + bottom
              ? [t - right - bottom, bottom, -Math.PI / 2]
              : [0, t - 2 * right - bottom, 0];
      let [x, y, angle] = [x0 + width * Math.cos(a0), y0 + width * Math.sin(a0), a0 + 0.5 * random.gauss()];
      const [long, value] = [random.power(0.03, 0.3, 1.7), random.between(0.4, 1)];
      return Array.from({ length: 14 }, (_, s): StrokePoint => {
        angle += 0.09 * random.gauss();
        x += (long / 13) * Math.cos(angle);
        y += (long / 13) * Math.sin(angle);
        return [x, y, 0.0021 * (1 - s / 16), value * (1 - (s / 13) ** 2)];
      });
    });
    const fold = sheet.strokes(list, { broken: true });
    const doubled = fold.copy().blur(0.0035);
    const inside = outside.copy().scale(-1, 1);
    const film = sheet.noise(2.6, { octaves: 5 });
    const height = doubled
      .copy()
      .scale(0.0042)
      .add(fold, 0.0012)
      .add(rim, 0.0016)
      .add(film, 0.0006)
      .add(sheet.noise(30, { octaves: 3 }), 0.00006);
    return {
      lightness: sheet
        .plane(98)
        .add(inside.copy(), -3)
        .add(rim, -34)
        .add(doubled.times(inside), -22)
        .add(fold.times(inside), -14)
        .add(sheet.white(0.0011), 0.25)
        .clamp(6, 99),
      a: rim.copy().scale(2, 0.3),
      b: rim.scale(5, 1).add(inside, 1.5),
      height,
      elevation: 0.62,
      contrast: 0.4,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.4 },
    };
  },
});
