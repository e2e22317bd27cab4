import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'metal.gold-leaf',
  label: 'Gold leaf',
  family: 'wood',
  seamless: true,
  shape: 'square',
  luma: 0.58,
  suggest: { blend: 'overlay', strength: 0.6 },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, size],
  help: 'Leaves of beaten gold laid edge over edge on red clay: wrinkled, rubbed, cracked where they were burnished.',
  params: z.object({
    leaves: slider('Leaves across', 2, 9, 4, { step: 1 }),
    wear: share('Rubbed', 0.45, { help: 'How much of the red ground shows.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { leaves, wear, relief }) {
    const { seed } = sheet;
    const n = Math.round(leaves);
    const list: StrokePoint[][] = [];
    const torn: StrokePoint[][] = [];
    // Two edges at every joint: a leaf laps over the next by a finger's breadth, and its edge is torn a little.
    for (let i = 0; i < n; i++)
      for (const across of [false, true])
        for (const lap of [0, 0.013]) {
          const base = seed * 3 + i * 17 + (across ? 5 : 0) + lap * 1000;
          const path = Array.from({ length: 121 }, (_, s): StrokePoint => {
            const t = s / 120;
            // Both ends meet over the edge.
            const bend = Math.sin(Math.PI * t);
            const at = (i + 0.5) / n + lap + bend * (0.006 * line(t * 3.1, base) + 0.0016 * line(t * 23, base + 1) + 0.0006 * line(t * 90, base + 2));
            const value = 0.35 + 0.65 * Math.abs(line(t * 5.3, base + 3));
            return across ? [t, at, 0.0009, value] : [at, t, 0.0009, value];
          });
          list.push(path);
          torn.push(path.map(([x, y, , value]): StrokePoint => [x, y, 0.0004, value]));
        }
    // Where two leaves lie over each other the gold is deeper.
    const doubled = sheet.strokes(
      list
        .filter((_, i) => i % 2 === 0)
        .map((path, i) => path.map(([x, y]): StrokePoint => (i % 2 ? [x, y + 0.0065, 0.0062, 0.8] : [x + 0.0065, y, 0.0062, 0.8]))),
    );
    const lap = sheet.strokes(list).blur(0.0016);
    const edge = sheet.strokes(torn);
    const fold = sheet.noise(9, { octaves: 6, gain: 0.62 }).abs().scale(-1.6, 1).clamp().power(3);
    const burnish = sheet.noise(1.8, { octaves: 5, gain: 0.6 });
    const rub = sheet.noise(14, { octaves: 7, gain: 0.74 }).add(burnish, 0.9).add(lap, 0.5).add(fold, 0.5);
    const bole = rub.step(2.5 - 1.9 * wear, 3.6 - 1.5 * wear);
    const speck = sheet.spots(
      sheet.scatter(Math.round(9000 * wear), burnish, 0.8, -0.6).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0004, 0.004, 2.9),
        lobes: 2,
        long: random.between(1, 2),
        angle: random.between(0, 3.14),
        value: random.between(0.4, 1),
      })),
      0.2,
    );
    const red = bole.max(speck).clamp();
    const ripple = sheet.band(0.003, 0.011);
    const grain = sheet.white(0.0006);
    const height = ripple
      .copy()
      .scale(0.00016)
      .add(fold, 0.0005)
      .add(lap, 0.0007)
      .add(red, -0.0005)
      .add(grain, 0.00008)
      .add(sheet.noise(4, { octaves: 4 }), 0.0012);
    return {
      lightness: burnish.scale(2.2, 62).add(ripple, 1.1).add(grain, 0.7).add(doubled, 2.5).add(edge, 6).add(red, -30).clamp(8, 96),
      a: sheet.noise(3, { octaves: 4 }).scale(0.8, 5).add(red, 18),
      b: sheet.noise(2.6, { octaves: 4 }).scale(1.5, 37).add(doubled, 5).add(red, -17),
      height,
      elevation: 0.6,
      contrast: 0.62 * relief,
      occlusion: { k1: 0.06, k2: 0.04, amount: 0.5 },
      gain: 1.05,
    };
  },
});
