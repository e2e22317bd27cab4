import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, onlyStains, parameter, size } from '../first';
import { defineMaterial } from '../material';
import { line, type Random } from '../random';
import type { Field } from '../field';
import type { Spot, StrokePoint } from '../sheet';

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
    const washes: StrokePoint[][] = [];
    const edges: StrokePoint[][] = [];
    for (let k = 0; k < Math.round(rings); k++) {
      const [x, y, r] = [random.between(0, right), random.between(0, bottom), random.between(0.075, 0.1)];
      // A mug that is lifted and put down again leaves two rings that nearly meet.
      for (let t = 0, twice = random.chance(0.5) ? 2 : 1; t < twice; t++)
        ring(
          random,
          washes,
          edges,
          [x + 0.009 * t * random.gauss(), y + 0.009 * t * random.gauss()],
          r * (1 + 0.008 * random.gauss()),
          k * 50 + t * 20,
        );
    }
    const blots: Spot[] = [];
    for (let k = 0; k < Math.round(26 * drops); k++) {
      const [x, y, big] = [random.between(0, right), random.between(0, bottom), random.power(0.0015, 0.02, 2)];
      blots.push({ x, y, r: big, lobes: 0.55, value: random.between(0.35, 0.9) });
      for (let i = 0, n = random.integer(7); i < n; i++)
        blots.push({
          x: x + big * 2.4 * random.gauss(),
          y: y + big * 2.4 * random.gauss(),
          r: big * random.power(0.05, 0.4, 2),
          lobes: 0.5,
          value: random.between(0.35, 0.9),
        });
    }
    // Where the liquid stood: its edge was held by the fibres of the paper.
    const stood = (wet: Field) => wet.add(sheet.noise(120, { octaves: 5, gain: 0.72 }), 0.07).step(0.26, 0.4);
    const pooled = sheet.strokes(washes).blur(0.0005);
    const deep = pooled.copy().blur(0.003);
    const wash = stood(pooled);
    const drop = sheet.spots(blots, 0.4);
    const depth = drop.copy().blur(0.002);
    const blot = stood(drop);
    // What was in it is carried to the edge and dries there (Deegan et al. 1997).
    const rimmed = (cover: Field, reach: number) => cover.copy().blur(reach).scale(-1).add(cover).clamp().scale(2.2);
    const line = sheet.strokes(edges, { broken: true }).blur(0.0003);
    const grounds = sheet.noise(210, { octaves: 4, gain: 0.85 }).step(0.9, 2.6);
    const uneven = sheet.noise(9, { octaves: 7, gain: 0.68 }).scale(0.27, 0.8).clamp(0.08, 1.7);
    const stain = rimmed(wash, 0.0011)
      .times(deep, 0.75, 0.35)
      .add(wash.copy().times(deep), 0.6)
      .add(line, 1.05)
      .add(rimmed(blot, 0.0012), 0.6)
      .add(blot.copy().times(depth), 0.3)
      .times(uneven)
      .add(wash.max(blot).times(grounds), 0.16)
      .scale(age);
    const fibres = sheet.fibres(1500, { length: 0.012, half: 0.00028 });
    return {
      lightness: stain.copy().scale(-46, 98.6).add(sheet.white(0.0009), 0.25).add(fibres, -0.9),
      a: stain.copy().scale(11, 0.1),
      b: stain.scale(27, 0.6),
    };
  },
});

/** A ring as the foot of a mug leaves it: a puddle whose width changes, a sharp line where the foot stood, a break where the mug was tilted. */
function ring(random: Random, washes: StrokePoint[][], edges: StrokePoint[][], [x, y]: [number, number], r: number, key: number): void {
  const [from, share] = [random.between(0, 6.3), random.between(0.6, 1)];
  const around = (radius: number, half: number, gain: number, salt: number): StrokePoint[] =>
    Array.from({ length: 241 }, (_, i): StrokePoint => {
      const t = i / 240;
      const a = from + t * 2 * Math.PI * share;
      const fade = share > 0.97 ? 1 : Math.sin(Math.PI * Math.min(0.985, Math.max(0.015, t))) ** 0.4;
      // The foot is round; what pooled beside it is not.
      const reach = radius * (1 + 0.003 * line(a * 1.3, key)) + half * 0.5 * line(a * 6, key + salt + 4);
      const value = gain * fade * Math.min(1, Math.max(0, 0.6 + 0.7 * line(a * 2.1, key + salt + 1) + 0.4 * line(a * 11, key + salt + 2)));
      const wide = half * Math.max(0.25, 1 + 0.8 * line(a * 3.2, key + salt + 3) + 0.3 * line(a * 17, key + salt + 5));
      return [x + reach * Math.cos(a), y + reach * Math.sin(a), wide, value];
    });
  washes.push(around(r * 0.977, 0.0036, 0.95, 10), around(r * 0.962, 0.0014, 0.6, 30));
  edges.push(around(r, 0.00075, 0.95, 0), around(r * 0.952, 0.00035, 0.7, 5));
}
