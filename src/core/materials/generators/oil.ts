import * as z from 'zod';
import { share, slider } from '../../schema';
import { slowField } from '../cells';
import { colourStrength, followPhoto, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { layRibbons, type Ribbon } from '../ribbons';

/** Strokes from large to small: how many, width, length, thickness. */
const LAYERS = [
  [85, 0.085, 0.3, 0.0036],
  [170, 0.055, 0.21, 0.0034],
  [170, 0.036, 0.15, 0.003],
  [80, 0.02, 0.1, 0.0026],
];

export default defineMaterial({
  id: 'brush.oil',
  label: 'Oil strokes',
  family: 'brush',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.525,
  marks: 'lights',
  suggest: { blend: 'overlay', strength: 0.85 },
  start: { steps: [tone(0, 0.4, -1)] },
  first: [raised(0.25, 1), followPhoto, parameter('size'), colourStrength],
  help: 'Thick paint laid stroke over stroke along the forms, every bristle seen; mid grey, for overlay and relief.',
  params: z.object({
    size: slider('Size of the brush', 0.5, 1.6, 1, { step: 0.05 }),
    flow: share('Flow', 1, { max: 2, help: 'How far the strokes turn over the sheet.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { size, flow, relief }) {
    const { random, seed } = sheet;
    const turn = slowField(seed + 3, 4);
    const small = slowField(seed + 17, 6);
    const strokes: Ribbon[] = [];
    for (const [count, width, length, height] of LAYERS) {
      for (let i = 0, n = Math.round(count / size ** 2); i < n; i++) {
        const [x, y] = [random.next(), random.next()];
        strokes.push({
          x,
          y,
          angle: 0.75 + flow * (0.75 * turn(x, y) + 0.3 * small(x, y)) + random.between(-0.3, 0.3),
          turn: 0.35 * random.gauss(),
          length: size * random.logNormal(length, 0.3),
          width: size * random.logNormal(width, 0.3),
          height: height * random.logNormal(1, 0.25),
          keep: random.between(0.25, 0.5),
          ridge: random.between(0.3, 0.85),
          ridgeWidth: random.between(0.05, 0.11),
          bristles: Math.max(3, (size * width) / 0.0058) * random.between(0.5, 1.25),
          score: random.between(0.16, 0.4),
          tone: random.gauss(),
          warmth: random.gauss(),
          streak: 0.8,
          begins: 0.05,
          ends: random.between(0.12, 0.4),
          dry: random.chance(0.3) ? random.between(0.3, 0.8) : 0,
        });
      }
    }
    const { height, tone, warmth } = layRibbons(sheet, strokes);
    const tooth = sheet.band(0.0014, 0.004);
    height.add(tooth, 0.00012).add(sheet.white(0.0007), 0.00006);
    return {
      lightness: sheet.noise(2, { octaves: 3 }).scale(0.8, 57.5).add(tone, 1.9).add(tooth, 0.3),
      a: sheet.plane(0.3).add(warmth, 0.35),
      b: sheet.plane(2.4).add(warmth, 0.8),
      height,
      elevation: 0.62,
      contrast: 0.6 * relief,
      detail: { amount: 0.5 },
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.55 },
    };
  },
});
