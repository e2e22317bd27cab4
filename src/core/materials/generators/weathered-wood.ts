import * as z from 'zod';
import { share, slider } from '../../schema';
import { colourStrength, greyGrain, onlyGrooves, raised } from '../first';
import { defineMaterial } from '../material';
import { lookedUp } from '../making/operations/arithmetic';
import { timber } from '../making/operations/structures';
import type { Sheet, Spot, StrokePoint } from '../sheet';

export default defineMaterial({
  id: 'wood.weathered',
  label: 'Weathered boards',
  family: 'wood',
  seamless: false,
  shape: 'square',
  fine: true,
  luma: 0.525,
  suggest: { blend: 'soft-light', strength: 0.85 },
  first: [greyGrain, raised(0.25, 1), colourStrength, onlyGrooves(0.1, [0.48, 0.42, 0.32], '#2a1d12')],
  help: 'Greyed planks with raised grain, checks, knots and nail holes.',
  params: z.object({
    boards: slider('Boards', 1, 9, 4, { step: 1 }),
    greying: share('Greying', 0.68, { help: 'From warm, sheltered wood to silver.' }),
    checks: share('Checks', 1, { max: 2, help: 'Splits along the grain.' }),
    relief: slider('Relief', 0, 2, 1, { step: 0.05 }),
  }),
  paint(sheet, { boards, greying, checks, relief }) {
    const { random } = sheet;
    const { table, starts } = cutBoards(sheet, Math.round(boards));
    const wobble = sheet.noise(9, { octaves: 4, stretch: [1, 0.12] });
    const { x, y } = sheet.coordinates();
    const [late, knot, id, gap] = sheet.stepOf(timber, { boards: table, total: starts.length }, [x, y, wobble]);
    // Fibre: white noise softened along the grain, at three scales, less its own wider mean across.
    const fibre = sheet.white(0.014, 0.0008).add(sheet.white(0.014, 0.0022), -0.6);
    const strands = sheet.white(0.03, 0.0018).add(sheet.white(0.03, 0.006), -0.6).scale(0.6).add(sheet.white(0.07, 0.006), 0.5);
    const check = sheet.strokes(splits(sheet, Math.round(150 * checks)), { broken: true }).clamp();
    const pores: StrokePoint[][] = Array.from({ length: 5200 }, () => {
      const x = random.next();
      const y = random.next();
      const length = random.logNormal(0.01, 0.6);
      const value = random.between(0.2, 0.7);
      return [
        [x, y, 0.0003, value * 0.3],
        [x, y + length / 2, 0.00045, value],
        [x + 0.0004 * random.gauss(), y + length, 0.0003, value * 0.3],
      ];
    });
    const pore = sheet.strokes(pores);
    const { nail, rust } = nails(sheet, starts);
    const seam = gap.step(0.0032, 0.0008);
    late.times(knot, -0.8, 1);
    const height = late
      .copy()
      .scale(0.00085)
      .add(fibre, 0.00016)
      .add(strands, 0.00032)
      .add(check, -0.003)
      .add(pore, -0.0007)
      .add(seam, -0.009)
      .add(nail, -0.0015);
    const board = sheet.step(lookedUp, { table: starts.map(() => 3 * random.gauss()) }, id);
    const grey = sheet
      .noise(2.4, { octaves: 5, stretch: [1, 0.45] })
      .scale(0.28, greying)
      .add(board, -0.05)
      .clamp();
    const lightness = board
      .add(60)
      .add(late, -13)
      .add(strands, 2.4)
      .add(fibre, 1.2)
      .add(check, -27)
      .add(knot, -13)
      .add(seam, -30)
      .add(nail, -22)
      .add(rust, -7)
      .clamp(6, 100);
    return {
      lightness,
      a: grey.copy().scale(-5.2, 6).add(rust, 6).add(knot, 2),
      b: grey.scale(-11.8, 17).add(rust, 8).add(knot, 3),
      height,
      contrast: 0.7 * relief,
      occlusion: { k1: 0.13, k2: 0.05, amount: 0.75 },
      gain: 1.05,
    };
  },
});

function cutBoards(sheet: Sheet, count: number): { table: number[]; starts: number[] } {
  const { random } = sheet;
  const width = sheet.right;
  const height = sheet.bottom;
  const starts = Array.from({ length: count }, (_, i) =>
    i === 0 ? -0.02 : (i / count) * width + random.between(-0.025, 0.025) * (4 / Math.max(4, count)),
  );
  const table: number[] = [];
  starts.forEach((left, i) => {
    const right = starts[i + 1] ?? width + 0.02;
    table.push(left, (right - left) * random.between(-0.2, 1.2), random.between(0.015, 0.12), random.between(0.0085, 0.014));
    const knots = random.integer(3);
    for (let k = 0; k < 2; k++) {
      table.push(left + (right - left) * random.between(0.2, 0.8), random.between(0.05, height - 0.05), k < knots ? random.between(0.01, 0.021) : 0);
    }
    table.push(100 + i * 31 + (sheet.seed % 1000), right);
  });
  return { table, starts };
}

function splits(sheet: Sheet, count: number): StrokePoint[][] {
  const { random } = sheet;
  return Array.from({ length: count }, () => {
    const length = random.power(0.025, 0.55, 1.7);
    const half = 0.0004 + 0.003 * length * random.between(0.4, 1);
    let x = random.next();
    const y = random.between(-0.1, 1);
    const value = random.between(0.45, 1);
    const path: StrokePoint[] = [];
    for (let s = 0; s <= 30; s++) {
      const lens = Math.sin(Math.PI * Math.min(0.985, Math.max(0.015, s / 30)));
      path.push([x, y + (s / 30) * length, Math.max(0.0002, half * lens), value * Math.min(1, 2 * lens)]);
      x += 0.0007 * random.gauss();
    }
    return path;
  });
}

/** Two nails a board at the top and bottom, with rust that has run down. */
function nails(sheet: Sheet, starts: number[]) {
  const { random } = sheet;
  const heads: Spot[] = [];
  const runs: StrokePoint[][] = [];
  const width = sheet.right;
  starts.forEach((left, i) => {
    const right = starts[i + 1] ?? width;
    for (const y of [0.06, 0.93]) {
      for (const t of [0.18, 0.82]) {
        if (random.chance(0.3)) continue;
        const x = left + (right - left) * t + 0.004 * random.gauss();
        const at = y + 0.012 * random.gauss();
        heads.push({ x, y: at, r: random.between(0.0022, 0.0034), lobes: 0.4, value: 1 });
        const length = random.between(0.02, 0.09);
        runs.push([
          [x, at, 0.0022, 0.7],
          [x + 0.001 * random.gauss(), at + length * 0.4, 0.0016, 0.4],
          [x + 0.001 * random.gauss(), at + length, 0.0008, 0.05],
        ]);
      }
    }
  });
  return { nail: sheet.spots(heads, 0.4), rust: sheet.strokes(runs).blur(0.0018) };
}
