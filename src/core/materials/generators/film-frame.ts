import * as z from 'zod';
import { share, slider } from '../../schema';
import { otherEnd, parameter } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'edges.film',
  label: 'Film frame',
  family: 'edges',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.79,
  suggest: { blend: 'multiply', strength: 1 },
  first: [parameter('band'), parameter('holes'), otherEnd('White film')],
  help: 'A frame of film with its sprocket holes above and below; clear inside. For multiply.',
  params: z.object({
    band: slider('Band', 0.05, 0.16, 0.095, { unit: '%', factor: 100, step: 0.005, help: 'How wide the film is above and below, of the long side.' }),
    holes: slider('Holes', 6, 14, 8, { step: 1 }),
    worn: share('Worn', 0.5, { help: 'Scratches and rubbed edges.' }),
  }),
  paint(sheet, { band, holes, worn }) {
    const { random, right, bottom } = sheet;
    const { x, y } = sheet.coordinates();
    const side = 0.022;
    const rough = sheet.noise(40, { octaves: 4, gain: 0.6 });
    const clear = x
      .copy()
      .add(-side)
      .min(x.copy().scale(-1, right - side))
      .min(y.copy().add(-band))
      .min(y.copy().scale(-1, bottom - band))
      .add(rough, 0.0006 * worn);
    const film = clear.step(0.0011, -0.0011);
    const pitch = right / Math.round(holes);
    const [wide, high, round] = [0.17 * pitch, Math.min(0.26 * pitch, 0.3 * band), 0.05 * pitch];
    // A hole with round corners: strokes side by side.
    const hole = (cx: number, cy: number): StrokePoint[][] =>
      Array.from({ length: 7 }, (_, i) => {
        const at = cy + ((i - 3) / 3) * (high - round);
        return [
          [cx - wide + round, at, round, 1],
          [cx + wide - round, at, round, 1],
        ];
      });
    const all = Array.from({ length: Math.round(holes) }, (_, i) => [
      hole((i + 0.5) * pitch, 0.52 * band),
      hole((i + 0.5) * pitch, bottom - 0.52 * band),
    ]).flat(2);
    const punched = sheet.strokes(all);
    const rim = punched.copy().blur(0.0022);
    const lines: StrokePoint[][] = Array.from({ length: Math.round(70 * worn) }, () => {
      const at = random.chance(0.5) ? random.between(0, band) : bottom - random.between(0, band);
      const from = random.between(-0.1, right);
      const value = random.power(0.1, 0.8, 1.5);
      return Array.from({ length: 6 }, (_, s): StrokePoint => [
        from + 0.07 * s * random.between(0.7, 1.3),
        at + 0.0004 * random.gauss(),
        0.00035,
        value * Math.sin(Math.PI * Math.min(0.95, Math.max(0.05, s / 5))),
      ]);
    });
    const scratch = sheet.strokes(lines, { broken: true });
    const ink = film
      .times(punched, -1, 1)
      .times(scratch, -0.6, 1)
      .times(sheet.noise(3, { octaves: 5 }).scale(0.02, 0.975).clamp(0, 1))
      .add(rim.times(punched, -1, 1), -0.05)
      .clamp();
    return {
      lightness: ink.copy().scale(-91, 98).add(sheet.white(0.0009), 0.35).clamp(4, 99),
      a: ink.copy().scale(1.4, 0.1),
      b: ink.scale(1.2, 0.6),
    };
  },
});
