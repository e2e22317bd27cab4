import * as z from 'zod';
import { slider } from '../../schema';
import { detail, grain, paleColour, parameter, raised } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.cold-press',
  label: 'Cold-press paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.93,
  suggest: { blend: 'multiply', strength: 0.85 },
  start: { steps: [detail(1.5, 1)] },
  first: [grain, raised(0.6, 1), paleColour(), parameter('grain')],
  help: 'A felt-marked watercolour sheet: rounded hills and narrow valleys over fine fibre.',
  params: z.object({
    tooth: slider('Tooth', 0, 2, 1, { step: 0.05, help: 'How deep the felt marks are.' }),
    grain: slider('Grain size', 0.5, 2, 1, { step: 0.05, help: 'Size of the hills.' }),
    warmth: slider('Warmth', -1, 2, 0, { step: 0.05, help: 'Cooler or creamier stock.' }),
  }),
  paint(sheet, { tooth, grain, warmth }) {
    // Hills: 1.25 − .95·ln(1 + e^(.2 − 1.5·c)) rounds the tops and narrows the valleys of a band-pass field.
    const hills = sheet
      .band(0.0021 * grain, 0.0046 * grain)
      .scale(0.55)
      .add(sheet.band(0.0042 * grain, 0.0105 * grain), 0.9);
    hills.scale(-1.5, 0.2).exp().scale(1, 1).ln().scale(-0.95, 1.25);
    const patches = sheet.noise(14, { octaves: 3 });
    const height = hills.times(patches, 0.22, 1).scale(0.00115);
    height.add(sheet.fibres(5200), 0.0006).add(sheet.white(0.001), 0.00013);
    const lightness = sheet.noise(2.2).scale(0.45, 95.2).add(sheet.noise(3.1), 0.2);
    return {
      lightness,
      a: sheet.noise(1.9).scale(0.08, 0.3 + 0.3 * warmth),
      b: sheet.noise(2.4).scale(0.28, 4.2 + 3 * warmth),
      height,
      azimuth: -2.3,
      elevation: 0.62,
      translucency: [0.4, 0.0012],
      contrast: 0.19 * tooth,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.45 * Math.min(1.5, tooth) },
    };
  },
});
