import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, parameter, raised } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.postcard',
  label: 'Linen postcard',
  family: 'paper',
  seamless: true,
  fine: true,
  shape: 'square',
  luma: 0.88,
  suggest: { blend: 'multiply', strength: 0.8 },
  first: [raised(0.3, 1.2), colourStrength, parameter('emboss'), parameter('aged')],
  help: 'Old card embossed with the weave of linen, which prints broke up on.',
  params: z.object({
    emboss: slider('Embossing', 0.3, 2, 1, { step: 0.05 }),
    aged: share('Aged', 0.5),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { emboss, aged, relief }) {
    // Rollers press threads both ways into the card; they are never quite even.
    const across = sheet.white(0.0011, 0.05).add(sheet.white(0.0014, 0.16), 0.7);
    const down = sheet.white(0.05, 0.0011).add(sheet.white(0.16, 0.0014), 0.7);
    const press = sheet.noise(2.2, { octaves: 4 }).scale(0.16, 0.95).clamp(0.4, 1.5);
    const weave = across.add(down).times(press);
    const stain = sheet.noise(2.6, { octaves: 7, gain: 0.68 }).step(0.2, 2.4);
    const fleck = sheet.fibres(1300, { half: 0.00035 });
    const height = weave
      .copy()
      .scale(0.00026 * emboss)
      .add(fleck, 0.0002)
      .add(sheet.band(0.0009, 0.0028), 0.00008);
    return {
      lightness: sheet
        .noise(2, { octaves: 4 })
        .scale(0.5, 91)
        .add(weave, 0.7)
        .add(stain, -7 * aged)
        .add(fleck, -1.2)
        .clamp(20, 99),
      a: stain.copy().scale(2.6 * aged, 0.8),
      b: stain.scale(7 * aged, 7.5),
      height,
      elevation: 0.62,
      translucency: [0.25, 0.001],
      contrast: 0.5 * relief,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.5 },
    };
  },
});
