import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, followPhoto, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';
import { line, smooth } from '../random';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'brush.dry',
  label: 'Dry brush',
  family: 'brush',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.52,
  marks: 'lights',
  suggest: { blend: 'soft-light', strength: 0.8 },
  start: { steps: [tone(0, 0, -0.5)] },
  first: [raised(0.3, 1.5), followPhoto, parameter('width'), colourStrength],
  help: 'Broad strokes of a brush that runs out of paint, every bristle seen; for overlay and soft light.',
  params: z.object({
    strokes: slider('Strokes', 20, 260, 120, { step: 5 }),
    width: share('Width', 1, { min: 0.3, max: 2 }),
    angle: slider('Angle', -90, 90, -18, { unit: '°', step: 1 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { strokes, width, angle, relief }) {
    const { random } = sheet;
    const layers = [0, 1, 2].map(() => [] as StrokePoint[][]);
    for (let k = 0; k < Math.round(strokes); k++) {
      const wide = width * random.logNormal(0.055, 0.35);
      const length = random.logNormal(0.3, 0.4);
      const [x, y] = [random.next(), random.next()];
      const turn = (angle * Math.PI) / 180 + 0.28 * random.gauss();
      const bend = 0.5 * random.gauss();
      const dry = random.between(0.45, 1.25);
      const lines = Math.max(8, Math.round(wide / 0.0026));
      for (let q = 0; q < lines; q++) {
        const e = (q / (lines - 1)) * 2 - 1;
        const load = 0.75 + 0.5 * line(q * 0.8, sheet.seed + k * 31) + 0.25 * line(q * 0.23, sheet.seed + k * 31 + 9);
        const points: StrokePoint[] = [];
        let [px, py, a] = [x, y, turn];
        for (let s = 0; s <= 16; s++) {
          const t = s / 16;
          const left = smooth(0, 0.06, t) * Math.max(0, load - dry * t ** 1.6 * (0.7 + 0.5 * e * e));
          // Bristles wander, come together and part again.
          const off =
            e * wide * 0.5 + 0.0022 * line(5 * t + q * 0.45, sheet.seed + k * 31 + 3) + 0.0009 * line(13 * t + q * 3.1, sheet.seed + k * 31 + 5);
          const half = 0.00095 * (1 + 0.45 * line(9 * t + q * 7.7, sheet.seed + k * 31 + 7));
          points.push([px - Math.sin(a) * off, py + Math.cos(a) * off, Math.max(0.0003, half), Math.min(1, left)]);
          a += (bend * length) / 16;
          px += (Math.cos(a) * length) / 16;
          py += (Math.sin(a) * length) / 16;
        }
        layers[k % 3].push(points);
      }
    }
    const [under, dark, light] = layers.map((list) => sheet.strokes(list, { broken: true }));
    const ground = sheet.noise(2.2, { octaves: 5, gain: 0.6 });
    const tooth = sheet.band(0.0018, 0.005);
    // Thin paint catches only the high places of the ground.
    for (const paint of [under, dark, light]) paint.times(tooth, 0.13, 0.92).clamp(0, 1.1);
    const height = under.copy().max(dark).max(light).scale(0.0015).add(tooth, 0.0002).add(sheet.white(0.0008), 0.0001);
    return {
      lightness: ground.copy().scale(1.3, 58).add(under, -12).add(dark, -24).add(light, 21).clamp(3, 98),
      a: sheet.plane(0.4).add(dark, 0.6),
      b: sheet.noise(2.5, { octaves: 3 }).scale(0.7, 4).add(dark, -2).add(light, 2),
      height,
      elevation: 0.6,
      contrast: 0.34 * relief,
      occlusion: { k1: 0.08, k2: 0.04, amount: 0.6 },
    };
  },
});
