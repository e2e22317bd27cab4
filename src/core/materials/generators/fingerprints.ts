import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, dark, parameter, range } from '../first';
import { defineMaterial } from '../material';
import { clamp, line } from '../random';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.fingerprints',
  label: 'Fingerprints',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.03,
  suggest: { blend: 'screen', strength: 0.6 },
  start: { steps: [range(0.02, 0.6)] },
  first: [amount(0.02, [0.8, 0.5, 0.3]), dark(), colourFirst, parameter('count')],
  help: 'Greasy marks on glass or a glossy print, whole and smeared. On black, for screen.',
  params: z.object({
    count: slider('Prints', 1, 30, 11, { step: 1 }),
    size: slider('Size', 0.4, 2.5, 1, { step: 0.05 }),
    smear: share('Smears', 0.5),
  }),
  paint(sheet, { count, size, smear }) {
    const { random } = sheet;
    const ridges: StrokePoint[][] = [];
    const wipes: StrokePoint[][] = [];
    for (let k = 0; k < Math.round(count); k++) {
      const [cx, cy, turn] = [random.between(0, sheet.right), random.between(0, sheet.bottom), random.between(0, 6.3)];
      const [rx, ry] = [0.034 * size * random.logNormal(1, 0.12), 0.05 * size * random.logNormal(1, 0.12)];
      const [c, s] = [Math.cos(turn), Math.sin(turn)];
      const strength = random.between(0.35, 1);
      const [hx, hy] = [random.between(-0.25, 0.25), random.between(0.05, 0.45)];
      // Arches about a whorl that lies off the middle, wandering together.
      for (let r = 1; r <= 30; r++) {
        const radius = r / 15;
        const points: StrokePoint[] = [];
        for (let i = 0; i <= 60; i++) {
          const a = -0.3 + (i / 60) * (Math.PI * 2 + 0.1);
          const bend = 1 + 0.09 * line(1.6 * a + 0.2 * r, k * 77) + 0.05 * line(4 * a + 0.5 * r, k * 77 + 1);
          const px = hx + radius * bend * Math.cos(a) * 0.95;
          const py = hy + radius * bend * Math.sin(a) * (Math.sin(a) > 0 ? 0.7 : 1.15);
          const inside = clamp((1 - px * px - py * py) / 0.25);
          const broken = clamp(0.75 + 0.9 * line(3.5 * a + 3 * r, k * 77 + 2)) * clamp(0.9 + 0.8 * line(0.9 * a, k * 77 + 3));
          points.push([cx + rx * px * c - ry * py * s, cy + rx * px * s + ry * py * c, 0.00085 * size, strength * inside * broken]);
        }
        ridges.push(points);
      }
      if (random.chance(smear)) {
        const away = random.between(0, 6.3);
        for (let q = 0; q < 14; q++) {
          const off = (q / 13 - 0.5) * rx * 1.7;
          const long = random.between(0.05, 0.16) * size;
          wipes.push(
            Array.from({ length: 8 }, (_, i): StrokePoint => {
              const t = (i / 7) * long;
              return [
                cx + t * Math.cos(away) - off * Math.sin(away),
                cy + t * Math.sin(away) + off * Math.cos(away),
                0.0018 * size,
                strength * 0.5 * (1 - i / 7) * random.between(0.4, 1),
              ];
            }),
          );
        }
      }
    }
    const print = sheet.strokes(ridges);
    const grease = print.copy().blur(0.006);
    const wipe = sheet.strokes(wipes).blur(0.0016);
    const light = print.scale(0.5).add(grease, 0.3).add(wipe, 0.4).scale(0.95, 0.02).add(sheet.white(0.0009), 0.003).clamp();
    return { lightness: light.copy(), a: light.copy().scale(0.99), b: light.scale(0.96), encoded: true };
  },
});
