import * as z from 'zod';
import { share } from '../../schema';
import { colourStrength, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.envelope',
  label: 'Posted envelope',
  family: 'paper',
  seamless: false,
  shape: 'square',
  luma: 0.78,
  suggest: { blend: 'multiply', strength: 0.75 },
  first: [raised(0.25, 1), parameter('ink'), parameter('aged'), colourStrength],
  help: 'An old envelope of the Skerry Light post: its lighthouse stamp, cancelled, and the folds of its flap.',
  params: z.object({
    ink: share('Ink', 0.8, { help: 'How clear the postmark is.' }),
    aged: share('Aged', 0.6),
    folds: share('Folds', 0.7),
  }),
  paint(sheet, { ink, aged, folds }) {
    const { random } = sheet;
    const [sx, sy] = [0.78 + 0.01 * random.gauss(), 0.2 + 0.01 * random.gauss()];
    const stamp = lighthouseStamp(sx, sy);
    const press = sheet.noise(40, { octaves: 4, gain: 0.7 }).scale(0.28, 0.8).clamp(0, 1.2);
    const paper = sheet.spots(stamp.teeth, 0.05, { into: sheet.strokes([stamp.card]) });
    const picture = sheet.strokes(stamp.lines).times(press);
    const mark = sheet
      .strokes(postmark(sheet, sx - 0.13, sy + 0.05))
      .times(sheet.noise(9, { octaves: 6, gain: 0.72 }).scale(0.45, 0.72).clamp(0, 1.1));
    const flap = sheet.strokes([
      [
        [-0.02, 0.02, 0.0009, 0.8],
        [0.5, 0.52, 0.0009, 1],
        [1.02, 0.02, 0.0009, 0.8],
      ],
      [
        [-0.02, 1.0, 0.0009, 0.5],
        [0.42, 0.5, 0.0009, 0.6],
      ],
      [
        [1.02, 1.0, 0.0009, 0.5],
        [0.58, 0.5, 0.0009, 0.6],
      ],
    ]);
    const shade = flap.copy().blur(0.004);
    const stain = sheet.noise(2.4, { octaves: 7, gain: 0.68 }).step(0.1, 2.2);
    const fibre = sheet.fibres(2600);
    const height = sheet
      .noise(28, { octaves: 4 })
      .scale(0.00007)
      .add(fibre, 0.0003)
      .add(shade, 0.0009 * folds)
      .add(flap, -0.0006 * folds)
      .add(paper, 0.0005)
      .add(sheet.band(0.0009, 0.003), 0.00013);
    return {
      lightness: sheet
        .noise(2, { octaves: 4 })
        .scale(0.6, 82)
        .add(stain, -10 * aged)
        .add(shade, -5 * folds)
        .add(paper, 7)
        .add(picture, -36)
        .add(mark, -48 * ink)
        .add(fibre, -2)
        .clamp(8, 97),
      a: stain
        .copy()
        .scale(3.5 * aged, 2.4)
        .add(paper, -1)
        .add(picture, -7)
        .add(mark, 2 * ink),
      b: stain
        .scale(8 * aged, 15)
        .add(paper, -6)
        .add(picture, -24)
        .add(mark, -14 * ink),
      height,
      elevation: 0.64,
      contrast: 0.36,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.45 },
    };
  },
});

