import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'brush.wax',
  label: 'Encaustic wax',
  family: 'brush',
  seamless: true,
  shape: 'square',
  luma: 0.68,
  suggest: { blend: 'soft-light', strength: 0.8 },
  first: [raised(0.35, 1.4), follow, colourFirst, parameter('scraped')],
  help: 'Layers of melted wax, fused smooth, dripped on and scraped back.',
  params: z.object({
    drips: share('Drips', 0.5),
    scraped: share('Scraped', 0.5, { help: 'Lines of the tool, and layers laid bare.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { drips, scraped, relief }) {
    const { random } = sheet;
    const pools = sheet.noise(4.5, { octaves: 3, gain: 0.45 }).step(-0.7, 0.7);
    const second = sheet.noise(7.5, { octaves: 3, gain: 0.45 }).step(-0.2, 0.5);
    const runs: StrokePoint[][] = Array.from({ length: Math.round(70 * drips) }, () => {
      let x = random.next();
      const [y, long, half] = [random.next(), random.power(0.02, 0.22, 1.5), random.logNormal(0.004, 0.35)];
      return Array.from({ length: 9 }, (_, s): StrokePoint => {
        x += 0.0012 * random.gauss();
        return [x, y + (long * s) / 8, half * (0.6 + 0.55 * (s / 8) ** 3), 1];
      });
    });
    const drop = sheet.strokes(runs).blur(0.0016);
    const lines: StrokePoint[][] = Array.from({ length: Math.round(90 * scraped) }, () => {
      const [x, y, angle, long] = [random.next(), random.next(), 0.5 + 0.5 * random.gauss(), random.power(0.02, 0.3, 1.4)];
      const value = random.between(0.2, 1);
      return Array.from({ length: 7 }, (_, s): StrokePoint => [
        x + ((long * s) / 6) * Math.cos(angle),
        y + ((long * s) / 6) * Math.sin(angle) + 0.0006 * random.gauss(),
        0.0007,
        value * Math.sin(Math.PI * Math.min(0.96, Math.max(0.04, s / 6))),
      ]);
    });
    const line = sheet.strokes(lines, { broken: true });
    const bare = sheet
      .noise(5, { octaves: 6, gain: 0.66 })
      .add(sheet.noise(40, { octaves: 3, stretch: [0.3, 1.4] }), 0.35)
      .step(2.1 - 1.3 * scraped, 2.6 - 1.2 * scraped);
    const pit = sheet.spots(
      sheet.scatter(1500, pools, -1, -0.4).map(({ x, y, random: own }) => ({ x, y, r: own.power(0.0007, 0.003, 2.4), value: own.between(0.4, 1) })),
      0.5,
    );
    const swell = sheet.noise(11, { octaves: 3, gain: 0.5 });
    const height = pools
      .copy()
      .scale(0.0018)
      .add(second, 0.0012)
      .add(drop, 0.0034)
      .add(swell, 0.0005)
      .blur(0.0012)
      .add(line, -0.0011)
      .add(bare, -0.0008)
      .add(pit, -0.0009)
      .add(sheet.band(0.001, 0.003), 0.00005);
    const milk = sheet.noise(2.4, { octaves: 5 });
    return {
      lightness: milk.copy().scale(1.6, 68).add(pools, 3).add(second, 2.5).add(drop, 3).add(bare, -15).add(line, -6).add(pit, -6).clamp(10, 96),
      a: milk.copy().scale(0.6, 1.6).add(bare, 4),
      b: milk.scale(1.2, 11).add(pools, -2).add(drop, 2).add(bare, 6),
      height,
      elevation: 0.6,
      translucency: [0.5, 0.0022],
      contrast: 0.5 * relief,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.5 },
      gain: 1.04,
    };
  },
});
