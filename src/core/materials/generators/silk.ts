import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, follow, raised, size, tone } from '../first';
import { defineMaterial } from '../material';

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
    lightness: slider('Lightness', 35, 85, 67, { step: 1 }),
  }),
  paint(sheet, { sheen, slubs, lightness }) {
    const weft = sheet.white(0.0014, 0.03).add(sheet.white(0.002, 0.09), 0.8);
    const warp = sheet.white(0.03, 0.0014);
    const thick = sheet.white(0.0022, 0.045).scale(1, -1.4).clamp(0, 3);
    const fold = sheet.noise(1.7, { octaves: 3, gain: 0.45, stretch: [1.5, 0.6] });
    const glow = fold.copy().step(-0.4, 1.6);
    const height = weft
      .copy()
      .scale(0.0001)
      .add(warp, 0.00006)
      .add(thick, 0.0005 * slubs)
      .add(fold, 0.006 * sheen);
    return {
      lightness: weft
        .scale(0.9, lightness - 2)
        .add(warp, 0.5)
        .add(thick, 2.6 * slubs)
        .add(glow, 7 * sheen),
      a: sheet.plane(0.6),
      b: sheet
        .noise(2, { octaves: 3 })
        .scale(0.6, 6)
        .add(thick, 1.2 * slubs),
      height,
      elevation: 0.66,
      contrast: 0.5,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.3 },
    };
  },
});
