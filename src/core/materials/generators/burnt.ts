import * as z from 'zod';
import { share, slider } from '../../schema';
import { borderDistance } from '../border';
import { colourFirst, parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'paper.burnt',
  label: 'Burnt edge',
  family: 'paper',
  seamless: false,
  shape: 'piece',
  luma: 0.55,
  suggest: { blend: 'multiply', strength: 1 },
  start: { params: { reach: 0.022, scorch: 0.8 } },
  first: [parameter('reach'), parameter('ragged'), parameter('scorch'), colourFirst],
  help: 'A pale sheet burnt away all round: scorched brown, then charred, then gone to black.',
  params: z.object({
    reach: slider('How far it burnt', 0.01, 0.2, 0.06, { unit: '%', factor: 100, step: 0.005, help: 'Of the long side.' }),
    ragged: share('Ragged', 1, { max: 2 }),
    scorch: share('Scorch', 1, { max: 2, help: 'How far the brown reaches in.' }),
  }),
  paint(sheet, { reach, ragged, scorch }) {
    const d = borderDistance(sheet)
      .add(sheet.noise(2.1, { octaves: 4 }), 0.022 * ragged)
      .add(sheet.noise(8, { octaves: 6, gain: 0.68 }), 0.013 * ragged)
      .add(sheet.noise(60, { octaves: 4, gain: 0.75 }), 0.0022 * ragged)
      .add(-reach);
    const gone = d.copy().step(-0.0012, 0.0012).scale(-1, 1);
    const deep = d.copy().clamp(0, 2);
    const char = deep.copy().exp(-1 / (0.006 * (0.5 + 0.5 * scorch)));
    const brown = deep
      .copy()
      .add(sheet.noise(14, { octaves: 5, gain: 0.7 }), 0.006)
      .clamp(0, 2)
      .exp(-1 / (0.03 * scorch + 0.004));
    const warm = deep.exp(-1 / (0.13 * scorch + 0.01));
    const tooth = sheet.band(0.0018, 0.005);
    // The rim blisters and curls up.
    const height = tooth
      .copy()
      .scale(0.0002)
      .add(sheet.fibres(2600), 0.0004)
      .add(char.copy().times(sheet.noise(34, { octaves: 4 })), 0.0016)
      .add(char, 0.002)
      .add(gone, -0.004);
    const dirt = sheet.noise(3, { octaves: 6, gain: 0.66 }).scale(0.4, 0.3).clamp(0, 2);
    return {
      lightness: sheet
        .noise(2.4, { octaves: 4 })
        .scale(0.6, 92)
        .add(dirt, -2.5)
        .add(warm, -9)
        .add(brown, -46)
        .add(char, -44)
        .clamp(5, 99)
        .towards(sheet.plane(2), gone),
      a: sheet.plane(0.9).add(warm, 3).add(brown, 10).add(char, -8).clamp(-2, 20).towards(sheet.plane(0), gone),
      b: sheet.noise(2.2, { octaves: 3 }).scale(0.5, 8).add(warm, 7).add(brown, 12).add(char, -17).clamp(0, 40).towards(sheet.plane(0), gone),
      height,
      elevation: 0.64,
      translucency: [0.3, 0.0012],
      contrast: 0.3,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.5 },
    };
  },
});
