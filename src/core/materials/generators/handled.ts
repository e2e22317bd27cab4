import * as z from 'zod';
import { share, slider } from '../../schema';
import { borderDistance } from '../border';
import { parameter, tone } from '../first';
import { defineMaterial } from '../material';
import type { Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'paper.handled',
  label: 'Handled print',
  family: 'paper',
  seamless: false,
  shape: 'piece',
  luma: 0.56,
  suggest: { blend: 'hard-light', strength: 1 },
  start: { steps: [tone(0.03, 0, 0)] },
  first: [parameter('margin'), parameter('wear'), parameter('bends')],
  help: 'The white margin and the worn surface of a print that went through many hands: soft corners, cracked bends, rubbed shine.',
  params: z.object({
    margin: slider('Margin', 0, 0.1, 0.035, { unit: '%', factor: 100, step: 0.001, help: 'White paper round the picture, of the long side.' }),
    wear: share('Wear', 1, { max: 2 }),
    bends: slider('Bends', 0, 8, 5, { step: 1 }),
  }),
  paint(sheet, { margin, wear, bends }) {
    const { random, right, bottom } = sheet;
    const plain = borderDistance(sheet);
    const slack = sheet.noise(4, { octaves: 5, gain: 0.66 });
    const paper = plain
      .copy()
      .add(slack, 0.0003)
      .step(margin - 0.0008, margin + 0.0008)
      .scale(-1, 1);
    // Corners and edges are rubbed through to bare, dirty paper.
    const { x, y } = sheet.coordinates();
    const cx = x
      .copy()
      .scale(-1, right)
      .min(x)
      .clamp(0, 1)
      .exp(-1 / 0.036);
    const cy = y
      .copy()
      .scale(-1, bottom)
      .min(y)
      .clamp(0, 1)
      .exp(-1 / 0.036);
    const rub = cx
      .times(cy)
      .scale(3.6)
      .add(plain.exp(-1 / 0.004), 0.9)
      .add(sheet.noise(40, { octaves: 4, gain: 0.75 }), 0.16)
      .add(slack, 0.12);
    const bare = rub.add(-0.42).step(0, 0.4).scale(wear).clamp();
    const folds: StrokePoint[][] = [];
    for (let k = 0; k < bends; k++) {
      const [px, py] = [random.chance(0.5) ? random.between(0, 0.35) * right : random.between(0.65, 1) * right, random.between(0, bottom)];
      const a = random.between(0, Math.PI);
      const length = random.between(0.12, 0.45);
      const path: StrokePoint[] = [];
      for (let s = 0; s <= 40; s++) {
        const t = s / 40 - 0.5;
        path.push([
          px + Math.cos(a) * t * length + 0.0012 * random.gauss(),
          py + Math.sin(a) * t * length + 0.0012 * random.gauss(),
          0.0018,
          random.between(0.4, 1) * (1 - 4 * t * t),
        ]);
      }
      folds.push(path);
    }
    const fold = sheet.strokes(folds);
    const crackle = fold
      .copy()
      .blur(0.003)
      .times(sheet.noise(90, { octaves: 3, gain: 0.8 }).step(0.1, 0.9))
      .add(fold, 1)
      .clamp();
    const scratches: StrokePoint[][] = Array.from({ length: Math.round(170 * wear) }, () => {
      const [px, py, a] = [random.between(0, right), random.between(0, bottom), 0.4 + 0.9 * random.gauss()];
      const length = random.power(0.006, 0.25, 1.9);
      return [0, 0.3, 0.7, 1].map((t): StrokePoint => [
        px + Math.cos(a) * t * length,
        py + Math.sin(a + 0.06 * t) * t * length,
        0.0002,
        random.between(0.1, 0.6),
      ]);
    });
    const scratch = sheet.strokes(scratches);
    const dots: Spot[] = Array.from({ length: Math.round(700 * wear) }, () => ({
      x: random.between(0, right),
      y: random.between(0, bottom),
      r: random.power(0.0003, 0.003, 2.7),
      lobes: 1.5,
      value: random.between(0.2, 0.9),
    }));
    const dust = sheet.spots(dots, 0.4);
    // The coating is cracked finely all over, most where the print was bent; between the cracks lie its grain and the tooth of the paper.
    const net = (f: number) =>
      sheet
        .noise(f, { octaves: 2, gain: 0.35 })
        .abs()
        .scale(-1 / 0.03, 1)
        .clamp();
    const crazing = net(15)
      .max(net(23))
      .times(sheet.noise(3.4, { octaves: 5, gain: 0.6 }).step(0.2, 1.8))
      .times(sheet.noise(60, { octaves: 3 }).step(-0.8, 0.6))
      .scale(wear)
      .clamp();
    const tooth = sheet.band(0.0012, 0.0034);
    const grain = sheet.band(0.0004, 0.0011);
    const fluff = sheet.fibres(Math.round(900 * wear), { length: 0.012, half: 0.00025, curvature: 90 });
    const specks = sheet.spots(
      Array.from({ length: Math.round(5200 * wear) }, () => ({
        x: random.between(0, right),
        y: random.between(0, bottom),
        r: random.power(0.00018, 0.0009, 2.6),
        lobes: 1,
        value: random.between(0.2, 1),
      })),
      0.4,
    );
    const shine = sheet.noise(2.1, { octaves: 5, gain: 0.6 });
    const dirt = sheet.noise(3.2, { octaves: 6, gain: 0.7 }).scale(0.4, 0.25).clamp(0, 2);
    const height = sheet
      .noise(70, { octaves: 3 })
      .scale(0.00006)
      .add(fold.blur(0.0012), 0.0016)
      .add(sheet.noise(1.5, { octaves: 3 }), 0.003)
      .add(bare, -0.0006)
      .add(tooth, 0.00007)
      .add(crazing, -0.00025);
    const image = sheet
      .plane(53)
      .add(shine, 1.1)
      .add(dirt, -1.5)
      .add(dust, 9)
      .add(scratch, 11)
      .add(crackle, 30)
      .add(crazing, 7)
      .add(grain, 1.1)
      .add(tooth, 0.5)
      .add(fluff, 6)
      .add(specks, 8);
    const blank = sheet
      .plane(91)
      .add(dirt, -6)
      .add(scratch, -4)
      .add(dust, -7)
      .add(crackle, -8)
      .add(crazing, -3)
      .add(grain, 0.5)
      .add(fluff, -5)
      .add(specks, -7);
    return {
      lightness: image.towards(blank, paper).towards(sheet.plane(80).add(dirt, -12), bare),
      a: sheet.plane(0.5).add(dirt, 0.8).add(bare, 1.5),
      b: sheet.plane(4).add(dirt, 2.5).add(paper, 4).add(bare, 5),
      height,
      elevation: 0.66,
      contrast: 0.3,
      occlusion: { k1: 0.04, k2: 0.03, amount: 0.4 },
    };
  },
});
