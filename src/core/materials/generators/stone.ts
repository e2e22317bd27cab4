import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'masonry.stone',
  label: 'Rough stone',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.42,
  suggest: { blend: 'overlay', strength: 0.5 },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, size],
  help: 'A broken face of grey rock with ledges, grains and lichen.',
  params: z.object({
    ledges: share('Ledges', 1, { max: 2, help: 'How boldly the rock broke.' }),
    lichen: share('Lichen', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { ledges, lichen, relief }) {
    // Folded noise breaks sharply on one side: the ledges of a split face.
    const fold = (f: number) =>
      sheet
        .noise(f, { octaves: 6, gain: 0.56, stretch: [0.8, 1.3] })
        .abs()
        .scale(-1, 0.8);
    const form = fold(2.2).add(fold(5.4), 0.5);
    const grain = sheet.noise(48, { octaves: 5, gain: 0.86 });
    const height = form
      .copy()
      .scale(0.011 * ledges)
      .add(sheet.noise(9, { octaves: 6, gain: 0.64 }), 0.0022)
      .add(grain, 0.0005)
      .add(sheet.band(0.0008, 0.002), 0.0003);
    const growth = sheet
      .noise(6, { octaves: 7, gain: 0.7 })
      .add(sheet.noise(1.6, { octaves: 3 }), 0.8)
      .step(1.15, 1.75);
    const pale = sheet.spots(
      sheet
        .scatter(Math.round(2600 * lichen), growth, 2.4, -2.6)
        .map(({ x, y, random }) => ({ x, y, r: random.power(0.0008, 0.009, 2.3), lobes: 1.8, value: random.between(0.4, 1) })),
      0.35,
    );
    growth.scale(lichen);
    return {
      lightness: sheet.noise(3, { octaves: 6, gain: 0.66 }).scale(2.6, 47).add(form, 3.5).add(grain, 2).add(growth, 4).add(pale, 13),
      a: sheet.noise(2.1, { octaves: 3 }).scale(0.5, 0.7).add(growth, -1.6).add(pale, -1.5),
      b: sheet.noise(2.6, { octaves: 3 }).scale(1.1, 4.6).add(growth, 7).add(pale, 5),
      height,
      elevation: 0.62,
      contrast: 0.6 * relief,
      detail: { amount: 0.6 },
      occlusion: { k1: 0.1, k2: 0.07, s2: 0.011, amount: 0.85 },
      shadow: { low: 0.55, reach: 0.012 },
      gain: 1.12,
    };
  },
});
