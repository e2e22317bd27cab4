import * as z from 'zod';
import { share } from '../../schema';
import { borderDistance } from '../border';
import { amount, colourFirst, otherEnd, parameter } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wear.wet-plate',
  label: 'Wet plate',
  family: 'wear',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.11,
  marks: 'lights',
  suggest: { blend: 'screen', strength: 0.75 },
  first: [amount(0.06, [0.9, 0.7, 0.5]), otherEnd('Dark instead'), parameter('flow'), colourFirst],
  help: 'Collodion poured by hand: lines of its flow, a bare corner where the plate was held, comets of dust, silver at the rims. On black, for screen.',
  params: z.object({
    flow: share('Flow lines', 0.7, { max: 1.5 }),
    rims: share('Rims', 0.8, { max: 1.5, help: 'Bare and silvery edges.' }),
    comets: share('Comets and pits', 0.7, { max: 1.5 }),
  }),
  paint(sheet, { flow, rims, comets }) {
    const { random, seed } = sheet;
    const [right, bottom] = [sheet.right, sheet.bottom];
    // The film was drained over one corner: its lines run there side by side, and drag where it thickened.
    const list: StrokePoint[][] = Array.from({ length: 90 }, (_, i) => {
      const t0 = random.between(-0.4, 1.3);
      const half = random.power(0.0006, 0.012, 2.1);
      const strength = random.power(0.06, 0.55, 1.6);
      return Array.from({ length: 33 }, (__, s): StrokePoint => {
        const t = s / 32;
        const sway = 0.012 * line(t * 2.2 + t0 * 3, seed + 1) + 0.003 * line(t * 9, seed + i);
        return [
          right * (t0 + 0.45 * t) + sway,
          bottom * (-0.05 + 1.1 * t),
          half * (1 + 0.4 * line(t * 5, seed + 3 * i)),
          strength * Math.max(0, 0.5 + 0.8 * line(t * 3.3, seed + 7 * i)),
        ];
      });
    });
    const streams = sheet.strokes(list).blur(0.0022);
    const ridges = sheet
      .strokes(list.filter((_, i) => i % 4 === 0).map((path) => path.map(([x, y, , v]): StrokePoint => [x, y, 0.0007, v * 1.4])))
      .blur(0.0003);
    const wander = sheet.noise(4, { octaves: 6, gain: 0.66 });
    const d = borderDistance(sheet)
      .add(wander, 0.007)
      .add(sheet.noise(18, { octaves: 5, gain: 0.7 }), 0.0028);
    const bare = d.copy().step(0.003, 0.012).scale(-1, 1);
    const silver = d
      .copy()
      .clamp(0, 1)
      .scale(-1 / 0.035)
      .exp()
      .times(sheet.noise(7, { octaves: 6, gain: 0.7 }).scale(0.4, 0.55).clamp(0, 1.5));
    const ridge = d
      .add(-0.014)
      .abs()
      .scale(-1 / 0.0022)
      .exp();
    const spots: Spot[] = [];
    const tails: StrokePoint[][] = [];
    for (let k = 0; k < Math.round(240 * comets); k++) {
      const [x, y, r] = [random.between(0, right), random.between(0, bottom), random.power(0.0006, 0.005, 2.7)];
      const value = random.between(0.35, 1);
      spots.push({ x, y, r, lobes: 1, value });
      if (random.chance(0.35)) {
        const long = r * random.between(6, 22);
        tails.push(
          [0, 1, 2, 3].map((s): StrokePoint => [x + (0.41 * long * s) / 3, y + (long * s) / 3, r * (0.9 - 0.25 * s), value * (0.7 - 0.2 * s)]),
        );
      }
    }
    const comet = sheet.spots(spots, 0.3).max(sheet.strokes(tails).blur(0.0006));
    const pit = sheet.spots(
      sheet
        .scatter(Math.round(9000 * comets), wander, 0.6, -0.9)
        .map(({ x, y, random: own }) => ({ x, y, r: own.power(0.0003, 0.0016, 3), lobes: 1.2, value: own.between(0.2, 0.9) })),
      0.3,
    );
    const fog = sheet.noise(1.5, { octaves: 5, gain: 0.6 }).scale(0.05, 0.06).clamp(0, 0.3);
    const light = streams
      .scale(0.34 * flow)
      .add(ridges, 0.26 * flow)
      .add(silver, 0.42 * rims)
      .add(ridge, 0.22 * rims)
      .add(bare, 0.75 * rims)
      .add(comet, 0.75)
      .add(pit, 0.5)
      .add(fog)
      .add(sheet.white(0.0008), 0.006)
      .clamp();
    return { lightness: light.copy(), a: light.copy().scale(0.965), b: light.scale(0.9), encoded: true };
  },
});
