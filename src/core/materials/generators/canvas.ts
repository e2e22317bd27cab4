import * as z from 'zod';
import { slider } from '../../schema';
import { grain, paleColour, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import { weaveCloth } from '../weave';

export default defineMaterial({
  id: 'cloth.canvas',
  label: 'Artist’s canvas',
  family: 'cloth',
  seamless: true,
  shape: 'square',
  fine: true,
  luma: 0.93,
  suggest: { blend: 'multiply', strength: 0.9 },
  first: [grain, raised(0.25, 1), paleColour(), parameter('threads')],
  help: 'A primed plain weave with slubs; the ground fills it unevenly.',
  params: z.object({
    threads: slider('Threads', 48, 160, 96, { step: 2, help: 'Threads along the long side.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05, help: 'How strongly the weave stands out.' }),
    ground: slider('Ground', 0, 1, 0.28, { step: 0.02, help: 'How far the priming fills the weave.' }),
  }),
  paint(sheet, { threads, relief, ground }) {
    const { height: cloth, fibre } = weaveCloth(sheet, {
      threads: 2 * Math.round(threads / 2),
      offset: 0.07,
      width: [0.47, 0.09],
      jitter: 0.11,
      wobble: 0.063,
      slubs: 0.28,
      slubLength: 3.5,
      bow: 0.42,
      gap: -0.9,
      twist: 0.045,
      bend: 0.01,
    });
    const height = cloth.copy();
    const filled = sheet.noise(7, { octaves: 4 }).scale(0.17, ground).clamp();
    height.towards(cloth.copy().blur(0.0022), filled);
    const swell = sheet.noise(18, { octaves: 3 });
    height.times(swell, 0.12, 1).scale((0.003 * 96) / threads);
    height.add(sheet.white(0.0006), 0.00024).add(sheet.fibres(1500), 0.0004);
    return {
      lightness: sheet
        .noise(2.2, { octaves: 4 })
        .scale(0.5, 91.4)
        .add(cloth, 2.6)
        .add(fibre.times(filled, -0.8, 1), 1.8),
      a: sheet.plane(0.5),
      b: sheet.noise(2.6, { octaves: 4 }).scale(0.3, 5.6),
      height,
      elevation: 0.68,
      translucency: [0.4, 0.001],
      contrast: 0.33 * relief,
      occlusion: { k1: 0.1, k2: 0.06, amount: 0.65 },
      gain: 1.1,
    };
  },
});
