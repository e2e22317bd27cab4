import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { layRibbons, type Ribbon } from '../ribbons';

export default defineMaterial({
  id: 'living.leaves',
  label: 'Fallen leaves',
  family: 'living',
  seamless: true,
  shape: 'square',
  luma: 0.38,
  suggest: { blend: 'soft-light', strength: 0.7 },
  start: { steps: [tone(0.3, 0, -0.3)] },
  first: [raised(0.3, 1.5), colourStrength, greyGrain, parameter('size')],
  help: 'Leaves as they lie in autumn, layer on layer, with their veins.',
  params: z.object({
    size: slider('Size', 0.5, 1.6, 1, { step: 0.05 }),
    green: share('Still green', 0.25),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { size, green, relief }) {
    const { random } = sheet;
    const leaves: Ribbon[] = [];
    for (let i = 0, n = Math.round(380 / size ** 2); i < n; i++) {
      // Large ones first, so that no ground shows.
      const length = size * random.logNormal(i < n / 4 ? 0.2 : 0.12, 0.25);
      leaves.push({
        x: random.next(),
        y: random.next(),
        angle: random.between(0, 2 * Math.PI),
        turn: 0.4 * random.gauss(),
        length,
        width: length * random.between(0.36, 0.56),
        height: 0.0042 * random.logNormal(1, 0.3),
        keep: 0.3,
        bristles: random.between(7, 12),
        tone: random.gauss(),
        warmth: random.chance(green) ? -1.1 + 0.35 * random.gauss() : 0.6 + 0.55 * random.gauss(),
        streak: 0.75,
        leaf: true,
      });
    }
    const { height, tone, warmth } = layRibbons(sheet, leaves);
    const mottle = sheet.noise(13, { octaves: 5, gain: 0.7 });
    height.add(sheet.noise(9, { octaves: 4 }), 0.0009).add(sheet.noise(90, { octaves: 2, gain: 0.8 }), 0.0001);
    const spots = sheet.spots(
      sheet
        .scatter(2600, mottle, 0.9, -1)
        .map(({ x, y, random: r }) => ({ x, y, r: r.power(0.0006, 0.004, 2.5), lobes: 1.3, value: r.between(0.3, 1) })),
      0.5,
    );
    return {
      lightness: sheet.plane(41).add(tone, 6.5).add(mottle, 2.2).add(spots, -12).clamp(4, 92),
      a: sheet.plane(7).add(warmth, 10).add(mottle, 1.2).add(spots, -3),
      b: sheet.plane(26).add(warmth, 2.5).add(tone, 3).add(spots, -9),
      height,
      elevation: 0.64,
      contrast: 0.42 * relief,
      occlusion: { k1: 0.07, k2: 0.05, s2: 0.011, amount: 0.85 },
      shadow: { low: 0.5, reach: 0.011 },
      gain: 1.12,
    };
  },
});
