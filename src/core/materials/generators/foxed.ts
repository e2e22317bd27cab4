import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, grain, onlyStains, paleColour, raised } from '../first';
import { defineMaterial } from '../material';
import type { Spot } from '../sheet';

export default defineMaterial({
  id: 'paper.foxed',
  label: 'Foxed paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.84,
  suggest: { blend: 'multiply', strength: 0.85 },
  first: [onlyStains(0.68, [0.85, 0.83, 0.8], '#7a4a22', 0.9), paleColour(0.12), colourFirst, grain, raised(0.4, 1)],
  help: 'An old book page: cream, with rusty spots in clusters and faint damp.',
  params: z.object({
    foxing: share('Foxing', 1, { max: 2.5, help: 'Rusty spots in clusters.' }),
    damp: share('Damp', 1, { max: 2 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { foxing, damp: wet, relief }) {
    const { random } = sheet;
    const large: Spot[] = [];
    const small: Spot[] = [];
    for (let k = 0; k < Math.round(24 * foxing); k++) {
      const [cx, cy, spread] = [random.next(), random.next(), random.power(0.02, 0.14, 1.4)];
      for (let i = 0, n = 6 + random.integer(30); i < n; i++) {
        const spot = {
          x: cx + spread * random.gauss(),
          y: cy + spread * random.gauss(),
          lobes: 1.1,
          long: random.between(1, 1.3),
          value: random.between(0.15, 1),
        };
        large.push({ ...spot, r: random.power(0.0012, 0.011, 2.3) });
        if (random.chance(0.5)) small.push({ ...spot, r: random.power(0.0005, 0.002, 2) });
      }
    }
    const halo = sheet.spots(large, 0.9).blur(0.0035);
    const core = sheet.spots(small, 0.5).blur(0.0006);
    const damp = sheet.noise(1.9, { octaves: 6, gain: 0.66 }).scale(0.35, 0.28).clamp(0, 2).power(1.8);
    const fibre = sheet.fibres(2800);
    const height = sheet
      .band(0.0019, 0.0055)
      .scale(0.0003)
      .add(fibre, 0.00042)
      .add(sheet.white(0.0009), 0.00013)
      .add(sheet.noise(4, { octaves: 4 }), 0.0006);
    return {
      lightness: sheet
        .noise(2.8, { octaves: 4 })
        .scale(0.5, 88.5)
        .add(damp, -4 * wet)
        .add(halo, -15)
        .add(core, -24)
        .add(fibre, 0.5),
      a: sheet
        .plane(1.2)
        .add(damp, 1.1 * wet)
        .add(halo, 8)
        .add(core, 6),
      b: sheet
        .noise(2.2, { octaves: 3 })
        .scale(0.5, 11)
        .add(damp, 3 * wet)
        .add(halo, 14)
        .add(core, 8),
      height,
      elevation: 0.64,
      translucency: [0.4, 0.0012],
      contrast: 0.22 * relief,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.45 },
    };
  },
});
