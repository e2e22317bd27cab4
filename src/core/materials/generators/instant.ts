import * as z from 'zod';
import { share, slider } from '../../schema';
import { parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'edges.instant',
  label: 'Instant-print border',
  family: 'edges',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.26,
  suggest: { blend: 'screen', strength: 1 },
  first: [parameter('width'), parameter('foot'), parameter('used')],
  help: 'The white border of a print that develops in the hand, with a broad foot; black inside. For screen.',
  params: z.object({
    width: slider('Width', 0.015, 0.09, 0.04, { unit: '%', factor: 100, step: 0.005, help: 'Of the long side.' }),
    foot: slider('Foot', 0.03, 0.3, 0.16, { unit: '%', factor: 100, step: 0.005, help: 'The lower border, of the long side.' }),
    used: share('Handled', 0.5, { help: 'Greyed rims and prints of thumbs.' }),
  }),
  paint(sheet, { width, foot, used }) {
    const { x, y } = sheet.coordinates();
    const wobble = sheet.noise(60, { octaves: 4 });
    const inside = x
      .copy()
      .add(-width)
      .min(x.copy().scale(-1, sheet.right - width))
      .min(y.copy().add(-width))
      .min(y.copy().scale(-1, sheet.bottom - foot))
      .add(wobble, 0.00018);
    const border = inside.copy().step(0.0002, -0.0002);
    // The window is cut into the card: its edge is in shade.
    const shade = inside
      .copy()
      .abs()
      .scale(-1 / 0.0022)
      .exp();
    const outer = x
      .copy()
      .min(x.copy().scale(-1, sheet.right))
      .min(y.copy())
      .min(y.copy().scale(-1, sheet.bottom))
      .scale(-1 / 0.012)
      .exp();
    const grime = sheet.noise(3, { octaves: 6, gain: 0.66 }).step(0.2, 2.6);
    const worn = sheet.noise(22, { octaves: 5, gain: 0.7 }).scale(0.4, 0.7).clamp(0, 1.3);
    const paper = sheet
      .noise(2.4, { octaves: 4 })
      .scale(0.5, 93)
      .add(sheet.white(0.0012), 0.35)
      .add(shade, -9)
      .add(outer.times(worn), -16 * used)
      .add(grime, -4.5 * used);
    return {
      lightness: paper.times(border).clamp(0, 99),
      a: sheet.plane(0.2).times(border),
      b: grime.scale(2.5 * used, 2.2).times(border),
    };
  },
});
