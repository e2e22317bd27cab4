import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, onlyStains, parameter } from '../first';
import { defineMaterial } from '../material';
import type { Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.splatter',
  label: 'Ink splatter',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.965,
  suggest: { blend: 'multiply', strength: 0.6 },
  start: { guardAmounts: { skin: 0.9 } },
  first: [onlyStains(0.2, 0.97, '#15120f', 0.7, { grey: false }), colourFirst, parameter('amount')],
  help: 'Flicked ink: a few large drops, very many small ones, thrown in lines. On white, for multiply.',
  params: z.object({
    throws: slider('Throws', 1, 20, 8, { step: 1, help: 'How often the brush was flicked.' }),
    amount: share('Amount', 1, { min: 0.1, max: 2 }),
    spread: share('Spread', 1, { min: 0.3, max: 2 }),
  }),
  paint(sheet, { throws, amount, spread }) {
    const { random } = sheet;
    const [right, bottom] = [sheet.right, sheet.bottom];
    const spots: Spot[] = [];
    const tails: StrokePoint[][] = [];
    for (let k = 0; k < Math.round(throws); k++) {
      const [cx, cy, angle] = [random.between(0, right), random.between(0, bottom), random.between(0, 2 * Math.PI)];
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      for (let i = 0, n = Math.round(random.between(140, 420) * amount); i < n; i++) {
        const along = random.gauss() * 0.2 * spread;
        const off = random.gauss() * 0.035 * spread * (1 + Math.abs(along) * 3);
        const r = random.power(0.0008, 0.012, 2.6);
        const [x, y] = [cx + along * c - off * s, cy + along * s + off * c];
        // The farther it flew the longer a drop is drawn out.
        const long = 1 + Math.min(2.2, Math.abs(along) * random.between(1, 7));
        spots.push({ x, y, r, long, angle, lobes: r > 0.004 ? 0.6 : 0.3, value: random.between(0.75, 1) });
        if (r > 0.0035)
          for (let q = 0, m = random.integer(9); q < m; q++) {
            const [a, d] = [random.between(0, 6.3), r * random.power(1.05, 3, 2)];
            spots.push({
              x: x + d * Math.cos(a),
              y: y + d * Math.sin(a),
              r: r * random.power(0.04, 0.22, 1.8),
              lobes: 0.3,
              value: random.between(0.6, 1),
            });
            if (d < 1.7 * r)
              tails.push([
                [x, y, r * 0.16, 0.95],
                [x + d * Math.cos(a), y + d * Math.sin(a), r * 0.05, 0.85],
              ]);
          }
      }
    }
    const ink = sheet.spots(spots, 0.12, { uneven: 0.15 });
    sheet.strokes(tails, { into: ink, broken: true });
    const pooled = ink.copy().blur(0.002).scale(0.22, 0.78).clamp(0, 1);
    ink.times(pooled);
    return {
      lightness: ink.copy().scale(-84, 98.8).add(sheet.white(0.0009), 0.25).clamp(0, 100),
      a: ink.copy().scale(0.6, 0.1),
      b: ink.scale(-3, 0.6),
    };
  },
});
