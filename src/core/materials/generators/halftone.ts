import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, grain, onlyStains, size } from '../first';
import { defineMaterial } from '../material';
import type { Spot } from '../sheet';

/**
 * A turned square lattice that meets itself over the edges of the sheet: its points are (k, k·turn)/count modulo 1. It lies at about 15°, as black is
 * screened; its sides are without common factor, so that each column of points is reached once.
 */
function lattice(dots: number): { count: number; turn: number } {
  const a = Math.round(dots * Math.cos(0.26));
  let b = Math.round(dots * Math.sin(0.26));
  const common = (x: number, y: number): number => (y === 0 ? x : common(y, x % y));
  while (common(a, b) > 1) b++;
  const count = a * a + b * b;
  let turn = 0;
  while ((a * turn) % count !== b) turn++;
  return { count, turn };
}

export default defineMaterial({
  id: 'print.halftone',
  label: 'Halftone dots',
  family: 'wear',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.57,
  marks: 'darks',
  suggest: { blend: 'overlay', strength: 0.5 },
  first: [onlyStains(0.2, [0.85, 0.8, 0.75], '#1c1a1a', 0.9), amount(0, [0.95, 0.8, 0.65]), colourFirst, grain, size],
  help: 'Dots of a printing screen on uncoated paper: ink that spread a little, missed here and filled in there.',
  params: z.object({
    dots: slider('Dots across', 30, 150, 84, { step: 2 }),
    tone: share('Tone', 0.45, { help: 'How large the dots are.' }),
    wear: share('Worn plate', 0.5, { help: 'Dots that are broken or missing.' }),
  }),
  paint(sheet, { dots, tone, wear }) {
    const { random } = sheet;
    const { count, turn } = lattice(dots);
    const uneven = sheet.noise(2.3, { octaves: 5, gain: 0.6 });
    const plate = sheet.noise(5.5, { octaves: 6, gain: 0.7 });
    const pitch = 1 / Math.sqrt(count);
    const list: Spot[] = [];
    for (let k = 0; k < count; k++) {
      const [x, y] = [(k + 0.5) / count, ((k * turn) % count) / count];
      const ink = tone + 0.07 * sheet.at(uneven, x, y) + 0.02 * random.gauss();
      const missing = random.chance(0.007 * wear * (1 + Math.max(0, sheet.at(plate, x, y)) ** 2 * 3));
      if (missing || ink <= 0.02) continue;
      list.push({
        x: x + 0.02 * pitch * random.gauss(),
        y: y + 0.02 * pitch * random.gauss(),
        r: pitch * Math.sqrt(Math.min(0.95, ink) / Math.PI) * 1.06,
        lobes: 0.35 + 0.5 * wear * random.next(),
        value: random.between(0.86, 1),
      });
    }
    const fibre = sheet.fibres(3200, { half: 0.0003 });
    const spread = sheet.spots(list, 0.14).add(sheet.band(0.0005, 0.0014), 0.05).add(fibre, -0.05);
    const hole = plate.step(1.2, 2.6).scale(wear);
    const ink = spread.add(hole, -0.55).clamp();
    const halo = ink.copy().blur(0.0012);
    const mottle = sheet.white(0.0007).scale(0.06, 0.94).clamp(0, 1.1);
    ink.times(mottle);
    const height = sheet.band(0.0014, 0.004).scale(0.00016).add(fibre, 0.0003).add(sheet.white(0.0008), 0.0001);
    return {
      lightness: sheet.noise(2.4, { octaves: 4 }).scale(0.5, 91).add(fibre, 0.6).add(halo, -6).add(ink, -66).clamp(4, 99),
      a: sheet.plane(0.6).add(ink, -0.4),
      b: sheet.noise(2.2, { octaves: 3 }).scale(0.5, 5.5).add(ink, -5),
      height,
      elevation: 0.66,
      contrast: 0.22,
      // Its dots are edges all over, which would be taken for a rough surface.
      detail: { amount: 0.45 },
      occlusion: { k1: 0.03, k2: 0.03, amount: 0.3 },
    };
  },
});
