import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourFirst, grain, paleColour, raised, size } from '../first';
import { defineMaterial } from '../material';
import type { StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.vellum',
  label: 'Vellum',
  family: 'paper',
  seamless: true,
  shape: 'square',
  luma: 0.785,
  suggest: { blend: 'multiply', strength: 0.8 },
  first: [paleColour(0.15), colourFirst, grain, raised(0.3, 1), size],
  help: 'Scraped calfskin: cream and grey by turns, translucent, with the follicles of the hair side and pale veins.',
  params: z.object({
    hair: share('Hair side', 0.7, { max: 1.5, help: 'How plainly the follicles show.' }),
    veins: share('Veins', 0.6, { max: 1.5 }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { hair, veins, relief }) {
    const { random } = sheet;
    const cloud = sheet.noise(1.9, { octaves: 7, gain: 0.62 });
    const patch = sheet.noise(4.2, { octaves: 5, gain: 0.66 });
    // Follicles stand in loose rows and threes; more on the back of the animal than on its flanks.
    const follicle = sheet.spots(
      sheet.scatter(9000, patch, 0.55, -0.5).flatMap(({ x, y, random: own }) => {
        const angle = 0.5 + 0.25 * own.gauss();
        return [0, 1, 2].slice(0, 1 + own.integer(3)).map((i) => ({
          x: x + 0.0022 * i * Math.cos(angle) + 0.0004 * own.gauss(),
          y: y + 0.0022 * i * Math.sin(angle) + 0.0004 * own.gauss(),
          r: own.logNormal(0.00085, 0.3),
          long: own.between(1.1, 1.9),
          angle,
          lobes: 0.8,
          value: own.between(0.2, 1),
        }));
      }),
      0.5,
    );
    const list: StrokePoint[][] = [];
    const grow = (x: number, y: number, angle: number, half: number, depth: number): void => {
      const path: StrokePoint[] = [];
      let [px, py, heading] = [x, y, angle];
      const steps = 26 - 4 * depth;
      for (let s = 0; s < steps; s++) {
        path.push([px, py, half * (1 - (0.7 * s) / steps), 0.8 * (1 - (0.6 * s) / steps)]);
        heading += 0.16 * random.gauss();
        px += 0.011 * Math.cos(heading);
        py += 0.011 * Math.sin(heading);
        if (depth < 3 && random.chance(0.11)) grow(px, py, heading + random.between(0.4, 0.9) * (random.chance(0.5) ? 1 : -1), half * 0.6, depth + 1);
      }
      list.push(path);
    };
    for (let i = 0; i < 7; i++) grow(random.next(), random.next(), random.between(0, 6.28), 0.0034, 0);
    const vein = sheet.strokes(list).blur(0.0035).times(cloud.copy().scale(0.3, 0.6).clamp(0, 1.2));
    const scrape = sheet.white(0.0007, 0.014);
    const tooth = sheet.band(0.0014, 0.0042);
    const height = tooth
      .copy()
      .scale(0.0002)
      .add(follicle, -0.0005 * hair)
      .add(scrape, 0.00005)
      .add(vein, 0.0005)
      .add(sheet.noise(3, { octaves: 6, gain: 0.56 }), 0.0028);
    return {
      lightness: cloud
        .copy()
        .scale(2, 81.5)
        .add(patch, 0.9)
        .add(scrape, 0.25)
        .add(tooth, 0.5)
        .add(vein, -13 * veins)
        .add(follicle, -20 * hair),
      a: sheet
        .noise(2.1, { octaves: 4 })
        .scale(0.5, 1.6)
        .add(follicle, 1.6 * hair)
        .add(vein, 1.8 * veins),
      b: cloud
        .scale(-1.4, 13.5)
        .add(patch, -0.7)
        .add(follicle, 4 * hair),
      height,
      elevation: 0.66,
      translucency: [0.5, 0.002],
      contrast: 0.3 * relief,
      occlusion: { k1: 0.05, k2: 0.04, amount: 0.4 },
    };
  },
});
