import * as z from 'zod';
import { choice, share, slider } from '../../schema';
import { amount, colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';
import type { Spot } from '../sheet';

export default defineMaterial({
  id: 'air.leak',
  label: 'Light leak at the film’s edge',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.08,
  suggest: { blend: 'screen', strength: 0.9 },
  first: [amount(0, [1, 0.7, 0.45]), colourFirst, parameter('heat')],
  help: 'Light that crept in along the film and through its sprocket holes. On black, for screen.',
  params: z.object({
    from: choice(
      'From',
      [
        { value: 'top', label: 'Top' },
        { value: 'bottom', label: 'Bottom' },
      ],
      'top',
    ),
    heat: share('Heat', 1, { min: 0.2, max: 1.6, help: 'Up to a white core.' }),
    holes: slider('Holes', 4, 14, 8, { step: 1 }),
  }),
  paint(sheet, { from, heat, holes }) {
    const { random, right, bottom } = sheet;
    const n = Math.round(holes);
    const pitch = right / n;
    const edge = from === 'top' ? 0 : bottom;
    const into = from === 'top' ? 1 : -1;
    const [start, end] = [random.between(-0.1, 0.35) * right, random.between(0.7, 1.1) * right];
    const flares: Spot[] = [];
    for (let k = -1; k <= n; k++) {
      const x = (k + 0.5) * pitch;
      const strength = x > start && x < end ? random.between(0.5, 1) : 0.18;
      flares.push({ x, y: edge + into * 0.01, r: 0.2 * pitch, long: 1.25, angle: 0, value: strength });
      flares.push({
        x: x + 0.02 * random.gauss() * pitch,
        y: edge + into * 0.055,
        r: 0.27 * pitch,
        long: 1.7,
        angle: Math.PI / 2,
        value: 0.45 * strength,
      });
    }
    // At one size for all: so bright a light shows the least difference of two drawings.
    const hot = sheet.spots(flares, 0.9).blur(0.008, { isDecided: true });
    const wide = hot.copy().blur(0.03, { isDecided: true });
    const { y, x } = sheet.coordinates();
    const depth = from === 'top' ? y : y.scale(-1, bottom);
    const along = x
      .scale(1 / (end - start), -start / (end - start))
      .step(-0.12, 0.12)
      .times(sheet.noise(2.1, { octaves: 4 }), 0.35, 0.75)
      .clamp(0, 1.6);
    const creep = depth
      .times(sheet.noise(3, { octaves: 3 }), 0.12, 1)
      .scale(-1 / 0.075)
      .exp()
      .times(along);
    const light = hot
      .scale(0.9)
      .add(wide, 1.6)
      .add(creep, 1.1)
      .scale(1.5 * heat);
    const grain = sheet.white(0.0008);
    // Film answers each colour by its own spectrum: red first, blue last.
    const channel = (power: number, gain: number) => light.copy().power(power).scale(gain).exp(-1).scale(-1, 1).power(0.75).add(grain, 0.005).clamp();
    return { lightness: channel(1.05, 1), a: channel(1.7, 0.5), b: channel(2.6, 0.26), encoded: true };
  },
});
