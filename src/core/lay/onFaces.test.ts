import { testBench } from '@/testing/machine';
import { buildLevels, pictureAt, pictureBytes } from '../image/picture';
import { materialById } from '../materials';
import { generate } from '../materials/generate';
import { Random } from '../materials/random';
import { fillLaid } from './laid';
import { laySchema } from './lay';
import { fillOnFaces, largestOnFaces, layOnFace } from './onFaces';

const bench = testBench(160);
const { machine, scratch } = bench;
/** Working memory of a material, behind the rest. */
const behind = 96 * 2 ** 20;
const SIDE = 64;
const random = new Random(5);
const values = Array.from({ length: SIDE * SIDE }, () => Math.round(Math.min(255, Math.max(0, 128 + 30 * random.gauss()))));
const grain = bench.picture(SIDE, SIDE, (x, y) => Array.from({ length: 3 }, () => values[y * SIDE + x]));
const context = { machine, scratch, scale: 1, width: 512, height: 512, unit: 1 };
const nominal = { width: SIDE, height: SIDE };

/** A tile of repeated grain, a pixel of it to a pixel. */
function drawn(mix: boolean): Float32Array {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: 512, height: 512 });
  fillLaid(context, tile, { picture: grain, nominal }, laySchema.parse({ fit: 'tile', mix }));
  return machine.floats.slice(tile.ptr / 4, tile.ptr / 4 + 512 * 512);
}
function moments(v: Float32Array): { mean: number; deviation: number } {
  const mean = v.reduce((a, b) => a + b, 0) / v.length;
  return { mean, deviation: Math.sqrt(v.reduce((sum, x) => sum + (x - mean) ** 2, 0) / v.length) };
}
/** Correlation of a drawing with itself, moved. */
function likeness(v: Float32Array, dx: number, dy: number): number {
  const { mean, deviation } = moments(v);
  let [sum, n] = [0, 0];
  for (let y = 0; y + dy < 512; y++) for (let x = 0; x + dx < 512; x++, n++) sum += (v[y * 512 + x] - mean) * (v[(y + dy) * 512 + x + dx] - mean);
  return sum / n / deviation ** 2;
}

describe('hiding repeats', () => {
  it('leaves no period: where plain tiles repeat, the drawing is like itself by less than two percent', () => {
    const [plain, mixed] = [drawn(false), drawn(true)];
    for (const [dx, dy] of [
      [SIDE, 0],
      [0, SIDE],
      [SIDE, SIDE],
      [2 * SIDE, 0],
      [0, 3 * SIDE],
    ]) {
      expect(likeness(plain, dx, dy)).toBeGreaterThan(0.95);
      expect(Math.abs(likeness(mixed, dx, dy))).toBeLessThan(0.02);
    }
  });
  it('keeps the mean and the deviation of the grain', () => {
    const [plain, mixed] = [moments(drawn(false)), moments(drawn(true))];
    expect(Math.abs(mixed.mean - plain.mean)).toBeLessThan(0.003);
    expect(mixed.deviation / plain.deviation).toBeGreaterThan(0.93);
    expect(mixed.deviation / plain.deviation).toBeLessThan(1.07);
  });
});

it('skin grain that hides its repeats is like itself by less than two percent at each tile’s distance', () => {
  scratch.reset();
  const size = 256;
  const wide = 2 * size;
  const target = scratch.take(pictureBytes(size, size, undefined, true));
  const picture = pictureAt(target, size, size, undefined, true);
  generate(machine, { material: materialById('skin.grain'), params: {}, seed: 3, width: size, height: size, part: 'height' }, target, behind);
  buildLevels(machine, picture);
  const tile = scratch.tile({ x: 0, y: 0, width: wide, height: wide });
  const seen = (mix: boolean, dx: number, dy: number) => {
    const whole = { ...context, width: 4 * wide, height: 4 * wide };
    const at = (x: number, y: number) => {
      fillLaid(whole, { ...tile, x, y }, { picture, nominal: { width: size, height: size } }, laySchema.parse({ fit: 'tile', mix }));
      return machine.floats.slice(tile.ptr / 4, tile.ptr / 4 + wide * wide);
    };
    // Several places, so that chance evens out.
    const pairs = [0, 1, 2, 3].map((n) => [at(n * wide, 0), at(n * wide + dx, dy)] as const);
    const all = pairs.map(([a, b]) => {
      const [p, q] = [moments(a), moments(b)];
      return a.reduce((sum, v, i) => sum + (v - p.mean) * (b[i] - q.mean), 0) / a.length / (p.deviation * q.deviation);
    });
    return all.reduce((a, b) => a + b) / all.length;
  };
  for (const [dx, dy] of [
    [size, 0],
    [0, size],
    [2 * size, size],
  ]) {
    expect(seen(false, dx, dy)).toBeGreaterThan(0.95);
    expect(Math.abs(seen(true, dx, dy))).toBeLessThan(0.02);
  }
});

describe('a lay that goes by faces', () => {
  const lay = laySchema.parse({ faces: true, fit: 'cover', scale: 2 });
  const small = { x: 0.2, y: 0.5, width: 100, turn: 0 };
  const large = { x: 0.8, y: 0.5, width: 400, turn: 30 };

  it('is as wide as the face at 100 %, with its middle on it and turned with it', () => {
    expect(layOnFace(lay, large)).toMatchObject({ fit: 'tile', scale: (2 * 400) / 1024, x: expect.closeTo(0.3, 9), turn: 30 });
    expect(largestOnFaces([small, large])).toBeCloseTo(400 / 1024, 9);
    expect(largestOnFaces([])).toBe(1);
  });
  it('has on each face the size that suits it, and runs from one into the other', () => {
    scratch.reset();
    const tile = scratch.tile({ x: 0, y: 0, width: 512, height: 512 });
    const loaded = { picture: grain, nominal: { width: 1024, height: 1024 }, held: nominal };
    fillOnFaces(context, tile, loaded, { ...lay, scale: 1 }, [small, large]);
    /** Mean difference of neighbours: finer grain differs more. */
    const rough = (x0: number) => {
      let sum = 0;
      for (let y = 240; y < 272; y++)
        for (let x = x0; x < x0 + 32; x++)
          sum += Math.abs(machine.floats[tile.ptr / 4 + y * 512 + x + 1] - machine.floats[tile.ptr / 4 + y * 512 + x]);
      return sum / 1024;
    };
    expect(rough(86)).toBeGreaterThan(1.8 * rough(394));
    for (let i = 0; i < 512 * 512; i += 997) expect(machine.floats[(tile.ptr + 3 * tile.stride) / 4 + i]).toBeCloseTo(1, 4);
  });
});
