import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'metal.brushed',
  label: 'Brushed metal',
  family: 'wood',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.56,
  suggest: { blend: 'overlay', strength: 0.6 },
  first: [raised(0.15, 1), colourStrength, greyGrain, size],
  help: 'Steel drawn under an abrasive: long fine lines, a soft sheen, a few deep scratches.',
  params: z.object({
    grain: share('Grain', 1, { max: 2 }),
    scratches: slider('Scratches', 0, 200, 70, { step: 5 }),
    sheen: share('Sheen', 1, { max: 2, help: 'Broad light and dark bands.' }),
  }),
  paint(sheet, { grain, scratches, sheen }) {
    const { random } = sheet;
    // Lines of three lengths; noise is softened along the stroke, never stretched, or it turns to corduroy.
    const lines = sheet
      .white(0.0012, 0.03)
      .add(sheet.white(0.0015, 0.09), 0.9)
      .add(sheet.white(0.0026, 0.2), 0.7)
      .add(sheet.white(0.00045, 0.045), 0.8);
    const list: StrokePoint[][] = Array.from({ length: Math.round(scratches) }, () => {
      const [x, y, length] = [random.next(), random.next(), random.power(0.03, 0.5, 1.5)];
      const tilt = random.chance(0.8) ? 0.01 * random.gauss() : 0.6 * random.gauss();
      const value = random.power(0.15, 1, 1.6);
      return Array.from({ length: 8 }, (_, s): StrokePoint => {
        const u = s / 7;
        return [
          x + length * u * Math.cos(tilt),
          y + length * u * Math.sin(tilt),
          0.0004,
          value * Math.sin(Math.PI * Math.min(0.97, Math.max(0.03, u))),
        ];
      });
    });
    // And as many as nobody counts, hardly seen one by one.
    const hair: StrokePoint[][] = Array.from({ length: 2600 }, () => {
      const [x, y, length] = [random.next(), random.next(), random.power(0.01, 0.16, 1.6)];
      const tilt = 0.012 * random.gauss();
      const value = random.between(0.15, 0.7);
      const [dx, dy] = [length * Math.cos(tilt), length * Math.sin(tilt)];
      return [
        [x, y, 0.00012, value * 0.2],
        [x + dx * random.between(0.3, 0.7), y + dy / 2, random.between(0.00014, 0.0003), value],
        [x + dx, y + dy, 0.0001, value * 0.1],
      ];
    });
    const scratch = sheet.strokes([...list, ...hair], { broken: true });
    const broad = sheet.noise(1.5, { octaves: 3, stretch: [0.6, 1.6] });
    const smudge = sheet.noise(4, { octaves: 5, gain: 0.6 });
    const height = lines
      .copy()
      .scale(0.00011 * grain)
      .add(scratch, -0.0006);
    return {
      lightness: lines
        .scale(2.5 * grain, 61)
        .add(broad, 3.4 * sheen)
        .add(smudge, 0.9)
        .add(scratch, 7),
      a: sheet.plane(-0.3),
      b: sheet.noise(1.9, { octaves: 3 }).scale(0.5, -0.6),
      height,
      elevation: 0.6,
      contrast: 0.5,
      detail: { stretch: [0.05, 1] },
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.4 },
    };
  },
});