/** A stamp about a middle: its card, the teeth of its rim, and a lighthouse on its rock. */
function lighthouseStamp(cx: number, cy: number): { card: StrokePoint[]; teeth: Spot[]; lines: StrokePoint[][] } {
  const [w, h] = [0.062, 0.078];
  const at = (u: number, v: number, half: number, value = 1): StrokePoint => [cx + u * w, cy + v * h, half, value];
  const card = Array.from({ length: 9 }, (_, i) => [at(-1, -1 + i / 4, 0.0105), at(1, -1 + i / 4, 0.0105)]).flat();
  const teeth: Spot[] = [];
  for (let i = 0; i <= 14; i++) for (const v of [-1.14, 1.14]) teeth.push({ x: cx + (-1.12 + (2.24 * i) / 14) * w, y: cy + v * h, r: 0.0034 });
  for (let i = 0; i <= 17; i++) for (const u of [-1.17, 1.17]) teeth.push({ x: cx + u * w, y: cy + (-1.1 + (2.2 * i) / 17) * h, r: 0.0034 });
  const frame = [at(-0.86, -0.88, 0.0011), at(0.86, -0.88, 0.0011), at(0.86, 0.88, 0.0011), at(-0.86, 0.88, 0.0011), at(-0.86, -0.88, 0.0011)];
  const tower = [-1, 1].map((s) => [at(0.2 * s, 0.5, 0.0012), at(0.11 * s, -0.36, 0.0012)]);
  const bands = [0.36, 0.12, -0.12].map((v) => [at(-0.16, v, 0.004, 0.75), at(0.16, v, 0.004, 0.75)]);
  const lamp = [
    [at(-0.14, -0.4, 0.0012), at(0.14, -0.4, 0.0012)],
    [at(0, -0.5, 0.0036), at(0, -0.52, 0.0036)],
    [at(-0.09, -0.62, 0.0012), at(0, -0.7, 0.0012), at(0.09, -0.62, 0.0012)],
  ];
  const rays = [-0.34, -0.12, 0.1].flatMap((v) => [-1, 1].map((s) => [at(0.16 * s, -0.51, 0.0006, 0.7), at(0.74 * s, -0.51 + v, 0.0012, 0.35)]));
  const rock = [at(-0.62, 0.66, 0.0013), at(-0.3, 0.52, 0.0013), at(0, 0.5, 0.0013), at(0.34, 0.54, 0.0013), at(0.66, 0.68, 0.0013)];
  const sea = [0.74, 0.8].map((v) => Array.from({ length: 13 }, (_, i) => at(-0.78 + (1.56 * i) / 12, v + (i % 2 ? 0.02 : -0.02), 0.0008, 0.8)));
  return { card, teeth, lines: [frame, ...tower, ...bands, ...lamp, ...rays, rock, ...sea] };
}

/** Two rings with marks like letters between them, and waves over the stamp. */
function postmark({ random }: Sheet, cx: number, cy: number): StrokePoint[][] {
  const ring = (r: number): StrokePoint[] =>
    Array.from({ length: 61 }, (_, i) => [cx + r * Math.cos((i * Math.PI) / 30), cy + r * Math.sin((i * Math.PI) / 30), 0.0013, 1]);
  const letters: StrokePoint[][] = Array.from({ length: 26 }, (_, i) => {
    const a = (i / 26) * 2 * Math.PI;
    const [inner, outer] = [0.052 + 0.003 * random.next(), 0.063 - 0.003 * random.next()];
    const turn = a + 0.05 * random.gauss();
    return [
      [cx + inner * Math.cos(a), cy + inner * Math.sin(a), 0.0012, 0.9],
      [cx + outer * Math.cos(turn), cy + outer * Math.sin(turn), 0.0012, 0.9],
    ];
  });
  const waves: StrokePoint[][] = Array.from({ length: 6 }, (_, k) =>
    Array.from({ length: 41 }, (_, i): StrokePoint => [
      cx + 0.085 + 0.0065 * i,
      cy - 0.05 + 0.02 * k + 0.005 * Math.sin(i * 0.62 + k * 0.2),
      0.0014,
      0.95,
    ]),
  );
  const date = [-0.018, 0, 0.018].map((v): StrokePoint[] => [
    [cx - 0.026 + 0.006 * random.next(), cy + v, 0.0017, 0.85],
    [cx + 0.026 - 0.006 * random.next(), cy + v, 0.0017, 0.85],
  ]);
  return [ring(0.07), ring(0.046), ...letters, ...waves, ...date];
}
