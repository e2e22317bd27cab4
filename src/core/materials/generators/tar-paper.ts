import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, parameter, raised } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.tar',
  label: 'Tar paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.3,
  suggest: { blend: 'soft-light', strength: 0.7 },
  first: [raised(0.3, 1.2), colourFirst, parameter('grit'), parameter('worn')],
  help: 'Roofing felt with mineral grit in black tar, worn bare in places.',
  params: z.object({
    grit: share('Grit', 1, { max: 2 }),
    worn: share('Worn', 0.5, { help: 'Where the grit has gone.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { grit, worn, relief }) {
    const wander = sheet.noise(2.3, { octaves: 6, gain: 0.66 });
    const bare = sheet
      .noise(6, { octaves: 7, gain: 0.72 })
      .add(wander, 0.8)
      .step(2.4 - 2 * worn, 3.2 - 2 * worn);
    const grains = (tries: number) =>
      sheet
        .spots(
          sheet.scatter(Math.round(tries * grit), wander, -0.5, -0.5).map(({ x, y, random }) => ({
            x,
            y,
            r: random.power(0.0009, 0.003, 1.6),
            lobes: 1.5,
            long: random.between(1, 1.6),
            angle: random.between(0, 3.14),
            value: random.between(0.35, 1),
          })),
          0.6,
        )
        .times(bare, -0.9, 1);
    const [pale, dark] = [grains(17000), grains(12000)];
    const wave = sheet.noise(3.1, { octaves: 3, stretch: [0.5, 1.5] });
    const height = sheet
      .noise(30, { octaves: 5, gain: 0.72 })
      .scale(0.00016)
      .add(pale, 0.0009)
      .add(dark, 0.0007)
      .add(bare, -0.0004)
      .add(wave, 0.0012)
      .add(sheet.white(0.0009), 0.0001);
    return {
      lightness: wander.copy().scale(1.4, 30).add(pale, 17).add(dark, -8).add(bare, -5).clamp(5, 80),
      a: sheet.noise(3, { octaves: 3 }).scale(0.3, 0.4),
      b: sheet.noise(2.6, { octaves: 4 }).scale(0.7, 2.6).add(pale, 1.5).add(bare, -1),
      height,
      elevation: 0.6,
      contrast: 0.6 * relief,
      occlusion: { k1: 0.1, k2: 0.05, amount: 0.75 },
      gain: 1.1,
    };
  },
});
