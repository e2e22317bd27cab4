import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, grain, onlyStains, paleColour, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.written',
  label: 'Written card',
  family: 'paper',
  seamless: false,
  shape: 'piece',
  luma: 0.77,
  suggest: { blend: 'multiply', strength: 0.7 },
  start: { steps: [tone(0.1, 0, -0.2)] },
  first: [onlyStains(0.1, [0.49, 0.46, 0.4], '#3a2a1c', 0.8, { detail: [24, 1.6] }), paleColour(0.22), colourFirst, grain, raised(0.3, 1)],
  help: 'An old card with a faded hand on it, stained and softened at its corners. The writing says nothing.',
  params: z.object({
    ink: share('Ink', 1, { max: 2 }),
    lines: slider('Lines', 3, 24, 11, { step: 1 }),
    stains: share('Stains', 1, { max: 2 }),
    through: share('Showing through', 0.6, { help: 'Writing on the other side, seen in reverse.' }),
  }),
  paint(sheet, { ink, lines, stains, through }) {
    const front = hand(sheet, Math.round(lines), 11, 1);
    const back = hand(sheet, Math.round(lines), 43, -1).blur(0.0022);
    const faded = sheet.noise(2.4, { octaves: 5, gain: 0.66 }).scale(0.28, 0.72).clamp(0.15, 1.15);
    const pen = front.copy().times(faded).scale(ink);
    const bleed = front.blur(0.0012);
    const { random } = sheet;
    const spots: Spot[] = Array.from({ length: Math.round(26 * stains) }, () => ({
      x: random.between(0, sheet.right),
      y: random.between(0, sheet.bottom),
      r: random.power(0.003, 0.07, 1.9),
      lobes: 1.4,
      long: random.between(1, 1.4),
      angle: random.between(0, 3.14),
      value: random.between(0.15, 0.8),
    }));
    const blot = sheet.spots(spots, 0.1).times(sheet.noise(7, { octaves: 4 }).scale(0.3, 0.8).clamp(0, 1.4));
    const edge = blot.copy().add(blot.copy().blur(0.006), -0.9).clamp();
    const age = sheet.noise(1.8, { octaves: 6, gain: 0.68 }).scale(0.3, 0.35).clamp(0, 2).power(1.8);
    const dirt = cornerDirt(sheet);
    const tooth = sheet.band(0.0018, 0.0052);
    const height = tooth
      .copy()
      .scale(0.0002)
      .add(sheet.fibres(2600), 0.00035)
      .add(pen, -0.00018)
      .add(sheet.noise(2.6, { octaves: 5 }), 0.0014);
    return {
      lightness: sheet
        .noise(3, { octaves: 4 })
        .scale(0.6, 84)
        .add(age, -6)
        .add(dirt, -16)
        .add(blot, -7)
        .add(edge, -16)
        .add(back, -7 * through)
        .add(bleed, -3)
        .add(pen, -44)
        .clamp(6, 98),
      a: sheet.plane(2).add(age, 1.8).add(dirt, 3.5).add(blot, 2).add(edge, 3).add(pen, -1),
      b: sheet.noise(2.3, { octaves: 3 }).scale(0.7, 15).add(age, 5).add(dirt, 6).add(blot, 5).add(edge, 5).add(pen, -13),
      height,
      elevation: 0.66,
      translucency: [0.4, 0.0012],
      contrast: 0.24,
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.4 },
    };
  },
});

/** Dark and soft towards the corners, where thumbs have been. */
function cornerDirt(sheet: Sheet) {
  const { x, y } = sheet.coordinates();
  const near = (f: typeof x, far: number) =>
    f
      .copy()
      .scale(-1, far)
      .min(f)
      .clamp(0, 1)
      .exp(-1 / 0.045);
  const out = near(x, sheet.right)
    .add(near(y, sheet.bottom))
    .add(sheet.noise(3, { octaves: 6, gain: 0.68 }), 0.16)
    .add(-0.15);
  return out.clamp(0, 1.5).power(1.4);
}

/** Points to a letter: enough for its loops to be round on a large sheet. */
const TO_LETTER = 28;

/** Rows of words in a sloping hand: loops and strokes whose height, width and pressure wander. No letters of any alphabet. */
function hand(sheet: Sheet, lines: number, salt: number, way: 1 | -1) {
  const { right, bottom, seed } = sheet;
  const list: StrokePoint[][] = [];
  const step = (bottom * 0.86) / lines;
  const tall = Math.min(step * 0.34, 0.017);
  for (let row = 0; row < lines; row++) {
    const base = seed * 3 + salt + row * 17;
    let at = right * (0.07 + 0.02 * line(row * 1.7, base));
    const end = right * (0.93 - 0.12 * Math.abs(line(row * 2.3, base + 1)) - (row === lines - 1 ? 0.4 : 0));
    let word = 0;
    while (at < end) {
      const path: StrokePoint[] = [];
      const letters = 2 + Math.floor(4 + 5 * line(word * 1.31 + 0.5, base + 2));
      const points = Math.max(2, letters) * TO_LETTER;
      for (let i = 0; i <= points; i++) {
        const t = i / TO_LETTER;
        const big = line(Math.floor(t) * 0.77 + word * 3.1, base + 3);
        const high = big > 0.5 ? 1.9 : big < -0.55 ? 0.55 : 1;
        const low = line(Math.floor(t) * 0.91 + word * 2.3, base + 4) > 0.62 ? 1.2 : 0;
        const phase = (t % 1) * 2 * Math.PI;
        const lift = tall * ((0.5 - 0.5 * Math.cos(phase)) * high - low * Math.max(0, -Math.sin(phase)));
        const x = at + t * tall * 0.78 + lift * 0.42 + tall * 0.3 * Math.sin(phase) + tall * 0.12 * line(t * 1.7, base + 5);
        const y = bottom * 0.09 + (row + 0.7) * step + 0.004 * line(x * 3, base + 6) - lift;
        const press = 0.6 + 0.5 * Math.max(0, Math.sin(phase + 0.4)) + 0.25 * line(t * 0.6, base + 7);
        path.push([way > 0 ? x : right - x, y, 0.00042 + 0.00055 * Math.max(0, press - 0.5), Math.min(1, Math.max(0.15, press))]);
      }
      const last = path[path.length - 1][0];
      at = (way > 0 ? last : right - last) + tall * (0.9 + 0.5 * Math.abs(line(word * 0.9, base + 8)));
      if (at < end + tall) list.push(path);
      word++;
    }
  }
  return sheet.strokes(list, { broken: true });
}
