import * as z from 'zod';
import { share } from '../../schema';
import { colourFirst, grain, onlyStains, paleColour, raised } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';
import type { Sheet, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.newsprint',
  label: 'Newsprint',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.74,
  suggest: { blend: 'multiply', strength: 0.8 },
  first: [onlyStains(0.5, [0.78, 0.74, 0.7], '#3a3428', 0.7, { detail: [20, 1.4] }), paleColour(0.2), colourFirst, grain, raised(0.3, 1)],
  help: 'Cheap grey paper with flecks of wood, yellowed, the print of its other side showing through. It says nothing.',
  params: z.object({
    through: share('Showing through', 0.7, { max: 1.5, help: 'Columns of print on the other side.' }),
    yellowed: share('Yellowed', 0.5),
    flecks: share('Flecks', 1, { max: 2 }),
  }),
  paint(sheet, { through, yellowed, flecks }) {
    const print = columns(sheet).blur(0.0011);
    const patchy = sheet.noise(2.2, { octaves: 5, gain: 0.62 });
    print.times(patchy.copy().scale(0.22, 0.75).clamp(0.2, 1.2));
    const wood = sheet.fibres(Math.round(1500 * flecks), { length: 0.007, half: 0.0005, curvature: 25, value: 0.7 });
    const pulp = sheet.fibres(6500, { length: 0.012, half: 0.00032, curvature: 60, value: 0.5 });
    const cloudy = sheet.band(0.0035, 0.012);
    const age = sheet.noise(1.7, { octaves: 6, gain: 0.66 }).scale(0.3, 0.5).clamp(0, 1.6).scale(yellowed);
    const height = sheet
      .band(0.0016, 0.0048)
      .scale(0.00022)
      .add(pulp, 0.0004)
      .add(cloudy, 0.00016)
      .add(sheet.white(0.0008), 0.00015)
      .add(sheet.noise(2, { octaves: 5 }), 0.0009);
    return {
      lightness: sheet
        .noise(2.8, { octaves: 4 })
        .scale(0.7, 79)
        .add(cloudy, 0.9)
        .add(pulp, 1.1)
        .add(age, -5)
        .add(print, -8.5 * through)
        .add(wood, -9),
      a: sheet.plane(0.7).add(age, 2.2).add(wood, 2),
      b: sheet
        .noise(2.3, { octaves: 3 })
        .scale(0.5, 7)
        .add(age, 11)
        .add(wood, 5)
        .add(print, -1.5 * through),
      height,
      elevation: 0.64,
      translucency: [0.35, 0.0012],
      contrast: 0.26,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.4 },
    };
  },
});

/** Four columns of lines of print seen from behind: words of strokes that are no letters, paragraphs, a headline now and then. */
function columns(sheet: Sheet) {
  const { seed, random } = sheet;
  const list: StrokePoint[][] = [];
  const [count, pitch] = [4, 1 / 72];
  for (let column = 0; column < count; column++) {
    const left = (column + 0.06) / count;
    const right = (column + 0.94) / count;
    let rest = 0;
    for (let row = 0; row < 72; row++) {
      const base = seed * 5 + column * 101 + row;
      if (rest-- > 0) continue;
      const y = (row + 0.5) * pitch;
      // A headline takes three lines.
      const isHead = line(row * 0.37 + column * 3.1, seed + 7) > 0.72;
      if (isHead) rest = 2;
      const tall = isHead ? pitch * 0.62 : pitch * 0.21;
      const last = line(row * 0.61, base + 3) > 0.55;
      const end = last ? left + (right - left) * (0.4 + 0.4 * Math.abs(line(row * 1.7, base))) : right;
      let x = left + (last ? 0 : 0.004 * Math.abs(line(row * 2.1, base + 5)));
      while (x < end - tall) {
        const letters = 2 + random.integer(8);
        for (let k = 0; k < letters && x < end - tall * 0.5; k++) {
          const w = tall * random.between(0.55, 1.05);
          const high = random.chance(0.25) ? 1.5 : 1;
          const half = tall * 0.16;
          const at = y + (isHead ? pitch : 0);
          // An upright and a bar or bow: the grey of type, not its shapes.
          list.push([
            [x + w * 0.2, at - tall * high, half, 0.95],
            [x + w * 0.2, at + tall, half, 0.95],
          ]);
          if (random.chance(0.8))
            list.push([
              [x + w * 0.2, at - tall * random.between(-0.6, 0.9), half * 0.7, 0.8],
              [x + w * 0.8, at - tall * random.between(-0.6, 0.9), half * 0.8, 0.85],
              [x + w * 0.75, at + tall * random.between(0.2, 1), half * 0.8, 0.85],
            ]);
          x += w * 1.08;
        }
        x += tall * 0.9;
      }
    }
  }
  return sheet.strokes(list);
}
