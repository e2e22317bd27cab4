import * as z from 'zod';
import { share, slider } from '../../schema';
import { amount, colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';
import type { Spot } from '../sheet';

export default defineMaterial({
  id: 'air.lights',
  label: 'Out-of-focus lights',
  family: 'air',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.09,
  suggest: { blend: 'screen', strength: 0.7 },
  start: { guardAmounts: { skin: 1, hair: 0.9, subject: 0.9 } },
  first: [amount(0, [1, 0.8, 0.5]), colourFirst, parameter('count'), parameter('size')],
  help: 'Harbour lamps far behind the plane of focus: discs with a slightly brighter rim. On black, for screen.',
  params: z.object({
    count: slider('Lights', 5, 160, 60, { step: 1 }),
    size: slider('Size', 0.3, 2.5, 1, { step: 0.05 }),
    warmth: share('Warmth', 0.7, { min: -1, max: 1 }),
  }),
  paint(sheet, { count, size, warmth }) {
    const { random } = sheet;
    const [right, bottom] = [sheet.right, sheet.bottom];
    const kinds = [0, 1, 2].map(() => [] as Spot[]);
    for (let k = 0; k < Math.round(count); k++) {
      const y = bottom * Math.min(1, Math.max(0, 0.5 + 0.24 * random.gauss()));
      kinds[random.integer(3)].push({
        x: random.between(-0.03, right + 0.03),
        y,
        r: size * random.logNormal(0.022, 0.42),
        value: random.power(0.2, 1, 1.1),
        lobes: 0.12,
        long: random.between(1, 1.06),
        angle: random.between(0, 3.14),
      });
    }
    const out = [sheet.plane(), sheet.plane(), sheet.plane()];
    const tints = [
      [1, 0.78 - 0.16 * warmth, 0.52 - 0.34 * warmth],
      [1, 0.9, 0.78 - 0.3 * warmth],
      [0.82 + 0.15 * warmth, 0.92, 1 - 0.25 * warmth],
    ];
    kinds.forEach((list, k) => {
      const disc = sheet.spots(list, 0.1);
      const rim = disc.copy().add(disc.copy().blur(0.0035), -0.9).clamp(0, 1);
      const dust = sheet.noise(60, { octaves: 3 }).scale(0.045, 0.8).clamp(0, 1);
      const lamp = disc.times(dust).add(rim, 0.4);
      const glow = lamp.copy().blur(0.012);
      lamp.add(glow, 0.3);
      out.forEach((channel, c) => channel.add(lamp, tints[k][c]));
    });
    const veil = sheet.noise(1.3, { octaves: 3 }).scale(0.012, 0.03).clamp(0, 1);
    const grain = sheet.white(0.0008);
    out.forEach((channel) => channel.add(veil).add(grain, 0.005).clamp());
    return { lightness: out[0], a: out[1], b: out[2], encoded: true };
  },
});
