import * as z from 'zod';
import { slider } from '../../schema';
import { colourStrength, follow, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { weaveCloth } from '../weave';

export default defineMaterial({
  id: 'cloth.hessian',
  label: 'Hessian',
  family: 'cloth',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.48,
  suggest: { blend: 'soft-light', strength: 0.7 },
  start: { steps: [tone(0, 0, -0.5)] },
  first: [raised(0.12, 1), colourStrength, follow, parameter('threads')],
  help: 'Coarse jute sacking with open gaps and hairy, uneven threads.',
  params: z.object({
    threads: slider('Threads', 36, 120, 64, { step: 2, help: 'Threads along the long side.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
    lightness: slider('Lightness', 30, 70, 54, { step: 1 }),
  }),
  paint(sheet, { threads, relief, lightness }) {
    const {
      height: cloth,
      tone,
      warmth,
      fibre,
    } = weaveCloth(sheet, {
      threads: 2 * Math.round(threads / 2),
      offset: 0.11,
      width: [0.37, 0.2],
      jitter: 0.17,
      wobble: 0.2,
      slubs: 0.6,
      slubLength: 2.4,
      bow: 0.5,
      gap: -1.1,
      twist: 0.13,
      bend: 0.016,
    });
    const open = cloth.copy().step(-0.95, -0.45).scale(-1, 1);
    const hair = sheet.fibres(5200, { length: 0.02, half: 0.00028, curvature: 60 });
    const strand = sheet.white(0.0007, 0.004).add(sheet.white(0.004, 0.0007));
    const height = cloth
      .copy()
      .scale(0.0042 * (64 / threads))
      .add(hair, 0.0006)
      .add(strand, 0.00022)
      .add(fibre, 0.00025);
    return {
      lightness: tone.scale(4.5, lightness).add(strand, 1.6).add(open, -26).add(hair, 4).add(fibre, 5.5),
      a: warmth.copy().scale(0.8, 5.5),
      b: warmth.scale(1.6, 20).add(open, -8).add(hair, -2),
      height,
      elevation: 0.62,
      contrast: 0.6 * relief,
      occlusion: { k1: 0.1, k2: 0.07, amount: 0.8 },
      gain: 1.12,
    };
  },
});
