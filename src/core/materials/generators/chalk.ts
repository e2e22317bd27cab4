import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, greyGrain, range, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.chalk',
  label: 'Wiped chalk',
  family: 'wear',
  seamless: true,
  shape: 'square',
  luma: 0.25,
  marks: 'lights',
  suggest: { blend: 'screen', strength: 0.7 },
  start: { steps: [range(0.1, 0.85)] },
  first: [amount(0.1, [0.8, 0.6, 0.45]), colourFirst, greyGrain, size],
  help: 'A slate that was wiped with a dry cloth: sweeps of chalk dust, and strokes that did not quite go.',
  params: z.object({
    dust: share('Dust', 1, { max: 2 }),
    sweeps: slider('Sweeps', 20, 220, 90, { step: 5 }),
    strokes: share('Old strokes', 0.5, { max: 1.5 }),
  }),
  paint(sheet, { dust, sweeps, strokes }) {
    const { random } = sheet;
    const sweep: StrokePoint[][] = Array.from({ length: Math.round(sweeps) }, () => {
      const [x, y] = [random.next(), random.next()];
      const radius = random.between(0.25, 0.7);
      const from = random.between(-0.5, 0.3);
      const arc = random.between(0.3, 0.9);
      const half = random.logNormal(0.032, 0.4);
      const strength = random.power(0.12, 0.8, 1.3);
      return Array.from({ length: 25 }, (_, s): StrokePoint => {
        const t = s / 24;
        const angle = -1.57 + from + arc * t;
        return [x + radius * Math.cos(angle), y + radius * (1 + Math.sin(angle)), half, strength * Math.sin(Math.PI * t) ** 0.6];
      });
    });
    const old: StrokePoint[][] = Array.from({ length: Math.round(40 * strokes) }, () => {
      let [x, y, angle] = [random.next(), random.next(), random.between(-0.9, 0.9)];
      const bend = random.between(-0.12, 0.12);
      const half = random.logNormal(0.0042, 0.25);
      const strength = random.between(0.25, 0.9);
      return Array.from({ length: 14 }, (_, s): StrokePoint => {
        angle += bend + 0.08 * random.gauss();
        x += 0.014 * Math.cos(angle);
        y += 0.014 * Math.sin(angle);
        return [x, y, half * (s === 0 || s === 13 ? 0.6 : random.between(0.85, 1.1)), strength * random.between(0.5, 1)];
      });
    });
    // The cloth leaves fine parallel streaks; dust stays on the grain of the slate.
    const tooth = sheet.white(0.0007);
    const rough = sheet.noise(40, { octaves: 5, gain: 0.8 });
    const streak = sheet.white(0.0009, 0.012);
    const veil = sheet.strokes(sweep).blur(0.009).times(streak.scale(0.3, 0.72).clamp(0, 1.5));
    const cloud = sheet.noise(1.7, { octaves: 6, gain: 0.64 }).scale(0.3, 0.28).clamp(0, 1.2);
    // Dust is crumbs, and so is what a stroke breaks up into.
    const crumb = sheet.white(0.00028);
    const caught = tooth.copy().scale(0.22, 0.6).add(crumb, 0.2).add(rough, 0.14).clamp(0, 1.6);
    const line = sheet.strokes(old, { broken: true });
    line.times(tooth.copy().scale(0.8, 0.5).add(rough, 0.35).add(crumb, 0.5).step(-0.4, 0.7));
    const chalk = veil.add(cloud, 0.35).scale(dust).times(caught).add(line, 0.8).clamp(0, 1.3);
    const height = rough.scale(0.0003).add(tooth, 0.00015).add(chalk, 0.0002);
    return {
      lightness: sheet.noise(3, { octaves: 5, gain: 0.6 }).scale(0.8, 17).add(chalk, 46).clamp(3, 98),
      a: sheet.plane(-0.8).add(chalk, 0.4),
      b: sheet.noise(2.2, { octaves: 3 }).scale(0.3, -1.6).add(chalk, 2.6),
      height,
      elevation: 0.65,
      contrast: 0.3,
    };
  },
});
