import * as z from 'zod';
import { share, slider } from '../../schema';
import { crackStrokes, growCracks } from '../cracks';
import { colourFirst, follow, onlyGrooves, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';

const TURN = 2 * Math.PI;

export default defineMaterial({
  id: 'cracks.glaze',
  label: 'Shattered glaze',
  family: 'cracks',
  seamless: true,
  shape: 'square',
  luma: 0.82,
  suggest: { blend: 'multiply', strength: 0.9 },
  start: { scale: 1.5, steps: [tone(0.12, 0.5, -0.2)], guardAmounts: { skin: 0.6 } },
  first: [onlyGrooves(0.48, [0.84, 0.83, 0.79], '#3a2314', 'Only the cracks', 1, false), colourFirst, raised(0.5, 1.5), follow, parameter('spacing')],
  help: 'Old glazed ware: a tight net of hairlines stained by tea, with a few that run right across.',
  params: z.object({
    spacing: slider('Spacing', 0.5, 2, 1, { step: 0.05 }),
    stain: share('Stain', 1, { max: 2, help: 'How far brown has crept into them.' }),
    gloss: share('Unevenness', 1, { max: 2 }),
  }),
  paint(sheet, { spacing, stain, gloss }) {
    const net = growCracks({
      seed: sheet.seed + 9,
      primary: 34,
      spacing: 0.12 * spacing,
      generations: 3,
      ratio: 0.6,
      tries: 2000,
      jag: 0.014,
      back: 0.04,
      breaking: 0.05,
      rough: 0.7,
      // Repeats over the sheet, as the net does.
      direction: (x, y) => 1.1 + 0.9 * Math.sin(TURN * (x - y) + sheet.seed) + 0.5 * Math.cos(TURN * (2 * x + y)),
      density: (x, y) => 0.95 + 0.25 * Math.sin(TURN * (x + 2 * y) + 2 * sheet.seed),
    });
    const uneven = sheet.noise(3, { octaves: 4 });
    const crack = sheet.strokes(
      crackStrokes(net, [0.75, 0.55, 0.45, 0.36], [0.95, 0.8, 0.65, 0.5], sheet.seed, (x, y) =>
        Math.exp(0.25 * sheet.at(uneven, x - Math.floor(x), y - Math.floor(y))),
      ),
      { broken: true },
    );
    const crept = crack.copy().blur(0.003).scale(1.5).times(uneven, 0.35, 0.7).clamp(0, 1.2);
    const height = sheet
      .noise(4, { octaves: 3 })
      .scale(0.0012 * gloss)
      .add(sheet.noise(18, { octaves: 3, gain: 0.5 }), 0.0002 * gloss)
      .add(crack, -0.0007);
    return {
      lightness: uneven
        .copy()
        .scale(0.9, 86)
        .add(crept, -7 * stain)
        .add(crack, -34),
      a: sheet
        .plane(-1.6)
        .add(crept, 3.5 * stain)
        .add(crack, 4),
      b: sheet
        .noise(2.2, { octaves: 3 })
        .scale(0.7, 5)
        .add(crept, 9 * stain)
        .add(crack, 5),
      height,
      elevation: 0.7,
      translucency: [0.4, 0.0015],
      contrast: 0.4,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.4 },
    };
  },
});
