import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, follow, greyGrain, onlyGrooves, raised } from '../first';
import { defineMaterial } from '../material';
import { creases } from '../nets';

export default defineMaterial({
  id: 'skin.leather',
  label: 'Cracked leather',
  family: 'skin',
  seamless: true,
  shape: 'square',
  luma: 0.32,
  suggest: { blend: 'overlay', strength: 0.7 },
  first: [raised(0.3, 1), onlyGrooves(0.08, [0.4, 0.34, 0.26], '#160d08'), follow, colourStrength, greyGrain],
  help: 'An old chair or a keeper’s bag: grain worn smooth on the folds, dried out and cracked between them.',
  params: z.object({
    grain: slider('Grain', 0.5, 2.5, 1, { step: 0.05, help: 'Cells along the long side.' }),
    cracked: share('Cracked', 0.55),
    rubbed: share('Rubbed', 0.5, { help: 'Pale where it was sat on.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { grain, cracked, rubbed, relief }) {
    const bend = (gain: number) =>
      sheet
        .noise(2.2, { octaves: 4 })
        .scale(0.03)
        .add(sheet.noise(24, { octaves: 3 }), gain);
    const [warpX, warpY] = [bend(0.0016), bend(0.0016)];
    const small = creases(sheet, { cells: Math.round(88 * grain), angle: 0.5, stretch: 1.2, width: 0.22, sharp: 1.2 }, warpX, warpY);
    const large = creases(sheet, { cells: Math.round(15 * grain), angle: 0.9, stretch: 1.7, width: 0.085, sharp: 1.1 }, warpX, warpY);
    const [furrow, dome, fold] = [small.line, small.dome, large.line];
    const dry = sheet.noise(2.4, { octaves: 6, gain: 0.64 });
    const open = dry
      .copy()
      .scale(0.5)
      .add(fold, 1.3)
      .add(sheet.noise(17, { octaves: 4 }), 0.22)
      .add(-1.55 + 0.9 * cracked)
      .step(0, 0.7);
    const crack = fold.copy().power(2.2).times(open).clamp();
    const worn = sheet.noise(3.2, { octaves: 5, gain: 0.62 }).add(dry, 0.3).step(0.6, 2).times(dome).scale(rubbed);
    const fine = sheet.band(0.0007, 0.002);
    const height = dome
      .scale(0.0012)
      .add(furrow, -0.0011)
      .add(fold, -0.0016)
      .add(crack, -0.0034)
      .add(fine, 0.00016)
      .add(sheet.noise(3, { octaves: 4 }), 0.004);
    return {
      lightness: dry.scale(1.6, 38).add(fold, -4).add(furrow, -4).add(worn, 15).add(crack, -20).add(fine, 0.8).clamp(4, 92),
      a: sheet.noise(2.6, { octaves: 4 }).scale(0.8, 13).add(crack, -8).add(worn, -1),
      b: sheet.noise(2.2, { octaves: 4 }).scale(1, 19).add(crack, -11).add(worn, 2),
      height,
      elevation: 0.58,
      translucency: [0.2, 0.0012],
      contrast: 0.8 * relief,
      detail: { amount: 0.5 },
      occlusion: { k1: 0.08, k2: 0.05, amount: 0.7 },
      gain: 1.05,
    };
  },
});
