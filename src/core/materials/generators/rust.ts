import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'metal.rust',
  label: 'Rusted iron',
  family: 'wood',
  seamless: true,
  shape: 'square',
  luma: 0.32,
  suggest: { blend: 'soft-light', strength: 0.7 },
  start: { steps: [tone(0.25, 0, -0.2)] },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, size],
  help: 'Iron plate eaten by salt air: scale in orange and brown, dark metal between.',
  params: z.object({
    rust: share('Rust', 0.6, { help: 'How much of the plate has gone.' }),
    pits: share('Pits', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { rust, pits, relief }) {
    const wide = sheet.noise(2.1, { octaves: 7, gain: 0.66 });
    const scale = sheet.noise(17, { octaves: 6, gain: 0.76 });
    const level = 1.1 - 2.2 * rust;
    const eaten = wide
      .copy()
      .add(scale, 0.35)
      .step(level - 0.35, level + 0.35);
    const old = wide
      .copy()
      .add(scale, 0.25)
      .step(level + 0.5, level + 1.4);
    const bloom = sheet.noise(8, { octaves: 6, gain: 0.72 }).scale(0.5, 0.3).clamp(0, 1.4).times(eaten);
    const pit = sheet
      .spots(
        sheet
          .scatter(Math.round(9000 * pits), eaten, 2.2, -2.5)
          .map(({ x, y, random }) => ({ x, y, r: random.power(0.0006, 0.006, 2.6), lobes: 1.6, value: random.between(0.3, 1) })),
        0.5,
      )
      .blur(0.0005);
    // Young rust is ochre, old rust nearly black; where water has stood it is dark red.
    const young = sheet.noise(5.3, { octaves: 6, gain: 0.7 }).step(0.5, 1.9).times(eaten);
    const wet = sheet.noise(2.7, { octaves: 7, gain: 0.68 }).add(scale, 0.3).step(0.6, 1.6).times(eaten);
    const height = eaten
      .copy()
      .scale(0.0018)
      .add(scale, 0.0006)
      .add(pit, -0.003)
      .add(sheet.band(0.001, 0.003), 0.0004)
      .add(sheet.white(0.0008), 0.00015);
    return {
      lightness: sheet
        .noise(3.2, { octaves: 5 })
        .scale(1.4, 36)
        .add(eaten, 1)
        .add(bloom, 12)
        .add(old, -9)
        .add(young, 7)
        .add(wet, -8)
        .add(pit, -9)
        .add(scale, 1.2),
      a: sheet.plane(0.6).add(eaten, 13).add(bloom, 10).add(old, -7).add(young, -5).add(wet, -1),
      b: sheet.plane(1).add(eaten, 16).add(bloom, 20).add(old, -11).add(young, 9).add(wet, -7).add(pit, -3),
      height,
      elevation: 0.6,
      contrast: 0.7 * relief,
      detail: { amount: 0.8 },
      occlusion: { k1: 0.12, k2: 0.06, amount: 0.8 },
      gain: 1.08,
    };
  },
});
