import * as z from 'zod';
import { share, slider } from '../../schema';
import { grain, paleColour, raised, size } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'masonry.limewash',
  label: 'Limewash',
  family: 'masonry',
  seamless: true,
  shape: 'square',
  luma: 0.78,
  suggest: { blend: 'multiply', strength: 0.7 },
  first: [grain, raised(0.2, 1), paleColour(0.2), size],
  help: 'Thin coats of lime brushed crosswise on an old wall, cloudy and soft.',
  params: z.object({
    clouds: share('Clouds', 1, { max: 2, help: 'How uneven the coats dried.' }),
    brush: share('Brush marks', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { clouds, brush, relief }) {
    // Two directions of the brush take turns over the wall.
    const turn = sheet.noise(4, { octaves: 3 }).scale(0.6, 0.5).clamp();
    const marks = () => sheet.white(0.0011, 0.02).add(sheet.white(0.004, 0.05), 0.9);
    const down = sheet.white(0.02, 0.0011).add(sheet.white(0.05, 0.004), 0.9);
    const stroke = marks().towards(down, turn);
    const cloud = sheet.noise(2.3, { octaves: 6, gain: 0.6 });
    const thin = sheet.noise(6, { octaves: 6, gain: 0.7 }).scale(0.4, -0.15).clamp(0, 1.5);
    const height = sheet
      .noise(5, { octaves: 5, gain: 0.62 })
      .scale(0.0016)
      .add(stroke, 0.00016 * brush)
      .add(sheet.band(0.001, 0.003), 0.0003)
      .add(sheet.white(0.0009), 0.0001);
    return {
      lightness: cloud
        .copy()
        .scale(2.1 * clouds, 82.5)
        .add(stroke, 0.8 * brush)
        .add(thin, -7 * clouds),
      a: sheet.plane(0.6).add(thin, 1.2),
      b: sheet.noise(1.8, { octaves: 3 }).scale(0.9, 6).add(thin, 5),
      height,
      elevation: 0.62,
      contrast: 0.4 * relief,
      occlusion: { k1: 0.08, k2: 0.05, amount: 0.6 },
    };
  },
});
