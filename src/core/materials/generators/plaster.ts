import * as z from 'zod';
import { share, slider } from '../../schema';
import { crackStrokes, growCracks } from '../cracks';
import type { Field } from '../field';
import { colourStrength, greyGrain, onlyGrooves, raised } from '../first';
import { defineMaterial } from '../material';
import { line, smooth } from '../random';
import type { Sheet, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'masonry.plaster',
  label: 'Rough plaster',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.54,
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [greyGrain, raised(0.4, 2), colourStrength, onlyGrooves(0.25, [0.48, 0.45, 0.4], '#3a3028')],
  help: 'Trowelled render with pits, damp and hairline cracks; mid grey, for overlay and soft light.',
  params: z.object({
    relief: slider('Relief', 0, 2, 1, { step: 0.05, help: 'How rough the surface is.' }),
    pits: share('Pits', 1, { max: 2, help: 'Holes left by air.' }),
    damp: share('Damp', 1, { max: 2, help: 'Dark, warmer patches.' }),
    cracks: share('Hairlines', 1, { help: 'Fine cracks.' }),
  }),
  paint(sheet, { relief, pits: pitting, damp: dampness, cracks }) {
    const { body, ridge } = trowel(sheet);
    const height = sheet.noise(1.9, { octaves: 5, gain: 0.62 }).scale(0.0027);
    height
      .add(sheet.noise(11, { octaves: 5, gain: 0.66 }), 0.0007)
      .add(body, 0.0009)
      .add(ridge, 0.00055);
    const patchy = sheet.noise(4, { octaves: 3 }).scale(0.5, 0.6).clamp(0, 1.6);
    const rough = sheet.noise(70, { octaves: 4, gain: 0.85 }).scale(0.00018).add(sheet.band(0.0009, 0.0022).times(patchy), 0.00022);
    // A smear smooths what it passes over.
    rough.times(body, -0.45, 0.9);
    height.add(rough).add(sheet.white(0.0007), 0.00008);

    const density = sheet.noise(3.3, { octaves: 4 });
    const pit = sheet.spots(
      sheet.scatter(Math.round(9000 * pitting), density, 1.1, -1.6).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0005, 0.005, 2.9),
        lobes: 1.2,
        long: random.between(1, 1.6),
        angle: random.between(0, 3.14),
        value: random.between(0.4, 1),
      })),
      0.6,
    );
    const net = growCracks({
      seed: sheet.seed + 3,
      primary: 5,
      spacing: 0.3,
      generations: 1,
      ratio: 0.6,
      tries: 4,
      jag: 0.06,
      back: 0.01,
      breaking: 0.8,
      rough: 1.6,
      direction: (x, y) => 0.6 + line(x * 3 + y, sheet.seed) + line(y * 2.7, sheet.seed + 1),
      density: () => 1,
    });
    const crack = sheet.strokes(
      crackStrokes(net, [0.6, 0.4], [0.7, 0.5], sheet.seed, () => cracks),
      { broken: true },
    );
    height.add(pit, -0.0024).add(crack, -0.0008);

    const damp = sheet
      .noise(2.4, { gain: 0.7 })
      .scale(0.35, 0.35)
      .add(sheet.noise(5, { octaves: 5, stretch: [2.2, 0.5] }), 0.15)
      .clamp()
      .power(2);
    const smear = body.copy().add(-0.3);
    return {
      lightness: sheet
        .noise(1.6, { octaves: 4 })
        .scale(0.7, 58.5)
        .add(damp, -6.5 * dampness)
        .add(smear, 1.6)
        .add(pit, -9)
        .add(crack, -22),
      a: sheet.plane(0.4).add(damp, 0.8 * dampness),
      b: sheet
        .noise(2.1, { octaves: 4 })
        .scale(0.4, 3.2)
        .add(damp, 3.2 * dampness),
      height,
      elevation: 0.6,
      contrast: 0.72 * relief,
      occlusion: { k1: 0.12, k2: 0.05, amount: 0.7 },
    };
  },
});

/** Broad bent smears: each a bundle of parallel strokes with one hard edge, a ridge along it, and drag lines inside. */
function trowel(sheet: Sheet): { body: Field; ridge: Field } {
  const { random } = sheet;
  const inner: StrokePoint[][] = [];
  const edges: StrokePoint[][] = [];
  for (let i = 0; i < 240; i++) {
    const width = random.logNormal(0.055, 0.4);
    const length = random.logNormal(0.22, 0.4);
    const bend = (random.chance(0.5) ? 1 : -1) / random.logNormal(0.45, 0.5);
    let angle = (random.chance(0.75) ? -0.6 : 0.9) + random.between(-0.35, 0.35);
    let x = random.next();
    let y = random.next();
    const strength = random.between(0.2, 0.9);
    const seed = sheet.seed + i * 17;
    const path: [number, number, number][] = [];
    for (let s = 0; s <= 14; s++) {
      path.push([x, y, angle]);
      angle += (bend * length) / 14;
      x += (Math.cos(angle) * length) / 14;
      y += (Math.sin(angle) * length) / 14;
    }
    const lines = Math.max(6, Math.round(width / 0.0032));
    for (let q = 0; q < lines; q++) {
      const e = (q / (lines - 1)) * 2 - 1;
      const soft = smooth(-1, -0.15, e);
      const load = strength * soft * (0.75 + 0.3 * line(q * 0.9, seed) + 0.2 * line(q * 0.33, seed + 1));
      inner.push(
        path.map(([px, py, a], s): StrokePoint => {
          const fade = smooth(0, 0.25, s / 14) * smooth(1, 0.7, s / 14);
          return [px - Math.sin(a) * e * width * 0.5, py + Math.cos(a) * e * width * 0.5, 0.0024, Math.max(0, load * fade)];
        }),
      );
    }
    const wander = random.between(0.93, 1);
    edges.push(
      path.map(([px, py, a], s): StrokePoint => {
        const broken = Math.max(0, Math.min(1, 0.1 + 0.9 * line((16 * s * length) / 14 + i, seed + 2)));
        return [px - Math.sin(a) * wander * width * 0.5, py + Math.cos(a) * wander * width * 0.5, 0.0009, strength * broken];
      }),
    );
  }
  return { body: sheet.strokes(inner).blur(0.0011), ridge: sheet.strokes(edges).blur(0.0007) };
}
