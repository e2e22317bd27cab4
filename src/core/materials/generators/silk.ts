import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, follow, raised, size, tone } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';
import { weaveCloth } from '../weave';

export default defineMaterial({
  id: 'cloth.silk',
  label: 'Raw silk',
  family: 'cloth',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.62,
  suggest: { blend: 'overlay', strength: 0.8 },
  start: { steps: [tone(-0.2, 0.3, -0.5)] },
  first: [raised(0.5, 1.5), colourStrength, follow, size],
  help: 'Fine cloth with slubs along one way and a soft sheen in folds.',
  params: z.object({
    sheen: share('Sheen', 1, { max: 2 }),
    slubs: share('Slubs', 1, { max: 2, help: 'Thicker stretches of thread.' }),
    threads: slider('Threads', 160, 360, 280, { step: 2, help: 'Threads along the long side.' }),
    lightness: slider('Lightness', 35, 85, 67, { step: 1 }),
  }),
  paint(sheet, { sheen, slubs, threads, lightness }) {
    const { random } = sheet;
    const count = 2 * Math.round(threads / 2);
    const {
      height: cloth,
      tone,
      fibre,
    } = weaveCloth(sheet, {
      threads: count,
      offset: 0.07,
      width: [0.47, 0.16],
      jitter: 0.1,
      wobble: 0.12,
      slubs: 0.3,
      slubLength: 6,
      bow: 0.4,
      gap: -0.7,
      twist: 0.05,
      bend: 0.006,
    });
    // Slubs run across: raw thread that was reeled thick for a stretch.
    const stretches: StrokePoint[][] = Array.from({ length: Math.round(900 * slubs) }, () => {
      const [x, y, long] = [random.next(), random.next(), random.logNormal(0.045, 0.7)];
      const half = random.logNormal(0.5, 0.35) / count;
      const value = random.between(0.3, 1);
      return [0, 0.15, 0.35, 0.55, 0.8, 1].map((t): StrokePoint => [
        x + t * long,
        y + (0.12 * random.gauss()) / count,
        half * Math.max(0.25, Math.sin(Math.PI * t) * (1 + 0.25 * random.gauss())),
        value * Math.sin(Math.PI * Math.min(0.97, Math.max(0.03, t))),
      ]);
    });
    const slub = sheet.strokes(stretches);
    const strand = sheet.white(0.0004, 0.006);
    const streak = sheet.white(0.0014, 0.06);
    const fold = sheet.noise(1.7, { octaves: 3, gain: 0.45, stretch: [1.5, 0.6] });
    const glow = fold.copy().step(-0.4, 1.6);
    const height = cloth
      .copy()
      .scale(0.2 / count)
      .add(slub, 0.0004)
      .add(strand, 0.00003)
      .add(fold, 0.006 * sheen);
    const open = cloth.clamp(-1, -0.4).scale(-1 / 0.6, -0.4 / 0.6);
    return {
      lightness: sheet
        .plane(lightness - 1)
        .add(streak, 0.9)
        .add(tone, 1.6)
        .add(strand, 0.7)
        .add(fibre, 1.6)
        .add(slub, 3.4)
        .add(open, -9)
        .add(glow, 7 * sheen),
      a: sheet.plane(0.6).add(tone, 0.2),
      b: sheet.noise(2, { octaves: 3 }).scale(0.6, 6).add(slub, 1.2),
      height,
      elevation: 0.66,
      contrast: 0.5,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.3 },
    };
  },
});
