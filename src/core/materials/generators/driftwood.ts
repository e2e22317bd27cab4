import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, onlyGrooves, raised } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wood.driftwood',
  label: 'Driftwood',
  family: 'wood',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.6,
  suggest: { blend: 'soft-light', strength: 0.8 },
  first: [greyGrain, raised(0.25, 1), colourStrength, onlyGrooves(0.2, [0.58, 0.54, 0.46], '#2a1d12')],
  help: 'Silver wood scoured by sand and salt: raised grain along the board, long checks.',
  params: z.object({
    grain: share('Grain', 1, { max: 2 }),
    checks: slider('Checks', 0, 160, 70, { step: 5, help: 'Long cracks along the grain.' }),
    salt: share('Salt', 0.7, { help: 'White in the hollows.' }),
  }),
  paint(sheet, { grain, checks, salt }) {
    const { random } = sheet;
    const fibre = sheet.white(0.06, 0.0018).add(sheet.white(0.14, 0.0042), 1.1).add(sheet.white(0.25, 0.012), 1.1);
    const fine = sheet.white(0.018, 0.0013).add(sheet.white(0.012, 0.00055), 0.8);
    // Pores: short dark dashes along the grain.
    const pores: StrokePoint[][] = Array.from({ length: 5200 }, () => {
      const [x, y, long, value] = [random.next(), random.next(), random.logNormal(0.008, 0.6), random.between(0.2, 0.8)];
      return [
        [x, y, 0.0002, value * 0.3],
        [x + 0.0002 * random.gauss(), y + long / 2, 0.0004, value],
        [x + 0.0004 * random.gauss(), y + long, 0.0002, value * 0.3],
      ];
    });
    const pore = sheet.strokes(pores, { broken: true });
    const list: StrokePoint[][] = Array.from({ length: Math.round(checks) }, () => {
      const [x, y, long, wide] = [random.next(), random.next(), random.power(0.03, 0.5, 1.6), random.power(0.0005, 0.0028, 2)];
      let at = x;
      return Array.from({ length: 18 }, (_, s): StrokePoint => {
        at += 0.0006 * random.gauss();
        const t = s / 17;
        return [at, y + long * t, wide * Math.sin(Math.PI * Math.min(0.96, Math.max(0.04, t))), random.between(0.75, 1)];
      });
    });
    const check = sheet.strokes(list, { broken: true });
    const wave = sheet.noise(2, { octaves: 3, stretch: [1.6, 0.5] });
    const height = fibre
      .copy()
      .scale(0.00042 * grain)
      .add(fine, 0.00018 * grain)
      .add(wave, 0.0008)
      .add(pore, -0.0005)
      .add(check, -0.0042);
    const hollow = fibre
      .copy()
      .scale(-0.5, -0.4)
      .clamp(0, 1.5)
      .times(sheet.noise(3, { octaves: 5 }).scale(0.4, 0.4).clamp(0, 1.3));
    return {
      lightness: sheet
        .noise(1.8, { octaves: 4, stretch: [1.6, 0.5] })
        .scale(1.8, 64.5)
        .add(fibre, 1.7 * grain)
        .add(hollow, 7 * salt)
        .add(fine, 0.9 * grain)
        .add(pore, -8)
        .add(check, -30),
      a: sheet.plane(1).add(check, 2),
      b: sheet
        .noise(2.2, { octaves: 3, stretch: [1.8, 0.5] })
        .scale(1, 6)
        .add(hollow, -3)
        .add(check, 3),
      height,
      elevation: 0.6,
      contrast: 0.62,
      detail: { stretch: [1, 0.12] },
      occlusion: { k1: 0.12, k2: 0.05, amount: 0.7 },
    };
  },
});
