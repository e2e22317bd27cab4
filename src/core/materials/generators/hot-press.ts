import * as z from 'zod';
import { slider } from '../../schema';
import { detail, grain, paleColour, raised, size } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.hot-press',
  label: 'Hot-press paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.94,
  suggest: { blend: 'multiply', strength: 1 },
  start: { params: { relief: 2 }, steps: [detail(2, 1)] },
  first: [grain, raised(0.9, 1), paleColour(), size],
  help: 'Smooth drawing paper: hardly a tooth, fine fibres in the sheet.',
  params: z.object({
    relief: slider('Tooth', 0, 2, 1, { step: 0.05, help: 'How rough the sheet is.' }),
    warmth: slider('Warmth', -1, 2, 1, { step: 0.05, help: 'From bluish white to cream.' }),
  }),
  paint(sheet, { relief, warmth }) {
    const fibres = sheet.fibres(4200, { half: 0.00035 });
    const height = sheet
      .band(0.0016, 0.005)
      .scale(0.0002)
      .add(fibres, 0.00028)
      .add(sheet.noise(9, { octaves: 4 }), 0.0003)
      .add(sheet.white(0.0008), 0.00009);
    return {
      lightness: sheet.noise(2.4, { octaves: 4 }).scale(0.35, 95.3).add(fibres, 0.7),
      a: sheet.plane(0.2 + 0.1 * warmth),
      b: sheet.noise(2.9, { octaves: 3 }).scale(0.22, 3.4 * warmth),
      height,
      azimuth: -2.3,
      elevation: 0.62,
      translucency: [0.4, 0.0012],
      contrast: 0.16 * relief,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.4 },
    };
  },
});
