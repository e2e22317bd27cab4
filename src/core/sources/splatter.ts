import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { asSheet } from '../image/tile';
import { Random } from '../materials/random';
import { choice, colour, share, slider } from '../schema';
import { shapeFields, shapeFinishes } from './shape';
import { defineSource } from './source';

const schema = z.object({
  kind: z.literal('splatter'),
  colour: colour('Colour of the drops', '#2a1c14'),
  over: choice(
    'Where',
    [
      { value: 'throw', label: 'One throw' },
      { value: 'all', label: 'Over all' },
    ],
    'throw',
  ),
  count: slider('Drops', 5, 1200, 280, { step: 5 }),
  size: slider('Largest drop', 2, 60, 16, { unit: 'u', step: 0.5, help: 'Most drops are far smaller.' }),
  spread: share('Spread', 0.5, { help: 'How far and how wide the drops fly.' }),
  direction: slider('Direction', 0, 360, 60, {
    unit: '°',
    step: 1,
    dial: true,
    help: 'Where the brush was flicked to, clockwise from the top.',
    idle: ({ over }) => (over === 'all' ? 'It has an effect for one throw.' : undefined),
  }),
  rim: share('Dark rim', 0.3, { help: 'Paint dries darker at the edge of a drop.' }),
  x: slider('Across', 0, 1, 0.2, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  y: slider('Down', 0, 1, 0.75, { unit: '%', factor: 100, step: 0.01, accepts: [-10, 11] }),
  ...shapeFields,
  seed: z.number().int().min(0).max(1e9).default(1),
});
type Params = z.output<typeof schema>;

/** Smallest drop, in u. */
const SMALLEST = 0.8;
/** How far the drops of a throw fly at full spread, and how wide its fan is to either side. */
const FARTHEST = 1500;
const FAN = (28 * Math.PI) / 180;
/** How wide what is laid over all reaches at full spread, to either side, in u. */
const HALF = 2400;

/** Numbers of a drop for the kernel: x, y, radius, elongation, cosine, sine, lobes, value; lengths in u from where it was thrown. */
const DROP = 8;

const made = new Map<string, Float32Array>();

/** All drops of a splatter, the same at every scale. */
export function dropsOf(p: Pick<Params, 'over' | 'count' | 'size' | 'spread' | 'direction' | 'seed'>): Float32Array {
  const key = [p.over, p.count, p.size, p.spread, p.direction, p.seed].join();
  const known = made.get(key);
  if (known) return known;
  const random = new Random(p.seed);
  const out: number[] = [];
  const put = (x: number, y: number, r: number, long: number, angle: number, lobes: number, value: number) =>
    out.push(x, y, r, long, Math.cos(angle), Math.sin(angle), lobes, value);
  const way = ((p.direction - 90) * Math.PI) / 180;
  const wide = 0.1 + 0.9 * p.spread;
  for (let i = 0; i < Math.round(p.count); i++) {
    const r = random.power(SMALLEST, Math.max(SMALLEST * 1.01, p.size), 2.6);
    let [x, y, angle, long] = [0, 0, 0, 1];
    if (p.over === 'all') {
      [x, y] = [random.between(-1, 1) * HALF * wide, random.between(-1, 1) * HALF * wide];
      [angle, long] = [random.between(0, 2 * Math.PI), 1 + 0.25 * random.next()];
    } else {
      // Most drops land near the origin; the farther a drop flew, the longer it is drawn out.
      const far = Math.min(1, Math.abs(random.gauss()) * 0.42);
      angle = way + random.gauss() * FAN * 0.5 * (0.4 + wide);
      const flown = far * FARTHEST * wide;
      x = Math.cos(angle) * flown + random.gauss() * 18;
      y = Math.sin(angle) * flown + random.gauss() * 18;
      long = 1 + 0.8 * far * random.next();
    }
    put(x, y, r, long, angle, r > 4 ? 0.35 : 0.2, random.between(0.8, 1));
    // Large drops throw a few of their own.
    if (r > 6)
      for (let k = 0, n = 2 + random.integer(5); k < n; k++) {
        const [a, d] = [random.between(0, 2 * Math.PI), r * random.power(1.1, 3, 2)];
        put(x + d * Math.cos(a), y + d * Math.sin(a), r * random.power(0.05, 0.22, 1.8), 1 + 0.5 * random.next(), a, 0.2, random.between(0.7, 1));
      }
  }
  const drops = Float32Array.from(out);
  if (made.size > 40) made.clear();
  made.set(key, drops);
  return drops;
}

/** Drops of paint, flicked from a brush or fallen over everything. */
export default defineSource({
  kind: 'splatter',
  label: 'Splatter',
  offers: [{ label: 'Splatter', says: 'Drops of paint, flicked or over all.', words: 'spatter drops ink spots flick paint', isComplete: false }],
  schema,
  firstLook: { blend: 'multiply', strength: 0.75 },
  guards: 1,
  finishes: shapeFinishes,
  moved(p, motion) {
    const [x, y] = motion.point([p.x, p.y]);
    return { ...p, x, y };
  },
  fill({ machine, scratch, width, height, unit }, tile, p) {
    const { kernels } = machine;
    parseHex(p.colour).forEach((v, c) => kernels.fill(tile.ptr + c * tile.stride, tile.count, v));
    const alpha = tile.ptr + 3 * tile.stride;
    kernels.fill(alpha, tile.count, 0);
    const mark = scratch.mark();
    const [ox, oy] = [p.x * width - tile.x, p.y * height - tile.y];
    const drops = dropsOf(p);
    const count = drops.length / DROP;
    const table = scratch.take(drops.length * 4);
    const lay = (plane: number, inset: number, value: number) => {
      const { floats } = machine;
      for (let i = 0; i < drops.length; i += DROP) {
        const at = table / 4 + i;
        floats[at] = ox + drops[i] * unit;
        floats[at + 1] = oy + drops[i + 1] * unit;
        floats[at + 2] = Math.max(0, drops[i + 2] - inset) * unit;
        for (let k = 3; k < DROP; k++) floats[at + k] = drops[i + k];
        floats[at + 7] *= drops[i + 2] > inset ? value : 0;
      }
      kernels.drawSpots({ dst: plane, ...asSheet(tile), spots: table, count, rim: 0.06, uneven: 0, seed: p.seed });
    };
    lay(alpha, 0, 1);
    if (p.rim > 0) {
      const inner = scratch.plane(tile.count + 8, 0);
      lay(inner, 1.4, 0.4 * p.rim);
      kernels.mixIn(alpha, inner, tile.count, 1, -1, 0);
      kernels.clampTo(alpha, tile.count, 0, 1);
    }
    scratch.release(mark);
  },
});
