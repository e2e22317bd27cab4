import { numbers, testBench } from '@/testing/machine';
import { sampleAffine, type Affine, type Edge } from './sample';

// sampleAffine against a scalar bilinear reference in doubles, at the picture's own level.
const bench = testBench(96);
const { machine, scratch } = bench;
const W = 61;
const H = 47;
const random = numbers(9);
const pixels = Array.from({ length: W * H }, () => [random() * 255, random() * 255, random() * 255, 128 + random() * 127].map(Math.round));
const picture = { ...bench.picture(W, H, (x, y) => pixels[y * W + x]) };
const single = { ...picture, levels: picture.levels.slice(0, 1) };

const fold = (i: number, n: number) => ((i % n) + n) % n;
/** 0 1 2 2 1 0 0 1 2 … */
const mirror = (i: number, n: number) => (fold(i, 2 * n) < n ? fold(i, 2 * n) : 2 * n - 1 - fold(i, 2 * n));
const within = (i: number, n: number) => Math.min(n - 1, Math.max(0, i));

function reference(map: Affine, edge: Edge, i: number, j: number): number[] {
  const x = map.a * (i + 0.5) + map.c * (j + 0.5) + map.e;
  const y = map.b * (i + 0.5) + map.d * (j + 0.5) + map.f;
  const [sx, sy] = [x - 0.5, y - 0.5];
  const [x0, y0] = [Math.floor(sx), Math.floor(sy)];
  const [fx, fy] = [sx - x0, sy - y0];
  const place = { wrap: fold, mirror, extend: within, clear: within }[edge];
  const at = (u: number, v: number) => pixels[place(y0 + v, H) * W + place(x0 + u, W)];
  const out = [0, 1, 2, 3].map(
    (c) => ((at(0, 0)[c] * (1 - fx) + at(1, 0)[c] * fx) * (1 - fy) + (at(0, 1)[c] * (1 - fx) + at(1, 1)[c] * fx) * fy) / 255,
  );
  if (edge === 'clear') {
    const soft = Math.hypot(map.a, map.b);
    out[3] *= Math.max(0, Math.min(1, Math.min(Math.min(x, W - x), Math.min(y, H - y)) / soft + 0.5));
  }
  return out;
}

const maps: [string, Affine][] = [
  ['moved by a fraction', { a: 1, b: 0, c: 0, d: 1, e: 3.3, f: -2.7 }],
  ['enlarged', { a: 0.31, b: 0, c: 0, d: 0.31, e: 11, f: 9 }],
  ['turned', { a: 0.8, b: 0.55, c: -0.55, d: 0.8, e: 14, f: -6 }],
  ['flipped and stretched', { a: -0.9, b: 0, c: 0, d: 0.6, e: 58, f: 4 }],
  ['turned by a right angle', { a: 0, b: 1, c: -1, d: 0, e: 40, f: 2 }],
];

describe.each(maps)('a picture %s', (_name, map) => {
  it.each(['clear', 'wrap', 'extend', 'mirror'] as Edge[])('with edge "%s" is bilinear to a fiftieth of a level, on any width of tile', (edge) => {
    for (const [width, height] of [
      [53, 21],
      [8, 60],
    ]) {
      scratch.reset();
      const tile = scratch.tile({ x: 0, y: 0, width, height });
      sampleAffine(machine, single, map, edge, tile);
      let worst = 0;
      for (let j = 0; j < height; j++) {
        for (let i = 0; i < width; i++) {
          const want = reference(map, edge, i, j);
          for (let c = 0; c < 4; c++) {
            const got = machine.floats[(tile.ptr + c * tile.stride) / 4 + j * width + i];
            worst = Math.max(worst, Math.abs(got - want[c]) * 255);
          }
        }
      }
      expect(worst).toBeLessThan(0.02);
    }
  });

  it('does not depend on where tiles are cut, to a fortieth of a level', () => {
    scratch.reset();
    const whole = scratch.tile({ x: 0, y: 0, width: 96, height: 64 });
    sampleAffine(machine, picture, map, 'extend', whole);
    for (const [x, y, width, height] of [
      [0, 0, 32, 64],
      [37, 11, 21, 30],
      [64, 32, 32, 32],
    ]) {
      const part = scratch.tile({ x, y, width, height });
      sampleAffine(machine, picture, map, 'extend', part);
      let different = 0;
      for (let j = 0; j < height; j++)
        for (let i = 0; i < width; i++) {
          const a = machine.floats[whole.ptr / 4 + (y + j) * 96 + x + i];
          const b = machine.floats[part.ptr / 4 + j * width + i];
          // Coordinates are sums of other terms: a weight may fall on the other side of 1/16384.
          if (Math.abs(a - b) > 1e-4) different++;
        }
      expect(different).toBe(0);
    }
  });
});
