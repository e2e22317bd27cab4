import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'masonry.sand',
  label: 'Sand ripples',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.53,
  suggest: { blend: 'soft-light', strength: 0.8 },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, size],
  help: 'Wet sand at low tide: ripples of the water, grains, dark lines in the troughs, a shell broken small.',
  params: z.object({
    ripples: slider('Ripples', 6, 40, 17, { step: 1 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
    shells: share('Shell grit', 0.6, { max: 2 }),
  }),
  paint(sheet, { ripples, relief, shells }) {
    // Ripples are long across the current and break into each other: folds of a stretched noise, whose crests are softer than its troughs.
    const wave = sheet.noise(ripples, { octaves: 2, gain: 0.35, stretch: [0.16, 1], lacunarity: 2.1 });
    const crest = wave.copy().abs().scale(-0.75, 1).blur(0.003);
    const minor = sheet.noise(ripples * 2.7, { octaves: 2, gain: 0.5, stretch: [0.3, 1] });
    const flats = sheet.noise(1.6, { octaves: 4 }).scale(0.25, 0.8).clamp(0.15, 1.3);
    crest.times(flats);
    const grain = sheet.white(0.00055);
    const coarse = sheet.band(0.0007, 0.002);
    const dark = sheet.noise(16, { octaves: 4, gain: 0.6 }).add(crest, -1.4).step(0.3, 2.6);
    const wet = sheet.noise(2, { octaves: 5, gain: 0.6 }).scale(0.3, 0.5).clamp(0, 1.4);
    const grit = sheet.spots(
      sheet.scatter(Math.round(2600 * shells), crest, -1.2, -0.3).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0005, 0.0032, 2.9),
        lobes: 1.4,
        long: random.between(1, 2.4),
        angle: random.between(0, 3.14),
        value: random.between(0.3, 1),
      })),
      0.25,
    );
    const height = crest
      .copy()
      .scale((0.06 / ripples) * 2.6)
      .add(minor, 0.0009)
      .add(grain, 0.00006)
      .add(coarse, 0.0002)
      .add(grit, 0.0007);
    return {
      lightness: sheet
        .noise(3, { octaves: 5, gain: 0.6 })
        .scale(1.2, 59)
        .add(crest, 4)
        .add(grain, 1)
        .add(coarse, 2)
        .add(dark, -7)
        .add(wet, -5)
        .add(grit, 15),
      a: sheet.noise(2.4, { octaves: 3 }).scale(0.4, 3.4).add(dark, -1.4).add(grit, -1.6),
      b: sheet.noise(2.8, { octaves: 3 }).scale(0.9, 14).add(wet, -2).add(dark, -5).add(grit, -5),
      height,
      elevation: 0.6,
      contrast: 0.55 * relief,
      occlusion: { k1: 0.08, k2: 0.06, s2: 0.011, amount: 0.7 },
      gain: 1.08,
    };
  },
});
