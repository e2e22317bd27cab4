import * as z from 'zod';
import { share, slider } from '../../schema';
import { facetNet } from '../facets';
import { paleColour, parameter, raised, tone } from '../first';
import { defineMaterial } from '../material';

/** Nets of facets, coarse to fine: cells a side, height, weight of their creases. */
const NETS = [
  [2.6, 0.15, 1],
  [4.3, 0.18, 1],
  [7.7, 0.17, 0.8],
  [13.1, 0.13, 0.6],
  [23, 0.075, 0.4],
];

export default defineMaterial({
  id: 'paper.crumpled',
  label: 'Crumpled paper',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.52,
  suggest: { blend: 'soft-light', strength: 1 },
  start: { steps: [tone(0, -0.3, -1)] },
  first: [parameter('crush'), paleColour(), raised(0.3, 1.5), parameter('size')],
  help: 'A sheet that was crushed and flattened out again; mid grey, for soft light and overlay.',
  params: z.object({
    crush: slider('Crushed', 0, 2, 1, { step: 0.05, help: 'How hard.' }),
    creases: share('Creases', 1, { max: 2, help: 'Pale lines where the paper broke.' }),
    size: slider('Size of the folds', 0.5, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { crush, creases: worn, size }) {
    const flat = sheet.noise(1.8, { octaves: 3 }).scale(0.5, 0.6).clamp(0, 1.5);
    const height = sheet.plane();
    const crease = sheet.plane();
    NETS.forEach(([cells, amplitude, weight], i) => {
      const net = facetNet(sheet, cells / size, 0.5 + i * 1.9416, amplitude * size, sheet.seed * 7 + i * 101);
      if (i >= 2) net.height.times(flat);
      height.add(net.height);
      const lines = net.creases.map((line) =>
        line.map(([x, y, w, v]): [number, number, number, number] => [x, y, w * (0.7 + weight * 0.5), v * weight]),
      );
      sheet.strokes(lines, { into: crease });
    });
    // Creases are sharp in places and pressed flat in others.
    crease
      .times(sheet.noise(8, { octaves: 3 }).scale(0.6, 0.4).clamp(0, 1.4))
      .blur(0.0007)
      .clamp();
    // Paper bends more than it breaks: facets run into each other, and only here and there an edge is sharp.
    const bent = height.copy().blur(0.011);
    const soft = height.copy().blur(0.0034);
    const stiff = sheet.noise(4, { octaves: 4 });
    height.blur(0.0007).towards(soft, stiff.copy().scale(0.4, 0.4).clamp()).towards(bent, stiff.scale(-0.4, 0.3).clamp(0, 0.8));
    height
      .add(sheet.noise(3.5, { octaves: 3, gain: 0.5 }), 0.0045)
      .add(sheet.noise(13, { octaves: 3, gain: 0.5 }), 0.0005)
      .add(crease, 0.0004)
      .add(sheet.band(0.0012, 0.004), 0.00007)
      .add(sheet.fibres(2500), 0.0002);
    return {
      lightness: sheet
        .noise(2.1, { octaves: 4 })
        .scale(0.6, 57)
        .add(crease, 6 * worn),
      a: sheet.plane(0.3),
      b: sheet.noise(1.7, { octaves: 3 }).scale(0.35, 2.2),
      height,
      azimuth: -2.2,
      elevation: 0.65,
      translucency: [0.25, 0.002],
      contrast: 0.9 * crush,
      occlusion: { k1: 0.03, k2: 0.02, s1: 0.006, s2: 0.02, amount: 0.5 },
      knee: 0.75,
      gain: 1.06,
    };
  },
});
