import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, onlyStains, parameter, size } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.rings',
  label: 'Cup rings and stains',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.975,
  suggest: { blend: 'multiply', strength: 0.8 },
  start: { first: { only: 0.6 } },
  first: [onlyStains(0.8, [0.985, 0.97, 0.94], '#5a3216', 0.85), colourFirst, parameter('rings'), size],
  help: 'Where mugs stood and tea was spilt; on white, for multiply.',
  params: z.object({
    rings: slider('Rings', 0, 14, 5, { step: 1 }),
    drops: share('Drops', 1, { max: 2 }),
    age: share('Strength', 0.7, { help: 'How dark they have dried.' }),
  }),
  paint(sheet, { rings, drops, age }) {
    const { random } = sheet;
    const [right, bottom] = [sheet.right, sheet.bottom];
    const rim: StrokePoint[][] = [];
    const wash: StrokePoint[][] = [];
    for (let k = 0; k < Math.round(rings); k++) {
      const [x, y] = [random.between(0, right), random.between(0, bottom)];
      const r = random.between(0.075, 0.1);
      const twice = random.chance(0.5) ? 2 : 1;
      for (let t = 0; t < twice; t++)
        ring(sheet, rim, wash, x + 0.01 * t * random.gauss(), y + 0.01 * t * random.gauss(), r * (1 + 0.01 * random.gauss()), k * 50 + t * 20);
    }
    const edge = sheet.strokes(rim).blur(0.0004);
    const body = sheet.strokes(wash).blur(0.0025);
    const blots: Spot[] = [];
    for (let k = 0; k < Math.round(26 * drops); k++) {
      const [x, y, big] = [random.between(0, right), random.between(0, bottom), random.power(0.0015, 0.02, 2)];
      blots.push({ x, y, r: big, lobes: 0.9, value: random.between(0.4, 1) });
      for (let i = 0, n = random.integer(7); i < n; i++)
        blots.push({
          x: x + big * 2.4 * random.gauss(),
          y: y + big * 2.4 * random.gauss(),
          r: big * random.power(0.05, 0.4, 2),
          lobes: 0.8,
          value: random.between(0.4, 1),
        });
    }
    const drop = sheet.spots(blots, 0.16);
    // A drop dries darkest at its rim.
    const hollow = drop.copy().blur(0.0022).scale(-0.75).add(drop).clamp();
    const uneven = sheet.noise(9, { octaves: 6, gain: 0.7 }).scale(0.28, 0.8).clamp(0.1, 1.6);
    const stain = edge.scale(0.95).add(body, 0.2).add(drop, 0.12).add(hollow, 0.75).times(uneven).scale(age);
    return {
      lightness: stain.copy().scale(-46, 98.6).add(sheet.white(0.0009), 0.25),
      a: stain.copy().scale(11, 0.1),
      b: stain.scale(27, 0.6),
    };
  },
});

function ring(sheet: Sheet, rim: StrokePoint[][], wash: StrokePoint[][], x: number, y: number, r: number, key: number) {
  const { random } = sheet;
  const [from, share] = [random.between(0, 6.3), random.between(0.55, 1)];
  const around = (radius: number, half: number, gain: number, salt: number): StrokePoint[] =>
    Array.from({ length: 161 }, (_, i): StrokePoint => {
      const t = i / 160;
      const a = from + t * 2 * Math.PI * share;
      const fade = share > 0.97 ? 1 : Math.sin(Math.PI * Math.min(0.985, Math.max(0.015, t))) ** 0.5;
      const wobble = radius * (1 + 0.006 * line(a * 1.3, key + salt));
      const value = gain * fade * Math.min(1, Math.max(0, 0.55 + 0.75 * line(a * 2.1, key + salt + 1) + 0.35 * line(a * 9, key + salt + 2)));
      return [x + wobble * Math.cos(a), y + wobble * Math.sin(a), half * (1 + 0.5 * line(a * 5, key + salt + 3)), value];
    });
  rim.push(around(r, 0.0014, 1, 0), around(r * 0.955, 0.0006, 0.6, 5));
  wash.push(around(r * 0.977, 0.0032, 0.8, 10));
}
