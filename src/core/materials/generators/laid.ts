import * as z from 'zod';
import { share, slider } from '../../schema';
import { detail, grain, paleColour, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { Sheet, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.laid',
  label: 'Laid paper',
  family: 'paper',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.88,
  suggest: { blend: 'multiply', strength: 0.9 },
  start: { steps: [detail(1.6, 1)] },
  first: [grain, raised(0.6, 1), paleColour(0.1), parameter('lines')],
  help: 'Letter paper with the fine lines of its mould and wider chain lines across them.',
  params: z.object({
    lines: slider('Lines', 80, 240, 150, { step: 2, help: 'Fine lines along the long side.' }),
    chains: slider('Chain lines', 0, 20, 9, { step: 1 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
    fibres: share('Fibres', 1, { max: 2 }),
  }),
  paint(sheet, { lines, chains, relief, fibres: amount }) {
    const fine = mould(sheet, Math.round(lines), true, 0.00105);
    const chain = mould(sheet, Math.round(chains), false, 0.0013).blur(0.001);
    // Where the pulp lay thick the lines hardly show.
    const thin = sheet.noise(3, { octaves: 4 }).scale(0.28, 0.62).clamp(0.1, 1);
    fine.times(thin);
    const fibre = sheet.fibres(Math.round(3600 * amount), { length: 0.014 });
    const height = fine
      .copy()
      .scale(-0.0006)
      .add(chain, -0.0005)
      .add(fibre, 0.00035)
      .add(sheet.band(0.0018, 0.005), 0.00018)
      .add(sheet.white(0.0009), 0.0001);
    return {
      lightness: sheet.noise(2.2, { octaves: 4 }).scale(0.6, 91).add(fine, -1.6).add(chain, -2).add(fibre, 0.8),
      a: sheet.plane(0.9),
      b: sheet.noise(2.6, { octaves: 3 }).scale(0.5, 8.5),
      height,
      elevation: 0.62,
      translucency: [0.4, 0.0012],
      contrast: 0.34 * relief,
      detail: { amount: 0.8 },
      occlusion: { k1: 0.06, k2: 0.04, amount: 0.5 },
    };
  },
});

/** Nearly even lines across or down; each wanders by waves that close after one sheet, and fades along itself. */
function mould(sheet: Sheet, count: number, across: boolean, half: number) {
  const { random } = sheet;
  const list: StrokePoint[][] = [];
  const waves = Array.from({ length: 3 }, (_, k) => [1 + k * 2 + random.integer(2), random.between(0, 6.3), 0.0011 / (k + 1)]);
  for (let i = 0; i < count; i++) {
    const at = (i + 0.5 + 0.12 * random.gauss()) / count;
    const strength = Math.max(0.25, 0.75 + 0.2 * random.gauss());
    const own = [1 + random.integer(5), random.between(0, 6.3)];
    list.push(
      Array.from({ length: 49 }, (_, s): StrokePoint => {
        const u = -0.02 + (1.04 * s) / 48;
        const wander = waves.reduce(
          (sum, [n, phase, gain]) => sum + gain * Math.sin(2 * Math.PI * n * u + phase + 0.4 * Math.sin(2 * Math.PI * at)),
          0,
        );
        const value = strength * (0.8 + 0.2 * Math.sin(2 * Math.PI * own[0] * u + own[1]));
        return across ? [u, at + wander, half, value] : [at + wander * 0.6, u, half, value];
      }),
    );
  }
  return sheet.strokes(list);
}
