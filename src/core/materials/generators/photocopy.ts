import * as z from 'zod';
import { share } from '../../schema';
import { amount, onlyStains, otherEnd, size } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'print.photocopy',
  label: 'Photocopy',
  family: 'wear',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.89,
  marks: 'darks',
  suggest: { blend: 'multiply', strength: 0.8 },
  first: [amount(0, [0.9, 0.8, 0.65]), onlyStains(0.3, [0.85, 0.78, 0.7], '#101010', 1), otherEnd('White specks instead'), size],
  help: 'A copy of a copy: toner strewn over the sheet, lines from a scratched drum, grey bands.',
  params: z.object({
    specks: share('Specks', 1, { max: 2 }),
    lines: share('Drum lines', 1, { max: 2 }),
    bands: share('Grey bands', 1, { max: 2 }),
  }),
  paint(sheet, { specks, lines, bands }) {
    const { random, seed } = sheet;
    const dirty = sheet.noise(1.9, { octaves: 5, gain: 0.66 });
    const fine = sheet.spots(
      sheet.scatter(Math.round(15000 * specks), dirty, 0.8, -0.5).map(({ x, y, random: own }) => ({
        x,
        y,
        r: own.power(0.00028, 0.0022, 3.1),
        lobes: 1.6,
        long: own.between(1, 1.5),
        angle: own.between(0, 3.14),
        value: own.between(0.35, 1),
      })),
      0.25,
    );
    // Scratches of the drum run down the whole sheet, now stronger and now gone.
    const list: StrokePoint[][] = Array.from({ length: Math.round(26 * lines) }, (_, i) => {
      const x = random.next();
      const half = random.power(0.00018, 0.0011, 2.4);
      const strength = random.power(0.12, 0.9, 1.5);
      return Array.from({ length: 41 }, (__, s): StrokePoint => {
        const t = s / 40;
        // It meets itself over the edge: both ends are the same.
        const fade = Math.sin(Math.PI * t) ** 0.25;
        return [x, t, half, strength * fade * Math.max(0, 0.5 + 0.8 * line(t * 7, seed + 31 * i))];
      });
    });
    const drum = sheet.strokes(list).add(sheet.white(0.0008), 0.03).clamp();
    const grey = sheet.white(0.012, 0.7).scale(0.22, 0.2).add(sheet.white(0.05, 0.7), 0.22).clamp(0, 1).scale(bands);
    const haze = sheet.white(0.00035).scale(0.32, 0.15).clamp().times(dirty.copy().scale(0.35, 0.6).clamp(0, 1.6));
    const toner = fine.add(drum, 0.9).clamp();
    const rim = toner.copy().blur(0.0009);
    return {
      lightness: sheet.plane(95).add(grey, -9).add(haze, -13).add(rim, -8).add(toner, -74).clamp(5, 99),
      a: sheet.plane(0.1),
      b: sheet.plane(0.6).add(toner, -0.6),
      height: sheet.white(0.0012).scale(0.00006).add(toner, 0.00012),
      elevation: 0.7,
      contrast: 0.15,
    };
  },
});
