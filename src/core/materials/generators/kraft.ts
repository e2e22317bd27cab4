import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, grain, raised, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.kraft',
  label: 'Kraft paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.56,
  suggest: { blend: 'soft-light', strength: 0.8 },
  start: { steps: [tone(0, 0, -0.3)] },
  first: [grain, colourStrength, raised(0.6, 1)],
  help: 'Brown wrapping paper with light and dark fibres; mid tone, for overlay and multiply.',
  params: z.object({
    fibres: share('Fibres', 1, { max: 2 }),
    specks: share('Specks', 1, { max: 2, help: 'Bits of bark.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { fibres, specks, relief }) {
    const light = sheet.fibres(Math.round(5200 * fibres), { length: 0.022, curvature: 28 });
    const dark = sheet.fibres(Math.round(2600 * fibres), { length: 0.016, curvature: 55, half: 0.0003 });
    const bark = sheet.spots(
      sheet.scatter(Math.round(1400 * specks), sheet.noise(3, { octaves: 3 }), 0.9, -0.8).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0004, 0.003, 2.8),
        lobes: 1.4,
        long: random.between(1, 2.6),
        angle: random.between(0, 3.14),
        value: random.between(0.3, 1),
      })),
      0.4,
    );
    // The calender left faint bands along the roll.
    const roll = sheet.white(0.02, 0.0018).add(sheet.white(0.05, 0.004), 0.8);
    const height = light
      .copy()
      .scale(0.0006)
      .add(dark, 0.0004)
      .add(sheet.band(0.0018, 0.006), 0.0003)
      .add(sheet.white(0.0009), 0.00016)
      .add(roll, 0.00008);
    return {
      lightness: sheet.noise(2.2, { octaves: 5 }).scale(0.9, 59.5).add(roll, 0.55).add(light, 4.5).add(dark, -6).add(bark, -16),
      a: sheet.noise(2.7, { octaves: 3 }).scale(0.4, 8.5).add(bark, 2),
      b: sheet.noise(1.9, { octaves: 3 }).scale(0.7, 22).add(light, -2).add(bark, -4),
      height,
      elevation: 0.6,
      contrast: 0.2 * relief,
      occlusion: { k1: 0.06, k2: 0.04, amount: 0.5 },
    };
  },
});
