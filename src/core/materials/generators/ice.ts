import * as z from 'zod';
import { share, slider } from '../../schema';
import { crackStrokes, growCracks } from '../cracks';
import { amount, colourStrength, greyGrain, raised, size } from '../first';
import { defineMaterial } from '../material';

export default defineMaterial({
  id: 'air.ice',
  label: 'Ice',
  family: 'air',
  seamless: true,
  shape: 'square',
  luma: 0.39,
  marks: 'lights',
  suggest: { blend: 'screen', strength: 0.6 },
  first: [amount(0.12, [0.95, 0.8, 0.65]), raised(0.2, 1.5), colourStrength, greyGrain, size],
  help: 'A frozen rock pool from above: white cracks that go deep, clouds of bubbles, a dusting of frost.',
  params: z.object({
    cracks: slider('Cracks', 0.5, 2.5, 1, { step: 0.05 }),
    bubbles: share('Bubbles', 1, { max: 2 }),
    frost: share('Frost', 0.5, { max: 1.5 }),
  }),
  paint(sheet, { cracks, bubbles, frost }) {
    const { seed } = sheet;
    const turn = 2 * Math.PI;
    const net = growCracks({
      seed,
      primary: Math.round(13 * cracks),
      spacing: 0.3,
      generations: 2,
      ratio: 0.6,
      tries: Math.round(300 * cracks),
      jag: 0.018,
      back: 0.02,
      breaking: 0.5,
      direction: (x, y) => 0.5 + 0.45 * Math.sin(turn * (x + y) + seed) + 0.3 * Math.cos(turn * (x - 2 * y)),
      density: () => 1,
    });
    const deep = sheet.noise(2, { octaves: 5, gain: 0.6 });
    const path = (half: number[], value: number[]) => crackStrokes(net, half, value, seed, () => 1);
    const line = sheet.strokes(path([0.75, 0.5, 0.4], [0.85, 0.65, 0.5]));
    // A crack that runs down into the ice is seen as a veil on one side.
    const veil = sheet
      .strokes(path([5, 2.6, 1.6], [0.55, 0.4, 0.3]))
      .blur(0.0035)
      .times(sheet.noise(6, { octaves: 6, gain: 0.7 }).scale(0.45, 0.5).clamp(0, 1.5));
    const cloud = sheet.noise(3.4, { octaves: 6, gain: 0.62 });
    const bubble = sheet.spots(
      sheet.scatter(Math.round(5200 * bubbles), cloud, 1.3, -1.2).map(({ x, y, random }) => ({
        x,
        y,
        r: random.power(0.0006, 0.0085, 2.7),
        lobes: 0.25,
        long: random.between(1, 1.25),
        angle: random.between(0, 3.14),
        value: random.between(0.25, 0.9),
      })),
      0.3,
    );
    // A bubble is bright at its rim.
    const hollow = bubble.copy().blur(0.0014).scale(-0.7).add(bubble).clamp();
    const dust = sheet
      .noise(30, { octaves: 6, gain: 0.84 })
      .add(deep, 0.8)
      .step(0.5, 2.6)
      .times(sheet.white(0.0005).scale(0.5, 0.6).clamp(0, 1.6))
      .scale(frost);
    const white = veil
      .scale(0.75)
      .add(hollow, 0.8)
      .add(bubble, 0.16)
      .add(line, 0.75)
      .add(dust, 0.6)
      .add(cloud.step(0.6, 3).scale(0.35))
      .clamp(0, 1.25);
    const height = sheet.noise(2.4, { octaves: 4 }).scale(0.0022).add(line, -0.0012).add(dust, 0.0006).add(sheet.band(0.0015, 0.006), 0.00018);
    return {
      lightness: deep.copy().scale(4, 39).add(white, 48).clamp(3, 99),
      a: deep.copy().scale(-0.8, -5).add(white, 4),
      b: deep.scale(1.6, -13).add(white, 10),
      height,
      elevation: 0.6,
      contrast: 0.4,
    };
  },
});
