import * as z from 'zod';
import { share } from '../../schema';
import { borderDistance } from '../border';
import { colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'edges.worn',
  label: 'Worn frame',
  family: 'edges',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.08,
  suggest: { blend: 'screen', strength: 0.7 },
  first: [parameter('reach'), parameter('scuffs'), colourFirst],
  help: 'A print rubbed pale from its borders inwards, scuffed at the corners, clear in the middle. On black, for screen.',
  params: z.object({
    reach: share('Reach', 0.5, { help: 'How far in the wear goes.' }),
    scuffs: share('Scuffs', 1, { max: 2 }),
    corners: share('Corners', 1, { max: 2 }),
  }),
  paint(sheet, { reach, scuffs, corners }) {
    const { random } = sheet;
    const { x, y } = sheet.coordinates();
    const half = (f: typeof x, end: number) => f.scale(2 / end, -1).abs();
    const [u, v] = [half(x, sheet.right), half(y, sheet.bottom)];
    const corner = u.times(v).step(0.55, 1.02);
    const d = borderDistance(sheet)
      .add(sheet.noise(2.4, { octaves: 4 }), 0.016)
      .add(sheet.noise(16, { octaves: 5, gain: 0.66 }), 0.008);
    const wide = 0.03 + 0.12 * reach;
    const rub = d
      .copy()
      .clamp(0, 1)
      .scale(-1 / (wide * 0.5))
      .exp()
      .add(corner, 0.55 * corners);
    const patchy = sheet.noise(9, { octaves: 6, gain: 0.7 }).scale(0.5, 0.35).clamp(0, 1.6);
    const strokes: StrokePoint[][] = sheet.scatter(Math.round(5200 * scuffs), rub, 5, -4.4).map(({ x: px, y: py, random: own }) => {
      const [a, long] = [own.between(0, 6.3), own.power(0.002, 0.03, 2)];
      return [0, 1, 2].map((i): StrokePoint => [
        px + (Math.cos(a) * long * i) / 2,
        py + (Math.sin(a) * long * i) / 2,
        own.power(0.0003, 0.0014, 2),
        i === 1 ? own.between(0.3, 1) : 0.1,
      ]);
    });
    const scuff = sheet.strokes(strokes);
    const bare = d.step(0.001 + 0.002 * random.next(), 0.009).scale(-1, 1);
    const light = rub.times(patchy).scale(0.55).add(scuff, 0.5).max(bare.scale(0.85)).scale(0.94, 0.012).add(sheet.white(0.0009), 0.004).clamp();
    return { lightness: light.copy(), a: light.copy().scale(0.98), b: light.scale(0.93), encoded: true };
  },
});
