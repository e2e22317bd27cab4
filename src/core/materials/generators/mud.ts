import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, follow, onlyGrooves, raised, size, tone } from '../first';
import type { Field } from '../field';
import { defineMaterial } from '../material';
import { lines } from '../nets';

export default defineMaterial({
  id: 'cracks.mud',
  label: 'Dried mud',
  family: 'cracks',
  seamless: true,
  shape: 'square',
  luma: 0.48,
  marks: 'darks',
  suggest: { blend: 'multiply', strength: 0.65 },
  start: { params: { width: 0.7 }, steps: [tone(0.45, 0, -0.3)], guardAmounts: { skin: 0.6 } },
  first: [onlyGrooves(0.14, [0.46, 0.42, 0.3], '#3a2314', 'Only the cracks', 0.9, false), colourFirst, raised(0.5, 1.5), follow, size],
  help: 'A dried pool: plates with curled rims, parted by wide gaps. For multiply, or remapped to its gaps alone.',
  params: z.object({
    width: share('Gaps', 1, { min: 0.3, max: 2, help: 'How far the plates have shrunk.' }),
    curl: share('Curled rims', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { width, curl, relief }) {
    // Edges crumble at every scale, so that close up they are as ragged as from afar.
    const [crumbled, other] = [0, 1].map(() => sheet.noise(13, { octaves: 8, gain: 0.62 }));
    const [warpX, warpY] = [crumbled, other].map((fine) => sheet.noise(2.6, { octaves: 3, gain: 0.45 }).scale(0.017).add(fine, 0.0021));
    const cracks = (cells: number, angle: number, ragged: Field) => {
      const { first, second } = lines(sheet, cells, angle, 1, warpX, warpY);
      return second.add(first, -1).add(ragged, 0.018);
    };
    const uneven = sheet.noise(3.2, { octaves: 4 });
    const plates = cracks(7.3, 0.5, crumbled);
    // Younger cracks part a plate here and there, narrower, and end in it.
    const parts = cracks(15.7, 1.1, other).add(uneven.copy().scale(-0.12, 0.06).clamp(0, 1));
    const hairs = cracks(37, 0.2, crumbled).add(sheet.noise(5, { octaves: 4 }).scale(-0.2, 0.06).clamp(0, 1));
    const opened = (border: Field, half: number) =>
      border
        .copy()
        .add(uneven, -0.22 * half)
        .scale(-1 / (0.55 * half), 1.8)
        .clamp();
    const gap = opened(plates, 0.085 * width);
    const cut = opened(parts, 0.075 * width).max(opened(hairs, 0.055 * width).scale(0.55));
    const open = gap.copy().max(cut.copy().scale(0.9));
    const near = (border: Field, reach: number) =>
      border
        .copy()
        .scale(-1 / reach)
        .clamp(-8, 0)
        .exp();
    // A plate curls up towards its rim as its skin dries first.
    const rim = near(plates, 0.16).add(near(parts, 0.2), 0.35);
    const silt = sheet.noise(6, { octaves: 6, gain: 0.6 });
    const crust = sheet.noise(44, { octaves: 6, gain: 0.74 });
    const pits = sheet.spots(
      sheet.scatter(2600, uneven, 0.6, -0.4).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0005, 0.0034, 2.4),
        lobes: 0.7,
        value: random.between(0.25, 0.9),
      })),
      0.5,
    );
    const crumbs = sheet.spots(
      sheet
        .scatter(5200, open, 4, -4)
        .map(({ x, y, random }) => ({ x, y, r: random.power(0.0006, 0.004, 2.2), lobes: 1.1, value: random.between(0.3, 1) })),
      0.5,
    );
    const top = open.copy().scale(-1, 1);
    const height = rim
      .copy()
      .scale(0.0052 * curl)
      .add(silt, 0.0011)
      .add(crust, 0.00022)
      .add(pits, -0.0006)
      .times(top)
      .add(gap, -0.0125)
      .add(cut, -0.0046)
      .add(crumbs.copy().times(open), 0.0035);
    const dark = open.copy().add(crumbs, -0.3).clamp();
    return {
      lightness: sheet
        .noise(2.3, { octaves: 5 })
        .scale(1.8, 61)
        .add(silt, 1.3)
        .add(crust, 0.7)
        .add(rim, 2.6)
        .add(pits, -2)
        .add(dark, -37)
        .clamp(4, 96),
      a: sheet.noise(2.8, { octaves: 3 }).scale(0.5, 4).add(silt, 0.25).add(dark, 1.2),
      b: sheet.noise(2, { octaves: 3 }).scale(0.9, 13.5).add(rim, -1.2).add(dark, -4),
      height,
      elevation: 0.6,
      contrast: 0.62 * relief,
      occlusion: { k1: 0.075, k2: 0.05, amount: 0.7 },
      shadow: { low: 0.55, reach: 0.012 },
      gain: 1.08,
    };
  },
});
