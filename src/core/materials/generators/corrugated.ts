import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'metal.corrugated',
  label: 'Corrugated iron',
  family: 'wood',
  seamless: true,
  shape: 'square',
  luma: 0.47,
  suggest: { blend: 'overlay', strength: 0.6 },
  first: [raised(0.2, 2), colourStrength, greyGrain, size],
  help: 'A shed roof: zinc-grey waves, rust that begins at the crests and runs down in the troughs.',
  params: z.object({
    waves: slider('Waves', 5, 30, 12, { step: 1 }),
    rust: share('Rust', 0.45),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { waves, rust, relief }) {
    const n = Math.round(waves);
    const pitch = 1 / n;
    /** Half of what is level along a crest; wide enough to be a line at every size. */
    const flat = 0.09 * pitch;
    // The profile of rolled sheet: arcs that meet in a bend, from the distance to the crests.
    const crests: StrokePoint[][] = Array.from({ length: n }, (_, i) => [
      [(i + 0.5) * pitch, -0.01, flat, 1],
      [(i + 0.5) * pitch, 1.01, flat, 1],
    ]);
    const from = sheet
      .strokes(crests)
      .distance(0.5, pitch)
      .scale(1 / (pitch / 2 - flat))
      .clamp();
    const profile = from.copy().step(0, 1).scale(-1, 1);
    const dent = sheet.noise(2.6, { octaves: 4, gain: 0.5 });
    const spangle = sheet.noise(34, { octaves: 3, gain: 0.7 });
    const dull = sheet.noise(2.1, { octaves: 6, gain: 0.66 });
    const begun = sheet
      .noise(5, { octaves: 8, gain: 0.72 })
      .add(profile, 0.5)
      .add(dull, 0.6)
      .step(2.1 - 2.6 * rust, 3.3 - 2.4 * rust);
    const runs = sheet.strokes(
      sheet.scatter(Math.round(1500 * rust), begun, 1.6, -1.2).map(({ x, y, random }) => {
        const length = random.power(0.04, 0.5, 1.5);
        const half = random.power(0.0006, 0.0045, 2);
        return Array.from({ length: 10 }, (_, s): StrokePoint => [
          x + 0.0006 * random.gauss(),
          y + (length * s) / 9,
          half * (1 - (0.5 * s) / 9),
          random.between(0.5, 1) * (1 - s / 9),
        ]);
      }),
    );
    const stain = runs.blur(0.0012).times(sheet.white(0.001, 0.012).scale(0.3, 0.8).clamp(0, 1.5));
    const scale = sheet.noise(46, { octaves: 5, gain: 0.84 }).times(begun);
    const deep = sheet.noise(8, { octaves: 6, gain: 0.7 }).scale(0.5, 0.5).clamp(0, 1.6).times(begun);
    const all = begun.copy().add(stain, 0.65).clamp();
    const height = profile
      .copy()
      .scale(0.24 * pitch)
      .add(dent, 0.0012)
      .add(spangle, 0.00007)
      .add(scale, 0.0004)
      .add(begun, 0.0003)
      .add(sheet.band(0.0008, 0.0022), 0.00012);
    return {
      lightness: dull.scale(1.6, 55).add(spangle, 1.5).add(dent, 0.8).add(stain, -9).add(begun, -17).add(deep, -11).add(scale, 3.4).clamp(6, 94),
      a: sheet.plane(-0.6).add(all, 15).add(deep, -6).add(scale, 2.2),
      b: sheet.noise(2.4, { octaves: 3 }).scale(0.5, -1).add(all, 21).add(deep, -11).add(scale, 2.6),
      height,
      azimuth: -2.7,
      elevation: 0.62,
      contrast: 0.62 * relief,
      occlusion: { k1: 0.03, k2: 0.025, s2: 0.012, amount: 0.8 },
      gain: 1.08,
    };
  },
});
