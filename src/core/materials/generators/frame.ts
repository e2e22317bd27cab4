import * as z from 'zod';
import { share, slider } from '../../schema';
import { roughBorder } from '../border';
import { otherEnd, parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'edges.frame',
  label: 'Rough black frame',
  family: 'edges',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.885,
  suggest: { blend: 'multiply', strength: 1 },
  start: { params: { width: 0.02 } },
  first: [parameter('width'), parameter('rough'), otherEnd('White border')],
  help: 'The black border of a hand print, rough where the emulsion ended; clear inside. For multiply.',
  params: z.object({
    width: slider('Width', 0.005, 0.12, 0.028, { unit: '%', factor: 100, step: 0.001, help: 'Of the long side.' }),
    rough: share('Roughness', 1, { max: 2.5 }),
    bleed: share('Bleeding', 0.5, { help: 'A soft shade inside the border.' }),
  }),
  paint(sheet, { width, rough, bleed }) {
    const edge = roughBorder(sheet, width, rough);
    const soft = edge.copy().blur(0.008);
    const worn = sheet.noise(34, { octaves: 3, gain: 0.6 }).step(1, 1.9);
    const bits = sheet.spots(
      sheet.scatter(2600, soft, 7, -4.2).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0008, 0.005, 2.7),
        lobes: 1.7,
        long: random.between(1, 2),
        angle: random.between(0, 3.14),
        value: random.between(0.5, 1),
      })),
      0.35,
    );
    const ink = edge
      .copy()
      .times(worn, -0.55, 1)
      .max(bits)
      .add(soft, 0.22 * bleed)
      .clamp();
    return {
      lightness: ink.copy().scale(-93, 98.5).add(sheet.white(0.0009), 0.4).clamp(3, 99),
      a: ink.copy().scale(0.6, 0.1),
      b: ink.scale(0.8, 0.6),
    };
  },
});
