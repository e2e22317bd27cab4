import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import type { Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.wallpaper',
  label: 'Faded wallpaper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.77,
  suggest: { blend: 'multiply', strength: 0.7 },
  first: [raised(0.25, 1), colourStrength, parameter('pattern'), parameter('faded')],
  help: 'Sprigs printed on yellowed wallpaper that the sun has bleached in patches.',
  params: z.object({
    sprigs: slider('Sprigs', 3, 12, 6, { step: 1, help: 'Across the long side.' }),
    pattern: share('Pattern', 0.7, { help: 'How clear the print is.' }),
    faded: share('Faded', 0.6),
  }),
  paint(sheet, { sprigs, pattern, faded }) {
    const { random } = sheet;
    const n = Math.round(sprigs);
    const pitch = 1 / n;
    const stems: StrokePoint[][] = [];
    const leaves: Spot[] = [];
    const petals: Spot[] = [];
    for (let row = 0; row < n; row++)
      for (let k = 0; k < n; k++)
        for (const half of [0, 0.5]) {
          // Every other sprig half a repeat further down, and the other way round.
          const flip = half === 0 ? 1 : -1;
          const at = (u: number, v: number): [number, number] => [(k + half + 0.5 + flip * u) * pitch, (row + half + 0.5 + v) * pitch];
          const bend = (t: number) => 0.09 * Math.sin(3.1 * t) - 0.03;
          stems.push(Array.from({ length: 10 }, (_, i): StrokePoint => [...at(bend(i / 9), 0.24 - 0.42 * (i / 9)), 0.008 * pitch, 0.9]));
          for (const [t, side] of [
            [0.2, 1],
            [0.36, -1],
            [0.52, 1],
            [0.68, -1],
          ])
            leaves.push({
              ...placed(at(bend(t) + 0.07 * side, 0.21 - 0.42 * t)),
              r: 0.024 * pitch,
              long: 2.4,
              angle: flip * (side > 0 ? -0.6 : 0.6 + Math.PI),
              value: 0.85,
            });
          for (let p = 0; p < 6; p++) {
            const a = (p / 6) * 2 * Math.PI + 0.2;
            petals.push({
              ...placed(at(bend(1) + 0.045 * Math.cos(a), -0.19 + 0.045 * Math.sin(a))),
              r: 0.026 * pitch,
              long: 1.35,
              angle: flip > 0 ? a : Math.PI - a,
              value: random.between(0.8, 1),
            });
          }
        }
    const press = sheet.band(0.0012, 0.004).scale(0.16, 0.86).clamp(0, 1);
    const bleached = sheet
      .noise(1.9, { octaves: 6, gain: 0.62 })
      .step(-1.2, 1.4)
      .scale(-0.75 * faded, 1);
    const print = (list: Spot[]) => sheet.spots(list, 0.12).times(press).times(bleached);
    const green = print(leaves).max(sheet.strokes(stems).times(press).times(bleached));
    const red = print(petals);
    const stain = sheet.noise(2.3, { octaves: 7, gain: 0.68 }).step(0.3, 2.4);
    const seams = sheet.strokes([
      [
        [0.5, -0.02, 0.0007, 1],
        [0.5, 1.02, 0.0007, 1],
      ],
    ]);
    const height = sheet
      .noise(26, { octaves: 4 })
      .scale(0.00008)
      .add(sheet.band(0.001, 0.003), 0.00014)
      .add(sheet.fibres(1400), 0.00024)
      .add(seams, -0.0006)
      .add(green.copy().max(red), 0.00012);
    return {
      lightness: bleached
        .copy()
        .scale(-6, 86)
        .add(stain, -9)
        .add(green, -26 * pattern)
        .add(red, -24 * pattern)
        .add(seams.copy().blur(0.001), -12)
        .clamp(15, 98),
      a: stain
        .copy()
        .scale(3, 2.2)
        .add(green, -11 * pattern)
        .add(red, 22 * pattern),
      b: stain
        .scale(8, 15)
        .add(green, 4 * pattern)
        .add(red, 3 * pattern),
      height,
      elevation: 0.65,
      contrast: 0.32,
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.4 },
    };
  },
});

const placed = ([x, y]: [number, number]) => ({ x, y });
