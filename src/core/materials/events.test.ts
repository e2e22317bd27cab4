import { PAGE } from '../image/machine';
import { numbers, testMachine } from '@/testing/machine';
import { given, testSheets } from '@/testing/sheet';
import { turnedLattice } from './lattice';

// Kernels of the generators against scalar references written from their definitions.
const machine = testMachine(64);
const { kernels, floats } = machine;
const A = PAGE;
const B = PAGE + 2 ** 20;
const C = PAGE + 2 ** 21;
const plane = (at: number, count: number) => floats.slice(at / 4, at / 4 + count);

const hash = (k: number, seed: number): number => {
  let h = (Math.imul(k, 0x27d4eb2d) ^ Math.imul(seed, 0x165667b1)) >>> 0;
  h = (h ^ (h >>> 16)) >>> 0;
  h = Math.imul(h, 0x85ebca6b) >>> 0;
  h = (h ^ (h >>> 13)) >>> 0;
  h = Math.imul(h, 0xc2b2ae35) >>> 0;
  return (h ^ (h >>> 16)) >>> 0;
};
const fade = (t: number) => t * t * t * (t * (t * 6 - 15) + 10);
const mod = (i: number, n: number) => ((i % n) + n) % n;

/** Gradient noise with the quintic fade of Perlin 2002; gradients are free, not from his table. */
function gradientNoise(u: number, v: number, key: (i: number, j: number) => number, seed: number): number {
  const [i, j] = [Math.floor(u), Math.floor(v)];
  const corner = (p: number, q: number) => {
    const h = hash(key(i + p, j + q), seed);
    return (((h & 0xffff) * 2) / 65535 - 1) * (u - i - p) + (((h >>> 16) * 2) / 65535 - 1) * (v - j - q);
  };
  const [s, t] = [fade(u - i), fade(v - j)];
  const top = corner(0, 0) + (corner(1, 0) - corner(0, 0)) * s;
  return top + (corner(0, 1) + (corner(1, 1) - corner(0, 1)) * s - top) * t;
}

describe('gradient noise', () => {
  const [w, h] = [83, 40];
  const draw = (a: number, b: number, n: number, t: number, px: number, py: number, seed: number) => {
    kernels.fill(A, w * h + 4 - ((w * h) % 4), 0.25);
    kernels.addNoise({ dst: A, w, h, x0: 0, y0: 0, step: 1 / 83, ax: a, ay: -b, bx: b, by: a, n, t, px, py, seed, gain: 0.5 });
    return plane(A, w * h);
  };
  const worst = (got: Float32Array, a: number, b: number, key: (i: number, j: number) => number, seed: number) => {
    let most = 0;
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const [X, Y] = [(x + 0.5) / 83, (y + 0.5) / 83];
        most = Math.max(most, Math.abs(got[y * w + x] - 0.25 - 0.5 * gradientNoise(a * X - b * Y, b * X + a * Y, key, seed)));
      }
    return most;
  };
  const plain = (i: number, j: number) => (Math.imul(i, 0x3c6ef35f) + Math.imul(j, 0x19660d)) | 0;

  it('equals its formula on a turned lattice without a period, coarse and finer than four pixels', () => {
    for (const f of [3.7, 9, 31]) {
      const [a, b] = [f * Math.cos(0.5), f * Math.sin(0.5)];
      expect(worst(draw(a, b, 0, 0, 0, 0, 12), a, b, plain, 12)).toBeLessThan(2e-5);
    }
  });
  it('equals its formula on a straight lattice that repeats', () => {
    expect(worst(draw(12, 0, 0, 0, 12, 12, 5), 12, 0, (i, j) => plain(mod(i, 12), mod(j, 12)), 5)).toBeLessThan(2e-5);
  });
  it('equals its formula on a lattice turned by integers', () => {
    for (const f of [2.2, 17, 60]) {
      const { a, b, n, t } = turnedLattice(f, 0.9);
      const key = (i: number, j: number) => mod(i + t * j, n);
      expect(worst(draw(a, b, n, t, 0, 0, 77), a, b, key, 77)).toBeLessThan(5e-5);
    }
  });
});

