import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'skin.scales',
  label: 'Fish scales',
  family: 'skin',
  seamless: true,
  shape: 'square',
  luma: 0.48,
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [raised(0.35, 1.4), follow, colourFirst, parameter('rows')],
  help: 'Rows of round scales that lap over each other, with their rings of growth.',
  params: z.object({
    rows: slider('Rows', 10, 40, 22, { step: 2 }),
    sheen: share('Sheen', 0.6, { help: 'How far they differ in tone.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { rows, sheen, relief }) {
    const { random } = sheet;
    const n = 2 * Math.round(rows / 2);
    const pitch = 1 / n;
    const domes: Spot[] = [];
    const rims: StrokePoint[][] = [];
    const rings: StrokePoint[][] = [];
    // The lower half of a circle: what is seen of a scale under the one above it.
    const arc = (x: number, y: number, radius: number, lean: number, half: number, value: number): StrokePoint[] =>
      Array.from({ length: 15 }, (_, i) => {
        const a = lean + Math.PI * (0.03 + (0.94 * i) / 14);
        const r = radius * (1 + 0.02 * random.gauss());
        return [x + 1.02 * r * Math.cos(a), y + 0.94 * r * Math.sin(a), half, value * Math.sin(Math.PI * (0.02 + (0.96 * i) / 14)) ** 0.7];
      });
    for (let row = 0; row < 2 * n; row++)
      for (let k = 0; k < n; k++) {
        const x = (k + (row % 2 ? 0.5 : 0) + 0.03 * random.gauss()) * pitch;
        const y = (row / 2 + 0.03 * random.gauss()) * pitch;
        const radius = 0.52 * pitch * random.logNormal(1, 0.03);
        const lean = 0.05 * random.gauss();
        domes.push({ x, y: y + 0.16 * pitch, r: 0.5 * pitch, value: random.between(0.75, 1) });
        rims.push(arc(x, y, radius, lean, 0.022 * pitch, random.between(0.75, 1)));
        for (const part of [0.84, 0.7, 0.57]) rings.push(arc(x, y, radius * part, lean, 0.011 * pitch, random.between(0.2, 0.7)));
      }
    const dome = sheet.spots(domes, 1.5);
    const rim = sheet.strokes(rims, { broken: true }).blur(0.0006);
    const ring = sheet.strokes(rings, { broken: true });
    const body = sheet.noise(2.2, { octaves: 5 });
    const sheenOf = sheet.noise(13, { octaves: 4, gain: 0.7 });
    const height = dome
      .copy()
      .scale(0.0062)
      .add(rim, -0.003)
      .add(ring, -0.00045)
      .add(sheet.noise(2, { octaves: 3 }), 0.003)
      .add(sheet.band(0.0008, 0.0022), 0.00012);
    return {
      lightness: body
        .copy()
        .scale(2.2, 48)
        .add(sheenOf, 3 * sheen)
        .add(dome, 8)
        .add(rim, -13)
        .add(ring, -4)
        .clamp(5, 92),
      a: body
        .copy()
        .scale(-1, -0.6)
        .add(sheenOf, -1.2 * sheen),
      b: body
        .scale(1.6, 3.4)
        .add(sheenOf, 2.2 * sheen)
        .add(rim, 3),
      height,
      elevation: 0.6,
      contrast: 0.5 * relief,
      occlusion: { k1: 0.09, k2: 0.05, amount: 0.8 },
      gain: 1.1,
      detail: { amount: 0.6 },
    };
  },
});
