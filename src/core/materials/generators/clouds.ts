import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, parameter, size, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'air.clouds',
  label: 'Clouds',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.67,
  suggest: { blend: 'soft-light', strength: 0.6 },
  start: { steps: [tone(0, 0, -0.4)] },
  first: [colourFirst, parameter('drama'), parameter('cover'), size],
  help: 'A broken sky for an empty one: soft light over the whole, or multiply above the horizon.',
  params: z.object({
    cover: share('Cover', 0.55),
    drama: share('Drama', 0.5, { help: 'Dark undersides.' }),
    size: slider('Size', 0.4, 2.5, 1, { step: 0.05 }),
  }),
  paint(sheet, { cover, drama, size }) {
    const { y } = sheet.coordinates();
    const bottom = sheet.bottom;
    const far = y.scale(1 / bottom);
    const f = 2.1 / size;
    // Billows are folded noise eaten from the broad masses; the base of each stays flat because the masses are wider than high.
    const mass = sheet.noise(f, { octaves: 5, gain: 0.5, stretch: [0.7, 1.5] });
    const billow = sheet
      .noise(f * 3.2, { octaves: 7, gain: 0.58 })
      .abs()
      .scale(-1, 0.8);
    const density = mass
      .copy()
      .add(billow, 0.75)
      .scale(1, 1.7 * cover - 1);
    const cloud = density.copy().step(-0.25, 1.15);
    const core = density.copy().step(0.3, 2);
    const lit = billow.scale(1, 0.2).clamp(-1, 1).times(cloud);
    const sky = far.copy().scale(16, 55);
    const lightness = sky
      .towards(far.copy().scale(-3, 88), cloud)
      .add(core, -26 * drama)
      .add(lit, 8)
      .add(sheet.white(0.0009), 0.3);
    const clear = cloud.copy().scale(-1, 1);
    return {
      lightness: lightness.clamp(0, 99),
      a: sheet.plane(0).add(clear, -3).add(core, 0.6),
      b: sheet.plane(1.5).add(clear, -18).add(core, -2.5),
    };
  },
});