it('doubles a plane by Catmull–Rom, the edges extended or carried on', () => {
  const [sw, sh] = [24, 12];
  const random = numbers(4);
  for (let i = 0; i < sw * sh; i++) floats[B / 4 + i] = random();
  const source = plane(B, sw * sh);
  for (const wrap of [0, 1]) {
    kernels.enlarge(B, sw, sh, A, sw * 2, sh * 2, wrap, C);
    const place = wrap ? mod : (i: number, n: number) => Math.min(n - 1, Math.max(0, i));
    const cubic = (p: number[], t: number) =>
      p[1] + 0.5 * t * (p[2] - p[0] + t * (2 * p[0] - 5 * p[1] + 4 * p[2] - p[3] + t * (3 * (p[1] - p[2]) + p[3] - p[0])));
    for (let y = 0; y < sh * 2; y++) {
      for (let x = 0; x < sw * 2; x++) {
        const [u, v] = [(x + 0.5) / 2 - 0.5, (y + 0.5) / 2 - 0.5];
        const [i, j] = [Math.floor(u), Math.floor(v)];
        const rows = [-1, 0, 1, 2].map((q) =>
          cubic(
            [-1, 0, 1, 2].map((p) => source[place(j + q, sh) * sw + place(i + p, sw)]),
            u - i,
          ),
        );
        expect(Math.abs(floats[A / 4 + y * sw * 2 + x] - cubic(rows, v - j))).toBeLessThan(1e-5);
      }
    }
  }
});

it('draws strokes as the greatest of their capsules, thin ones paler instead of thinner', () => {
  const [w, h] = [70, 50];
  const points = [
    [5, 5, -2, 1],
    [60, 40, 3, 0.5],
    [8, 44, -0.2, 0.9],
    [64, 46, 0.2, 0.9],
    [30, 10, -4, 0.7],
    [30, 30, 1, 0.7],
  ];
  kernels.fill(A, w * h, 0);
  floats.set(
    points.flatMap((point) => [...point, 0, 0, 0, 0]),
    B / 4,
  );
  kernels.drawStrokes({ dst: A, w, h, x0: 0, y0: 0, W: w, H: h, points: B, count: points.length, wrap: 0 });
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let want = 0;
      for (let k = 1; k < points.length; k++) {
        if (points[k][2] < 0) continue;
        const [xa, ya, ra, va] = points[k - 1];
        const [xb, yb, rb, vb] = points[k];
        const [dx, dy, px, py] = [xb - xa, yb - ya, x + 0.5 - xa, y + 0.5 - ya];
        const t = Math.min(1, Math.max(0, (px * dx + py * dy) / (dx * dx + dy * dy)));
        const half = Math.abs(ra) + (rb - Math.abs(ra)) * t;
        const wide = Math.max(half, 0.5);
        const cover = Math.min(1, Math.max(0, wide + 0.5 - Math.hypot(px - t * dx, py - t * dy)));
        want = Math.max(want, (va + (vb - va) * t) * (half / wide) * cover);
      }
      expect(Math.abs(floats[A / 4 + y * w + x] - want)).toBeLessThan(1e-4);
    }
  }
});

it('streaks a bundle of strands along its length, without making it lighter, once a strand is wider than a pixel', () => {
  const [w, h] = [240, 40];
  const draw = (half: number, strands: number) => {
    kernels.fill(A, w * h, 0);
    floats.set([-20, 20, -half, 0.5, 0, 0, strands, 0, 260, 20, half, 0.5, 280, 0, strands, 0], B / 4);
    kernels.drawStrokes({ dst: A, w, h, x0: 0, y0: 0, W: w, H: h, points: B, count: 2, wrap: 0 });
    return floats.slice(A / 4, A / 4 + w * h);
  };
  expect(draw(1.4, 4)).toEqual(draw(1.4, 0));
  const [plain, streaked] = [draw(12, 0), draw(12, 6)];
  const mean = (values: Float32Array) => values.reduce((sum, v) => sum + v, 0) / values.length;
  expect(Math.abs(mean(streaked) / mean(plain) - 1)).toBeLessThan(0.08);
  // Along the stroke it changes little, across it much.
  let [along, across] = [0, 0];
  for (let y = 11; y < 29; y++)
    for (let x = 20; x < 220; x++) {
      along += Math.abs(streaked[y * w + x] - streaked[y * w + x + 1]);
      across += Math.abs(streaked[y * w + x] - streaked[(y + 1) * w + x]);
    }
  expect(across).toBeGreaterThan(8 * along);
});

