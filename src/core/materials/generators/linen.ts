import * as z from 'zod';
import { slider } from '../../schema';
import { colourStrength, follow, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { weaveCloth } from '../weave';

export default defineMaterial({
  id: 'cloth.linen',
  label: 'Raw linen',
  family: 'cloth',
  seamless: true,
  shape: 'square',
  fine: true,
  luma: 0.55,
  suggest: { blend: 'overlay', strength: 0.6 },
  start: { steps: [tone(0, 0.2, -0.5)] },
  first: [raised(0.25, 1), colourStrength, follow, parameter('threads')],
  help: 'Unprimed flax: uneven threads, many slubs, brown and grey by the thread.',
  params: z.object({
    threads: slider('Threads', 96, 240, 178, { step: 2, help: 'Threads along the long side.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05, help: 'How strongly the weave stands out.' }),
    lightness: slider('Lightness', 30, 80, 57, { step: 1, help: 'Mid grey suits overlay; darker suits screen.' }),
  }),
  paint(sheet, { threads, relief, lightness }) {
    const {
      height: cloth,
      tone,
      warmth,
      fibre,
    } = weaveCloth(sheet, {
      threads: 2 * Math.round(threads / 2),
      offset: 0.1,
      width: [0.46, 0.24],
      jitter: 0.16,
      wobble: 0.16,
      slubs: 0.75,
      slubLength: 3.5,
      bow: 0.62,
      gap: -1,
      twist: 0.09,
      bend: 0.014,
    });
    const open = cloth
      .copy()
      .clamp(-1, -0.55)
      .scale(-1 / 0.45, -0.55 / 0.45);
    const height = cloth.blur(0.0006).scale((0.0026 * 0.0056 * 178) / 0.0078 / threads);
    height.add(sheet.fibres(5000, { length: 0.01, curvature: 70 }), 0.0003);
    return {
      lightness: sheet
        .noise(3, { octaves: 4 })
        .scale(0.8, lightness + 2)
        .add(tone, 3.4)
        .add(open, -14)
        .add(fibre, 3.2),
      a: sheet.plane(1.4).add(warmth, 0.3),
      b: sheet.noise(2.6, { octaves: 4 }).scale(0.4, 9).add(warmth, 1.5),
      height,
      translucency: [0.25, 0.0008],
      contrast: 0.55 * relief,
      occlusion: { k1: 0.1, k2: 0.05, amount: 0.75 },
      gain: 1.16,
    };
  },
});
