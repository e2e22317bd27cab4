import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, grain, onlyStains, size } from '../first';
import { defineMaterial } from '../material';
import type { Random } from '../random';
import type { StrokePoint } from '../sheet';

/** Ways in which a hand hatches: first along its swing, then across that where it is to be darker. */
const WAYS = [-0.95, -0.35, 0.55];
/** Patches that a hand hatches without moving on, along a side of the sheet. */
const PATCHES = 9;

export default defineMaterial({
  id: 'brush.hatching',
  label: 'Pencil hatching',
  family: 'brush',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.74,
  marks: 'darks',
  suggest: { blend: 'multiply', strength: 0.65 },
  first: [onlyStains(0.2, [0.86, 0.78, 0.68], '#26241f', 0.9), colourFirst, grain, size],
  help: 'Soft pencil, patch by patch and across itself where it is darker, on drawing paper.',
  params: z.object({
    dark: share('Dark', 0.5, { help: 'How hard the pencil is pressed, and how often it goes across.' }),
    close: slider('Close', 0.5, 2, 1, { step: 0.05, help: 'How close the lines lie.' }),
    tooth: share('Tooth', 0.6, { help: 'How rough the paper is.' }),
  }),
  paint(sheet, { dark, close, tooth }) {
    const { random } = sheet;
    const tone = sheet.noise(2.2, { octaves: 3, gain: 0.5 });
    const layers = WAYS.map((way, layer) => {
      const list: StrokePoint[][] = [];
      const step = 1 / PATCHES;
      for (let row = 0; row < PATCHES; row++)
        for (let column = 0; column < PATCHES; column++) {
          const [x, y] = [(column + random.between(0.2, 0.8)) * step, (row + random.between(0.2, 0.8)) * step];
          const depth = sheet.at(tone, x, y) * 0.5 + 0.1 * random.gauss();
          // Only the first way covers the sheet.
          const press = layer === 0 ? 0.72 + 0.16 * depth : 0.58 + 0.22 * depth;
          const wanted = depth + 1.4 * dark - 0.2 - 0.45 * layer;
          if (layer === 0 || wanted > 0)
            patch(random, list, { x, y, way: way + 0.09 * random.gauss(), gap: (0.0068 - 0.0012 * dark) / close, press });
        }
      return sheet.strokes(list, { broken: true });
    });
    const [first, ...others] = layers;
    // Graphite stays on the heights of the paper.
    const rough = sheet.band(0.0007, 0.0022);
    const fine = sheet.white(0.0005);
    const ground = rough.copy().scale(0.6).add(fine, 0.35);
    const marked = others.reduce((sum, layer) => sum.add(layer, 0.8), first.copy());
    const taken = ground
      .copy()
      .step(-0.75, 0.75)
      .scale(2.3 * tooth, 1 - 1.15 * tooth);
    const graphite = marked.clamp(0, 1.5).times(taken);
    // What the hand has rubbed off lies about as a veil.
    const veil = graphite.copy().blur(0.007).scale(0.3);
    const lead = graphite.add(veil, 0.35).scale(0.7 + 0.4 * dark);
    const height = ground
      .scale(0.00017)
      .add(sheet.noise(3, { octaves: 4 }), 0.0005)
      .add(first, -0.00012);
    return {
      lightness: sheet.noise(2.4, { octaves: 4 }).scale(0.5, 93.5).add(lead, -42).clamp(12, 98),
      a: sheet.plane(0.3).add(lead, -0.2),
      b: sheet.noise(2.1, { octaves: 3 }).scale(0.3, 4.6).add(lead, -3.6),
      height,
      elevation: 0.66,
      contrast: 0.3,
      detail: { amount: 0.63 },
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.3 },
    };
  },
});

interface Patch {
  x: number;
  y: number;
  way: number;
  /** From line to line. */
  gap: number;
  press: number;
}

/** Lines side by side, each a little bent by the swing of the hand and lifted at its end. */
function patch(random: Random, list: StrokePoint[][], { x, y, way, gap, press }: Patch): void {
  const count = Math.round(random.between(0.105, 0.15) / gap);
  const long = random.between(0.105, 0.16);
  const bend = random.between(0.4, 1.6);
  const [cos, sin] = [Math.cos(way), Math.sin(way)];
  for (let i = 0; i < count; i++) {
    const across = (i - (count - 1) / 2 + 0.2 * random.gauss()) * gap;
    const along = 0.06 * long * random.gauss();
    const length = long * random.logNormal(1, 0.1);
    const tilt = 0.02 * random.gauss();
    const half = random.logNormal(0.00105, 0.18);
    const hard = press * random.logNormal(1, 0.16);
    list.push(
      Array.from({ length: 11 }, (_, s): StrokePoint => {
        const t = s / 10 - 0.5;
        const u = along + t * length;
        const v = across + bend * u * u + tilt * u;
        const lifted = Math.min(1, (0.5 - t) * 3.2 + 0.12) * Math.min(1, (t + 0.5) * 9 + 0.35);
        return [x + u * cos - v * sin, y + u * sin + v * cos, half * (0.65 + 0.35 * lifted), Math.min(1, hard * lifted * random.between(0.86, 1.05))];
      }),
    );
  }
}
