import * as z from 'zod';
import { share, slider } from '../../schema';
import { crackStrokes, growCracks } from '../cracks';
import { colourFirst, follow, onlyGrooves, parameter, raised } from '../first';
import { defineMaterial } from '../material';
import { line } from '../random';

export default defineMaterial({
  id: 'cracks.craquelure',
  label: 'Craquelure',
  family: 'cracks',
  seamless: true,
  shape: 'square',
  luma: 0.86,
  suggest: { blend: 'multiply', strength: 0.7 },
  start: { params: { width: 1.8 }, guardAmounts: { skin: 0.6 }, first: { only: 0.6, raised: 0.3 } },
  first: [onlyGrooves(0.2, [0.88, 0.84, 0.7], '#3a2314', 'Only the cracks', 1, false), colourFirst, raised(0.5, 1.5), follow, parameter('width')],
  help: 'The crack net of an old varnished panel, cupped and dirty in its cracks.',
  params: z.object({
    spacing: slider('Spacing', 0.6, 2, 1, { step: 0.05, help: 'Distance between cracks.' }),
    width: slider('Crack width', 0.5, 2.5, 1, { step: 0.05 }),
    dirt: share('Dirt', 1, { max: 2, help: 'What has settled in and beside the cracks.' }),
    cupping: share('Cupping', 1, { max: 2, help: 'How far each island of paint has curled.' }),
  }),
  paint(sheet, { spacing, width, dirt, cupping }) {
    const { seed } = sheet;
    const tau = 2 * Math.PI;
    // Directions and densities repeat over the sheet, as the net does.
    const direction = (x: number, y: number) =>
      0.3 + 0.75 * (Math.sin(tau * (x + 0.3 * Math.sin(tau * y + seed)) + seed) + 0.6 * Math.cos(tau * (2 * y - x) + 2 * seed));
    const density = (x: number, y: number) =>
      0.85 + 0.3 * Math.sin(tau * (2 * x + y) + seed) * Math.cos(tau * (y - x)) + 0.14 * line(x * 6 + y * 5, seed);
    const net = growCracks({
      seed,
      primary: Math.round(70 / spacing),
      spacing: 0.1 * spacing,
      generations: 4,
      ratio: 0.62,
      tries: 2200,
      jag: 0.03,
      back: 0.02,
      breaking: 0.14,
      direction,
      density,
    });
    const local = sheet.noise(3, { octaves: 4 });
    const strokes = crackStrokes(
      net,
      [0.7, 0.58, 0.5, 0.42, 0.36].map((w) => w * width),
      [0.88, 0.8, 0.7, 0.6, 0.48],
      seed,
      (x, y) => Math.exp(0.17 * sheet.at(local, ((x % 1) + 1) % 1, ((y % 1) + 1) % 1)),
    );
    const crack = sheet.strokes(strokes, { broken: true });
    // Distance from a line drawn wide enough to be found at any size.
    const found = sheet.strokes(
      strokes.map((s) => s.map(([x, y, , v]) => [x, y, 0.0006, v > 0.02 ? 1 : 0])),
      { least: 0.6 },
    );
    const d = found.distance(0.4, 0.2);
    const height = d
      .copy()
      .scale(-1 / 0.0045)
      .exp()
      .scale(-0.001, 0.001);
    height.add(d.scale(-1 / 0.02).exp(), -0.0003).scale(cupping);
    height
      .blur(0.0007)
      .add(sheet.noise(26, { octaves: 4, stretch: [1, 0.35] }), 0.00012)
      .add(sheet.white(0.0008), 0.00009)
      .add(crack, -0.0016);
    const halo = crack
      .copy()
      .blur(0.0028)
      .times(sheet.noise(4, { octaves: 4 }).scale(0.4, 0.6).clamp(0, 1.4), 1.5 * dirt)
      .clamp();
    const ground = sheet.noise(2.3, { octaves: 5 });
    const lines = crack.scale(1).clamp();
    return {
      lightness: ground.copy().scale(1.1, 90.5).add(halo, -5).towards(sheet.plane(27), lines),
      a: sheet.plane(1).add(halo, 1.5).towards(sheet.plane(5), lines),
      b: ground.scale(0.8, 11).add(halo, 4).towards(sheet.plane(12), lines),
      height,
      elevation: 0.6,
      translucency: [0.4, 0.0012],
      contrast: 0.36,
      occlusion: { k1: 0.05, k2: 0.03, amount: 0.5 },
    };
  },
});
