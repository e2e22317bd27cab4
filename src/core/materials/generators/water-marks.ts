import * as z from 'zod';
import { share, slider } from '../../schema';
import type { Field } from '../field';
import { colourFirst, grain, onlyStains, paleColour } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'wear.water-marks',
  label: 'Water marks',
  family: 'wear',
  seamless: true,
  shape: 'square',
  luma: 0.88,
  suggest: { blend: 'multiply', strength: 0.9 },
  first: [onlyStains(0.62, [0.88, 0.86, 0.82], '#6a4a2a', 0.7), paleColour(), colourFirst, grain],
  help: 'Tide lines where water crept through a sheet and dried: thin dark fronts, one inside another.',
  params: z.object({
    fronts: slider('Tide lines', 1, 6, 4, { step: 1 }),
    strength: share('Strength', 1, { max: 2 }),
    colour: share('Colour', 1, { max: 2, help: 'From grey to tea.' }),
  }),
  paint(sheet, { fronts, strength, colour }) {
    const rim = sheet.plane();
    const body = sheet.plane();
    const broken = sheet.noise(5, { octaves: 4 }).scale(0.45, 0.6).clamp(0, 1.5);
    const fine = sheet.noise(60, { octaves: 3 });
    for (let k = 0; k < fronts; k++) {
      // The edge of a puddle is a level line of slow noise, roughened as paper roughens it.
      const z: Field = sheet
        .noise(1.4 + 0.5 * (k % 3), { octaves: 6, gain: 0.52 })
        .add(sheet.noise(22, { octaves: 4, gain: 0.66 }), 0.035)
        .add(fine, 0.01)
        .add(-0.55 - 0.25 * (k % 2));
      const inside = z.copy().step(-0.012, 0.02);
      const depth = z.clamp(0, 3);
      const sharp = depth
        .copy()
        .exp(-1 / 0.03)
        .scale(0.75);
      sharp
        .add(depth.copy().exp(-1 / 0.14), 0.4)
        .times(inside)
        .times(broken);
      rim.max(sharp);
      body.add(
        depth
          .exp(-1 / 0.5)
          .scale(0.7, 0.3)
          .times(inside),
        1 / fronts,
      );
    }
    const drops = sheet.noise(3, { octaves: 3 });
    const ring = sheet.spots(
      sheet
        .scatter(90, drops, 1, -1)
        .map(({ x, y, random }) => ({ x, y, r: random.power(0.004, 0.03, 2), lobes: 1.2, value: random.between(0.3, 0.9) })),
      0.12,
    );
    const hollow = ring.copy().blur(0.0035);
    ring.add(hollow, -0.85).clamp();
    const height = sheet
      .band(0.0018, 0.005)
      .scale(0.0002)
      .add(sheet.fibres(2400), 0.0004)
      .add(sheet.noise(6, { octaves: 4 }), 0.0009)
      .add(rim, 0.0002);
    return {
      lightness: sheet
        .noise(2.4, { octaves: 4 })
        .scale(0.5, 92)
        .add(body, -9 * strength)
        .add(rim, -22 * strength)
        .add(ring, -11 * strength),
      a: sheet
        .plane(0.5)
        .add(body, 0.9 * colour)
        .add(rim, 4 * colour)
        .add(ring, 2 * colour),
      b: sheet
        .plane(4.5)
        .add(body, 5 * colour)
        .add(rim, 11 * colour)
        .add(ring, 6 * colour),
      height,
      elevation: 0.64,
      translucency: [0.4, 0.0012],
      contrast: 0.24,
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.4 },
    };
  },
});
