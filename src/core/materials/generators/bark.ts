import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, onlyGrooves, raised, size } from '../first';
import { defineMaterial } from '../material';
import { creases } from '../nets';

export default defineMaterial({
  id: 'wood.bark',
  label: 'Tree bark',
  family: 'wood',
  seamless: true,
  shape: 'square',
  luma: 0.35,
  suggest: { blend: 'soft-light', strength: 0.8 },
  first: [raised(0.25, 2), onlyGrooves(0.08, [0.42, 0.36, 0.28], '#1a120c'), colourStrength, greyGrain, size],
  help: 'Plates of an old pine: deep furrows down the trunk, flakes on the plates, a little green on one side.',
  params: z.object({
    plates: slider('Plates', 3, 16, 7, { step: 1 }),
    flakes: share('Flakes', 1, { max: 2 }),
    moss: share('Green', 0.4),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { plates, flakes, moss, relief }) {
    const bend = (across: number) =>
      sheet
        .noise(3, { octaves: 5, gain: 0.6 })
        .scale(across)
        .add(sheet.noise(22, { octaves: 4, gain: 0.7 }), across * 0.12);
    const [warpX, warpY] = [bend(0.035), bend(0.02)];
    const large = creases(sheet, { cells: plates, angle: 0, stretch: 2.6, width: 0.2, sharp: 1.3 }, warpX, warpY);
    const small = creases(sheet, { cells: plates * 4, angle: 0.2, stretch: 2, width: 0.08, sharp: 1.2 }, warpX, warpY);
    const furrow = large.line;
    const plate = large.border.step(0.02, 0.42);
    const flake = small.border.step(0.02, 0.16).times(sheet.noise(6, { octaves: 4 }).scale(0.35, 0.7).clamp(0, 1.3));
    const lip = small.line.times(plate);
    const fibre = sheet.white(0.012, 0.0011).add(sheet.white(0.012, 0.003), -0.6);
    const rough = sheet.noise(28, { octaves: 6, gain: 0.8 });
    const height = plate
      .copy()
      .scale(0.017)
      .add(flake, 0.0026 * flakes)
      .add(lip, -0.0012 * flakes)
      .add(fibre, 0.0005)
      .add(rough, 0.0008)
      .add(sheet.band(0.0008, 0.002), 0.0003);
    const green = sheet.noise(2.2, { octaves: 7, gain: 0.7 }).add(plate, 0.5).step(0.5, 2.2).scale(moss);
    const grey = sheet.noise(2.6, { octaves: 5 }).scale(0.3, 0.5).clamp();
    return {
      lightness: sheet
        .noise(4, { octaves: 5, gain: 0.62 })
        .scale(2, 34)
        .add(plate, 12)
        .add(furrow, -10)
        .add(flake, 4 * flakes)
        .add(lip, -4 * flakes)
        .add(fibre, 1.4)
        .add(rough, 1.6)
        .add(green, 3)
        .clamp(4, 90),
      a: grey.copy().scale(-5, 9).add(furrow, 2).add(green, -12),
      b: grey.scale(-8, 16).add(furrow, 1).add(green, 9),
      height,
      elevation: 0.55,
      contrast: 0.56 * relief,
      detail: { amount: 0.55 },
      occlusion: { k1: 0.09, k2: 0.06, s2: 0.013, amount: 0.9 },
      shadow: { low: 0.5, reach: 0.014 },
      gain: 1.1,
    };
  },
});
