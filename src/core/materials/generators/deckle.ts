import * as z from 'zod';
import { share, slider } from '../../schema';
import { borderDistance } from '../border';
import { otherEnd, parameter } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'edges.deckle',
  label: 'Torn deckle edge',
  family: 'edges',
  seamless: false,
  unlit: true,
  shape: 'piece',
  luma: 0.11,
  suggest: { blend: 'screen', strength: 1 },
  start: { params: { width: 0.022 } },
  first: [parameter('width'), parameter('tear'), otherEnd('Black border')],
  help: 'White paper all round with a torn, fibrous inner edge; the picture shows in the middle. For screen.',
  params: z.object({
    width: slider('Width', 0.005, 0.12, 0.03, { unit: '%', factor: 100, step: 0.001, help: 'Of the long side.' }),
    tear: share('Tear', 1, { max: 2.5, help: 'How unevenly it is torn.' }),
    fibres: share('Fibres', 1, { max: 2 }),
  }),
  paint(sheet, { width, tear, fibres }) {
    const d = borderDistance(sheet)
      .add(sheet.noise(3, { octaves: 5, gain: 0.6 }), 0.008 * tear)
      .add(sheet.noise(24, { octaves: 5, gain: 0.72 }), 0.0034 * tear)
      .add(sheet.noise(120, { octaves: 3, gain: 0.8 }), 0.0006 * tear);
    const sheet1 = d
      .copy()
      .step(width - 0.0015, width + 0.0015)
      .scale(-1, 1);
    // Where it tore the sheet is thinner, and greyer against what lies under it.
    const thin = d
      .copy()
      .step(width - 0.009, width)
      .times(sheet1);
    const near = d
      .copy()
      .scale(1, -width)
      .abs()
      .scale(-1 / 0.004)
      .exp();
    const hair = sheet
      .fibres(Math.round(9000 * fibres), { length: 0.01, half: 0.00028, curvature: 90 })
      .times(near)
      .clamp();
    const tooth = sheet.band(0.0016, 0.005);
    const white = sheet1.copy().scale(0.955).add(thin, -0.13).max(hair.scale(0.75));
    white.add(tooth.times(sheet1), 0.009).add(sheet.white(0.0009), 0.003).clamp(0.004, 0.985);
    return { lightness: white.copy(), a: white.copy().scale(0.995), b: white.scale(0.975), encoded: true };
  },
});
