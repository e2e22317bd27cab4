import * as z from 'zod';
import { share, slider } from '../../schema';
import type { Field } from '../field';
import { colourStrength, followPhoto, raised, size, tone } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'brush.marbled',
  label: 'Marbled oil',
  family: 'brush',
  seamless: true,
  shape: 'square',
  luma: 0.51,
  suggest: { blend: 'soft-light', strength: 0.6 },
  start: { steps: [tone(0, -0.2, -0.3)] },
  first: [raised(0.5, 3), followPhoto, size, colourStrength],
  help: 'Oil colours floated on water and drawn about: bands that crowd and fray.',
  params: z.object({
    bands: slider('Bands', 4, 20, 11, { step: 1 }),
    contrast: share('Contrast', 1, { max: 2 }),
    fray: share('Fraying', 1, { max: 2 }),
  }),
  paint(sheet, { bands, contrast, fray }) {
    const { random } = sheet;
    const flow = sheet
      .noise(1.5, { octaves: 5, gain: 0.46 })
      .add(sheet.noise(4.2, { octaves: 6, gain: 0.55, stretch: [0.6, 1.6] }), 0.26)
      .add(sheet.noise(26, { octaves: 3 }), 0.012 * fray)
      .add(sheet.noise(110, { octaves: 4, gain: 0.7 }), 0.0035 * fray);
    const count = Math.round(bands);
    const out: [Field, Field, Field] = [sheet.plane(58), sheet.plane(2), sheet.plane(6)];
    const inks = [
      [-30, -2, -14],
      [26, 0, 2],
      [-12, 14, 16],
      [12, -3, 20],
    ];
    for (let k = 0; k < count; k++) {
      const level = -1.9 + (3.8 * (k + 0.5 + 0.25 * random.gauss())) / count;
      const wide = (2 / count) * random.logNormal(1, 0.5);
      // Colours do not mix: most meet in a crisp line, some bleed.
      const soft = random.power(0.003, 0.05, 2);
      const band = flow
        .copy()
        .step(level - wide / 2 - soft, level - wide / 2 + soft)
        .add(flow.copy().step(level + wide / 2 - soft, level + wide / 2 + soft), -1);
      const ink = inks[random.integer(inks.length)];
      out.forEach((plane, c) => plane.add(band, ink[c] * contrast));
    }
    const [lightness, a, b] = out;
    // Gall throws the colour back from drops, which the drawing about pulls long.
    const drops = sheet.spots(
      sheet.scatter(Math.round(1500 * fray), flow, 0.5, -0.4).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0005, 0.005, 2.4),
        lobes: 0.5,
        long: random.between(1, 2.6),
        angle: random.between(0, 3.14),
        value: random.between(0.4, 1),
      })),
      0.25,
    );
    // Pigment settles in grains, and the weave of the paper shows through.
    const grains = sheet.band(0.0004, 0.0014);
    const fibres = sheet.fibres(4000, { length: 0.009 });
    for (const [plane, paper] of [
      [lightness, 84],
      [a, 1.5],
      [b, 7],
    ] as const)
      plane.towards(sheet.plane(paper), drops);
    lightness.add(grains, 1.3).add(fibres, 1.8);
    const height = lightness.copy().scale(-0.00002).add(flow, 0.0012).add(sheet.band(0.0014, 0.004), 0.00012).add(fibres, 0.00012);
    return {
      lightness: lightness.clamp(6, 96),
      a,
      b,
      height,
      elevation: 0.66,
      contrast: 0.35,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.3 },
      detail: { amount: 1.4 },
    };
  },
});