it('casts a shadow away from the light, as long as the slope says', () => {
  const [w, h] = [64, 16];
  kernels.fill(B, w * h, 0);
  // A wall 8 px high at x = 40, lit from the left at 45°: the shadow lies on 8 px to its right.
  for (let y = 0; y < h; y++) floats[B / 4 + y * w + 40] = 8 / 64;
  kernels.castShadow({ height: B, dst: A, w, h, size: 64, lx: -1, ly: 0, slope: 1, reach: 16, soft: 0.5, wrap: 0 });
  const row = plane(A, w * h).slice(8 * w, 9 * w);
  expect([...row.slice(0, 40)].every((v) => v === 1)).toBe(true);
  expect([...row.slice(41, 47)].every((v) => v === 0)).toBe(true);
  expect([...row.slice(49)].every((v) => v === 1)).toBe(true);
});

it('finds the three nearest points of a jittered lattice (Worley 1996)', () => {
  const [w, h] = [48, 48];
  const { a, b, n, t } = turnedLattice(5, 0.4);
  for (let i = 0; i < w * h; i++) {
    floats[B / 4 + i] = ((i % w) + 0.5) / w;
    floats[B / 4 + w * h + i] = (Math.floor(i / w) + 0.5) / w;
  }
  const out = [A, A + w * h * 4, A + 2 * w * h * 4];
  kernels.worley({ f1: out[0], f2: out[1], f3: out[2], count: w * h, a, b, n, t, sx: 1, seed: 9, x: B, y: B + w * h * 4, cache: C });
  const g = (v: number) => (v * 2) / 65535 - 1;
  for (let y = 0; y < h; y += 3) {
    for (let x = 0; x < w; x++) {
      const [X, Y] = [(x + 0.5) / 48, (y + 0.5) / 48];
      const [u, v] = [a * X - b * Y, b * X + a * Y];
      const found: number[] = [];
      for (let j = Math.floor(v) - 3; j <= Math.floor(v) + 3; j++)
        for (let i = Math.floor(u) - 3; i <= Math.floor(u) + 3; i++) {
          const k = hash(mod(i + t * j, n), 9);
          found.push(Math.hypot(i + g(k & 0xffff) * 0.5 + 0.5 - u, j + g(k >>> 16) * 0.5 + 0.5 - v));
        }
      found.sort((p, q) => p - q);
      // The first two are always among the 21 looked at; the third nearly always.
      for (let k = 0; k < 2; k++) expect(Math.abs(floats[out[k] / 4 + y * w + x] - found[k])).toBeLessThan(1e-4);
    }
  }
});

it('blurs a field by the σ it is asked for: the variance of a point grows by σ²', () => {
  const sheets = testSheets(machine, PAGE, 60 * 2 ** 20);
  const point = Float32Array.from({ length: 128 * 128 }, (_, i) => +(i === 64 * 128 + 64));
  for (const px of [1.2, 3, 9]) {
    const blurred = sheets.values(given(sheets.sheet(), point).blur(px / 128), 128);
    let [sum, square] = [0, 0];
    for (let y = 0; y < 128; y++)
      for (let x = 0; x < 128; x++) {
        const v = blurred[y * 128 + x];
        sum += v;
        square += v * (x - 64) ** 2;
      }
    expect(sum).toBeGreaterThan(0.98);
    expect(Math.abs(Math.sqrt(square / sum) / px - 1)).toBeLessThan(0.06);
  }
});
