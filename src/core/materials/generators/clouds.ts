import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, parameter, size, tone } from '../first';
import type { Field } from '../field';
import { embossed } from '../making/operations/light';
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
    const far = y.scale(1 / sheet.bottom);
    const f = 1.7 / size;
    // Folded noise makes round heads with creases between them, small ones on large ones; the masses that carry them are wider than high.
    const heads = (cycles: number, octaves = 1) => sheet.noise(cycles, { octaves, gain: 0.62 }).abs().scale(1, -0.8);
    const mass = sheet.noise(f, { octaves: 3, gain: 0.45, stretch: [0.7, 1.4] });
    const frayed = sheet.noise(f * 30, { octaves: 7, gain: 0.66 });
    const density = mass
      .copy()
      .add(heads(f * 3.1), 0.42)
      .add(heads(f * 6.7), 0.26)
      .add(heads(f * 14, 2), 0.17)
      .add(frayed, 0.085)
      .scale(1, 2.1 * cover - 1.25);
    const veil = density
      .copy()
      .add(frayed, 0.05)
      .step(-0.55, 0.5)
      .times(
        sheet
          .noise(f * 2, { octaves: 4 })
          .scale(0.2, 0.3)
          .clamp(),
      );
    const cloud = density.copy().step(-0.06, 0.3).max(veil);
    const thick = density.copy().step(0.25, 2.1);
    // The light comes from the upper left, through heads of every size.
    const side = (field: Field, reach: number) => sheet.step(embossed, { dx: 0.6 * reach, dy: reach, gain: -0.5 }, field).scale(1, -0.5);
    const lit = side(density.copy().blur(0.006, { isDecided: true }), 0.02)
      .add(side(density.copy().blur(0.0018), 0.006), 0.9)
      .clamp(-0.7, 0.7)
      .times(cloud);
    const sky = far.copy().scale(17, 53);
    const lightness = sky
      .towards(far.copy().scale(-3, 90), cloud)
      .add(thick, -30 * drama)
      .add(lit, 21)
      .add(frayed.times(cloud), 0.5)
      .add(sheet.white(0.0009), 0.3);
    const clear = cloud.copy().scale(-1, 1);
    return {
      lightness: lightness.clamp(0, 99),
      a: sheet.plane(0).add(clear, -3).add(thick, 0.6),
      b: sheet.plane(1.5).add(clear, -18).add(thick, -2.5).add(lit, 2),
    };
  },
});
