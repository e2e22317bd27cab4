import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, dark, range } from '../first';
import { defineMaterial } from '../material';
import { line, smooth } from '../random';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.film',
  label: 'Scratches and dust',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.037,
  suggest: { blend: 'screen', strength: 0.9 },
  start: { steps: [range(0.04, 0.5)] },
  first: [
    amount(0.04, [0.7, 0.4, 0.2]),
    { control: 'only', label: 'Only the marks', black: [0.05, 0.1, 0.18], white: 0.5, grey: false, blend: 'screen', strength: 0.9 },
    dark(),
    colourFirst,
  ],
  help: 'Worn film on black: transport and handling scratches, dust and hairs. For screen.',
  params: z.object({
    scratches: slider('Scratches', 0, 140, 46, { step: 1, help: 'Long scratches along the film, by count.' }),
    handling: slider('Handling marks', 0, 700, 230, { step: 5, help: 'Short scratches, by count.' }),
    dust: share('Dust', 1, { max: 2 }),
    hairs: slider('Hairs', 0, 90, 34, { step: 1 }),
  }),
  paint(sheet, { scratches, handling, dust, hairs }) {
    const { random } = sheet;
    const right = sheet.right;
    const bottom = sheet.bottom;
    const marks = sheet.strokes([...transport(sheet, scratches), ...short(sheet, handling)], { broken: true });
    sheet.strokes(curled(sheet, hairs), { into: marks, broken: true });
    const density = sheet.noise(2.6, { octaves: 4 });
    const specks: Spot[] = sheet.scatter(Math.round(9000 * dust), density, 1.2, -1.8).map(({ x, y, random }) => ({
      x,
      y,
      r: random.power(0.00028, 0.004, 3),
      value: random.power(0.12, 0.95, 1.4),
      lobes: 1.7,
      long: random.between(1, 1.9),
      angle: random.between(0, 3.14),
    }));
    sheet.spots(specks, 0.3, { into: marks, uneven: 0.4 });
    const soft: Spot[] = Array.from({ length: Math.round(40 * dust) }, () => ({
      x: random.between(0, right),
      y: random.between(0, bottom),
      r: random.between(0.002, 0.009),
      value: random.between(0.05, 0.22),
      lobes: 0.6,
    }));
    const blurred = sheet.spots(soft, 0.9).blur(0.0012);
    marks.max(blurred);
    const glow = marks.copy().blur(0.0016);
    const smudge = sheet.noise(1.8, { octaves: 5 }).scale(0.5, 0.4).clamp();
    const base = sheet.noise(1.4, { octaves: 4 }).scale(0.5, 0.5).clamp().scale(0.01, 0.03).add(smudge.times(smudge), 0.014);
    base.add(sheet.white(0.0007), 0.006).add(glow, 0.22).add(marks);
    return { lightness: base.copy(), a: base.copy().scale(0.985), b: base.scale(0.955), encoded: true };
  },
});

/** Scratches of the transport: long, upright, gathered round a few columns, interrupted, some double. */
function transport(sheet: Sheet, count: number): StrokePoint[][] {
  const { random } = sheet;
  const right = sheet.right;
  const bottom = sheet.bottom;
  const columns = Array.from({ length: 5 }, () => random.between(0, right));
  const list: StrokePoint[][] = [];
  for (let i = 0; i < count; i++) {
    const x0 = random.chance(0.65) ? columns[random.integer(5)] + random.between(-0.025, 0.025) : random.between(0, right);
    const length = random.power(0.06, 1.6, 1.3);
    const y0 = random.between(-0.3, bottom);
    const half = random.power(0.18, 1.1, 2.2) / 1024;
    const value = random.power(0.06, 0.75, 1.7);
    const open = random.chance(0.5) ? 0.1 : 0.5;
    const seed = sheet.seed + i * 19;
    const lean = 0.004 * random.gauss();
    const path: StrokePoint[] = [];
    const steps = Math.ceil(length / 0.004);
    for (let s = 0; s <= steps; s++) {
      const v = y0 + (s / steps) * length;
      const shown = smooth(-0.35, 0.15, 0.8 * line(7 * v, seed) + 0.6 * line(38 * v, seed + 1) + open - 0.25);
      const end = smooth(0, 0.15, s / steps) * smooth(1, 0.85, s / steps);
      path.push([x0 + lean * (v - y0) + 0.0006 * line(5 * v, seed + 2), v, half * (0.7 + 0.3 * shown), value * shown * end]);
    }
    list.push(path);
    if (random.chance(0.22)) list.push(path.map(([x, y, h, v]) => [x + 2.2 / 1024, y, h * 0.7, v * 0.6]));
  }
  return list;
}

function short(sheet: Sheet, count: number): StrokePoint[][] {
  const { random } = sheet;
  return Array.from({ length: count }, () => {
    const upright = random.chance(0.5);
    let angle = upright ? Math.PI / 2 + 0.2 * random.gauss() : random.between(0, Math.PI);
    const length = random.power(0.006, 0.22, 1.9);
    const half = random.power(0.15, 0.7, 2.4) / 1024;
    const value = random.power(0.05, 0.6, 1.8);
    let x = random.between(0, sheet.right);
    let y = random.between(0, sheet.bottom);
    const path: StrokePoint[] = [];
    for (let s = 0; s <= 10; s++) {
      path.push([x, y, half, value * Math.sin(Math.PI * Math.min(0.97, Math.max(0.03, s / 10)))]);
      angle += 0.03 * random.gauss();
      x += (Math.cos(angle) * length) / 10;
      y += (Math.sin(angle) * length) / 10;
    }
    return path;
  });
}

function curled(sheet: Sheet, count: number): StrokePoint[][] {
  const { random } = sheet;
  return Array.from({ length: count }, () => {
    const length = random.logNormal(0.034, 0.7);
    let angle = random.between(0, 2 * Math.PI);
    let bend = 9 * random.gauss();
    const value = random.between(0.25, 0.8);
    let x = random.between(0, sheet.right);
    let y = random.between(0, sheet.bottom);
    const path: StrokePoint[] = [];
    for (let s = 0; s <= 24; s++) {
      path.push([x, y, 0.42 / 1024, value]);
      bend = 0.9 * bend + 14 * random.gauss();
      angle += (bend * length) / 24;
      x += (Math.cos(angle) * length) / 24;
      y += (Math.sin(angle) * length) / 24;
    }
    return path;
  });
}
