import * as z from 'zod';
import { share, slider } from '../../schema';
import { crackStrokes, growCracks } from '../cracks';
import { colourFirst, follow, onlyGrooves, raised, size, tone } from '../first';
import { defineMaterial } from '../material';

const TURN = 2 * Math.PI;

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
  help: 'A dried pool: wide gaps, plates with curled rims. For multiply, or remapped to its gaps alone.',
  params: z.object({
    width: share('Gaps', 1, { min: 0.3, max: 2, help: 'How far the plates have shrunk.' }),
    curl: share('Curled rims', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { width, curl, relief }) {
    const net = growCracks({
      seed: sheet.seed + 5,
      primary: 26,
      spacing: 0.15,
      generations: 3,
      ratio: 0.6,
      tries: 1500,
      jag: 0.028,
      back: 0.02,
      breaking: 0.1,
      rough: 1.5,
      // Repeats over the sheet, as the net does.
      direction: (x, y) => 0.8 + 0.7 * Math.sin(TURN * (x + y) + sheet.seed) + 0.4 * Math.cos(TURN * (2 * y - x)),
      density: (x, y) => 0.9 + 0.15 * Math.sin(TURN * (2 * x + y) + sheet.seed),
    });
    const gap = sheet
      .strokes(
        crackStrokes(
          net,
          [3.6, 3, 2.1, 1.3].map((v) => v * width),
          [1, 0.95, 0.85, 0.7],
          sheet.seed,
          () => 1,
        ),
        { broken: true },
      )
      .blur(0.0006);
    const d = gap.distance(0.3, 0.08);
    const rim = d
      .copy()
      .scale(-1 / 0.007)
      .exp();
    const inner = d.scale(-1 / 0.03).exp();
    const silt = sheet.noise(5, { octaves: 6, gain: 0.66 });
    const height = rim
      .copy()
      .scale(0.0022 * curl)
      .add(inner, 0.0012 * curl)
      .add(gap, -0.009)
      .add(silt, 0.0009)
      .add(sheet.noise(40, { octaves: 4, gain: 0.8 }), 0.00028)
      .add(sheet.band(0.0009, 0.0025), 0.00022);
    return {
      lightness: sheet.noise(2.3, { octaves: 5 }).scale(1.6, 58.5).add(silt, 1).add(rim, 4).add(gap, -34),
      a: sheet.noise(2.8, { octaves: 3 }).scale(0.5, 4).add(gap, 1),
      b: sheet.noise(2, { octaves: 3 }).scale(0.9, 13.5).add(rim, -1.5).add(gap, -3),
      height,
      elevation: 0.6,
      contrast: 0.7 * relief,
      occlusion: { k1: 0.09, k2: 0.05, amount: 0.75 },
      shadow: { low: 0.6, reach: 0.01 },
      gain: 1.08,
    };
  },
});
