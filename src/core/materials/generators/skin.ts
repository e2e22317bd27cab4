import * as z from 'zod';
import { slider } from '../../schema';
import type { Field } from '../field';
import { awayFromEnds, detail, follow, greyGrain, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import { lines } from '../nets';

export default defineMaterial({
  id: 'skin.grain',
  label: 'Skin grain',
  family: 'skin',
  seamless: true,
  shape: 'square',
  luma: 0.494,
  suggest: { blend: 'overlay', strength: 0.8 },
  start: { steps: [detail(1.6, 0)], limits: [0.08, 0.3, 0.75, 0.95] },
  first: [greyGrain, follow, parameter('fineness'), awayFromEnds, raised(0.4, 1)],
  help: 'Pores and fine lines on an even grey, for skin that has been smoothed too far.',
  params: z.object({
    fineness: slider('Fineness', 0.5, 2, 1, { step: 0.05, help: 'Cells along the long side.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05, help: 'Depth of lines and pores.' }),
    pores: slider('Pores', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { fineness, relief, pores }) {
    const warpX = sheet
      .noise(2.5, { octaves: 3 })
      .scale(0.012)
      .add(sheet.noise(30, { octaves: 2 }), 0.001);
    const warpY = sheet
      .noise(2.5, { octaves: 3 })
      .scale(0.012)
      .add(sheet.noise(30, { octaves: 2 }), 0.001);
    const height = sheet.plane();
    const handOver = sheet.noise(4, { octaves: 4 });
    // Three nets of lines at their own angles; where one fades another takes over.
    const nets = [
      { n: 78, angle: 0.6, stretch: 1.25, width: 0.2, sharp: 1.3, depth: 0.0012, share: 1 },
      { n: 135, angle: 1.1, stretch: 1.3, width: 0.24, sharp: 1.3, depth: 0.0008, share: -1 },
      { n: 34, angle: 0.25, stretch: 1.8, width: 0.1, sharp: 1.2, depth: 0.0013, share: -0.4 },
    ];
    let where: Field | null = null;
    for (const net of nets) {
      const cells = lines(sheet, net.n * fineness, net.angle, net.stretch, warpX, warpY);
      const edge = cells.second.add(cells.first, -1);
      const furrow = edge
        .scale(1 / net.width)
        .power(net.sharp)
        .exp(-1);
      const local = sheet
        .noise(6, { octaves: 3 })
        .scale(0.35, 0.55)
        .add(handOver, 0.2 * net.share)
        .clamp();
      height.add(furrow.times(local), -net.depth);
      if (net.n === 78) {
        const dome = cells.first.times(cells.first).scale(-0.00075, 0.00075).clamp(-0.001, 0.001);
        height.add(dome);
        where = cells.third;
      }
    }
    height.add(sheet.band(0.001, 0.0026), 0.00022).add(sheet.band(0.004, 0.01), 0.00025);
    const folds = sheet.noise(2.6, { octaves: 4 });
    if (where) {
      // Pores sit where three cells meet: there the third nearest point is hardly farther than the first.
      const crossing = where.scale(-1 / 0.35, 1);
      const spots = sheet.scatter(Math.round(7500 * pores * fineness * fineness), crossing, 1.5, -1).map(({ x, y, random }) => ({
        x,
        y,
        r: random.logNormal(0.0011 / fineness, 0.38),
        lobes: 0.8,
        long: random.between(1, 1.5),
        angle: random.between(0, 3.14),
        value: random.between(0.5, 1),
      }));
      height.add(sheet.spots(spots, 0.9), -0.002 / fineness);
    }
    const surface = height.copy();
    height.add(folds, 0.002);
    return {
      surface,
      lightness: sheet.noise(3, { octaves: 4 }).scale(0.5, 54.5),
      a: sheet.noise(3.4, { octaves: 4 }).scale(0.35, 1.2),
      b: sheet.noise(2.8, { octaves: 4 }).scale(0.3, 2),
      height,
      azimuth: -1.9,
      elevation: 0.72,
      translucency: [0.55, 0.0017],
      contrast: 0.75 * relief,
      occlusion: { k1: 0.04, k2: 0.02, amount: 0.3 },
      gain: 0.93,
    };
  },
});
