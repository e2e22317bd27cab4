import * as z from 'zod';
import { share, slider } from '../../schema';
import { slowField } from '../cells';
import { colourStrength, followPhoto, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { layRibbons, type Ribbon } from '../ribbons';

const LAYERS = [
  [60, 0.16, 0.26],
  [90, 0.1, 0.18],
  [110, 0.06, 0.13],
  [90, 0.035, 0.085],
];

export default defineMaterial({
  id: 'brush.knife',
  label: 'Knife strokes',
  family: 'brush',
  seamless: true,
  shape: 'square',
  luma: 0.53,
  marks: 'lights',
  suggest: { blend: 'overlay', strength: 0.85 },
  start: { steps: [tone(0, 0.4, -1)] },
  first: [raised(0.25, 1), followPhoto, parameter('size'), colourStrength],
  help: 'Paint spread with a knife: flat facets with a lip where it was pushed; mid grey, for overlay.',
  params: z.object({
    size: slider('Size of the knife', 0.5, 1.6, 1, { step: 0.05 }),
    lips: share('Lips', 1, { max: 2, help: 'Paint pushed up at the edges.' }),
    tones: share('Tones', 1, { max: 3, help: 'How far strokes differ from one another.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { size, lips, tones, relief }) {
    const { random, seed } = sheet;
    const turn = slowField(seed + 3, 4);
    const strokes: Ribbon[] = [];
    for (const [count, width, length] of LAYERS) {
      for (let i = 0, n = Math.round(count / size ** 2); i < n; i++) {
        const [x, y] = [random.next(), random.next()];
        const wide = size * random.logNormal(width, 0.35);
        strokes.push({
          x,
          y,
          angle: 0.5 * turn(x, y) + (random.chance(0.6) ? 0.5 : random.chance(0.5) ? -0.9 : 2.2) + random.between(-0.5, 0.5),
          turn: 0.12 * random.gauss(),
          length: size * random.logNormal(length, 0.35),
          width: wide,
          height: 0.0022 * random.logNormal(1, 0.35),
          keep: 0.28,
          ridge: lips * random.between(0.15, 1.1),
          ridgeWidth: Math.max(0.03, 0.0016 / wide),
          bristles: random.between(1.2, 2.6),
          score: 0.09,
          tone: random.gauss(),
          warmth: random.gauss(),
          streak: 0.55,
          begins: 0.06,
          ends: 0.015,
          skew: 0.22 * random.gauss(),
          dry: random.chance(0.35) ? random.between(0.55, 1) : 0,
        });
      }
    }
    const { height, tone, warmth } = layRibbons(sheet, strokes);
    const tooth = sheet.noise(60, { octaves: 4, gain: 0.8 });
    height
      .add(tooth, 0.00007)
      .add(sheet.noise(7, { octaves: 4 }), 0.0003)
      .add(sheet.white(0.0007), 0.00004);
    return {
      lightness: sheet
        .noise(2, { octaves: 3 })
        .scale(0.6, 56.5)
        .add(tone, 2.4 * tones),
      a: sheet.plane(0.3).add(warmth, 0.15 * tones),
      b: sheet.plane(2.2).add(warmth, 0.6 * tones),
      height,
      elevation: 0.6,
      contrast: 0.62 * relief,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.6 },
      shadow: { low: 0.68, reach: 0.008 },
      gain: 1.03,
    };
  },
});
