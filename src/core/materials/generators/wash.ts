import * as z from 'zod';
import { share, slider } from '../../schema';
import { followPhoto, grain, paleColour, parameter, size, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'brush.wash',
  label: 'Wash blooms',
  family: 'brush',
  seamless: true,
  shape: 'square',
  luma: 0.78,
  suggest: { blend: 'multiply', strength: 0.6 },
  start: { steps: [tone(0.15, 0.1, 0.1)] },
  first: [parameter('rims'), followPhoto, size, paleColour(), grain],
  help: 'Thin washes let dry one into the other: pale pools with dark feathered rims on paper.',
  params: z.object({
    washes: slider('Washes', 1, 7, 4, { step: 1 }),
    rims: share('Rims', 1, { max: 2 }),
    colour: share('Colour', 0.6, { max: 1.5 }),
  }),
  paint(sheet, { washes, rims, colour }) {
    const { random } = sheet;
    const tooth = sheet.band(0.002, 0.007);
    const depth = sheet.plane();
    const hue = sheet.plane();
    for (let k = 0; k < Math.round(washes); k++) {
      const pool = sheet
        .noise(1.3 + 0.5 * k, { octaves: 3, gain: 0.5 })
        .add(sheet.noise(7, { octaves: 6, gain: 0.68 }), 0.13)
        .add(tooth, 0.012);
      const level = random.between(-0.35, 0.6);
      const inside = pool.copy().step(level - 0.02, level + 0.035);
      // Pigment is carried to the front and left there; behind it the wash is even.
      const front = pool
        .copy()
        .scale(1, -level)
        .clamp(0, 9)
        .scale(-1 / 0.09)
        .exp()
        .times(inside);
      const thin = pool.scale(0.16, 0.5).clamp(0.2, 1).times(inside);
      const gain = random.between(0.5, 1);
      depth.add(thin, 0.55 * gain).add(front, 0.5 * rims * gain);
      hue.add(inside, random.between(-0.5, 0.9));
    }
    depth.times(tooth, 0.09, 0.92);
    const height = tooth.copy().scale(0.00026).add(sheet.fibres(2400), 0.00035).add(sheet.white(0.0009), 0.0001);
    return {
      lightness: depth.copy().scale(-30, 95).clamp(12, 97),
      a: depth.copy().times(hue, 5 * colour, -1.6 * colour),
      b: depth
        .copy()
        .times(hue, 12 * colour, -20 * colour)
        .add(sheet.plane(3)),
      height,
      elevation: 0.62,
      translucency: [0.4, 0.0012],
      contrast: 0.22,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.4 },
    };
  },
});
