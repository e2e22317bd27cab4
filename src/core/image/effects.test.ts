import { numbers, testMachine } from '@/testing/machine';
import { PAGE } from './machine';

const machine = testMachine(8);
const { kernels } = machine;
const [W, H] = [23, 17];
const N = Math.ceil((W * H) / 8) * 8;
const next = numbers(41);
const at = (k: number) => PAGE + k * (N + 16) * 4;
const put = (k: number, value: (x: number, y: number) => number) => {
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) machine.floats[at(k) / 4 + y * W + x] = value(x, y);
};
const get = (k: number, x: number, y: number) => machine.floats[at(k) / 4 + y * W + x];
const random = Array.from({ length: W * H }, () => Math.fround(next()));
const noisy = (x: number, y: number) => random[Math.min(H - 1, Math.max(0, y)) * W + Math.min(W - 1, Math.max(0, x))];
const every = (check: (x: number, y: number) => void) => {
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) check(x, y);
};

describe('displacing a plane', () => {
  /** The first plane, woven into a picture of four, displaced into planes from the third on. */
  const displace = (how: { ax: number; ay: number; left: number; top: number; right: number; bottom: number; mirror: number }) => {
    kernels.interleave(at(0), 0, Math.ceil((W * H) / 4) * 4, at(8), 1);
    kernels.displace({ src: at(8), dst: at(2), stride: at(3) - at(2), map: at(1), w: W, h: H, ...how });
  };
  /** Read between pixels, the plane's edge extended. */
  const between = (x: number, y: number) => {
    const [cx, cy] = [Math.min(W - 1, Math.max(0, x)), Math.min(H - 1, Math.max(0, y))];
    const [x0, y0] = [Math.floor(cx), Math.floor(cy)];
    const [fx, fy] = [cx - x0, cy - y0];
    const row = (j: number) => noisy(x0, j) * (1 - fx) + noisy(x0 + 1, j) * fx;
    return row(y0) * (1 - fy) + row(y0 + 1) * fy;
  };
  it('is by amount · (map − ½), as feDisplacementMap has it', () => {
    put(0, noisy);
    put(1, (x, y) => noisy(W - 1 - x, y));
    displace({ ax: 6, ay: -4, left: 0, top: 0, right: W, bottom: H, mirror: 0 });
    every((x, y) => {
      const m = noisy(W - 1 - x, y) - 0.5;
      const [px, py] = [Math.min(W - 1, Math.max(0, x + 6 * m)), Math.min(H - 1, Math.max(0, y - 4 * m))];
      expect(get(2, x, y)).toBeCloseTo(between(px, py), 4);
    });
  });
  it('turns the picture over at its bounds when asked to', () => {
    put(0, (x) => x);
    put(1, () => 1);
    // Everything is read 5 px further right; the picture ends at 20.
    displace({ ax: 10, ay: 0, left: 0, top: 0, right: 20, bottom: H, mirror: 1 });
    expect(get(2, 10, 3)).toBeCloseTo(15, 4);
    expect(get(2, 17, 3)).toBeCloseTo(2 * 19 - 22, 4);
    displace({ ax: 10, ay: 0, left: 0, top: 0, right: 20, bottom: H, mirror: 0 });
    expect(get(2, 17, 3)).toBeCloseTo(19, 4);
  });
});

describe('light on a height', () => {
  it('is half the cosine to the lamp over its height, normals by the Sobel operator', () => {
    put(0, noisy);
    const [lx, ly, lz] = [0.5, -0.6, Math.sqrt(1 - 0.25 - 0.36)];
    kernels.relief(at(0), at(1), W, H, 3, lx, ly, lz);
    every((x, y) => {
      const h = (i: number, j: number) => noisy(x + i, y + j);
      const gx = (h(1, -1) + 2 * h(1, 0) + h(1, 1) - h(-1, -1) - 2 * h(-1, 0) - h(-1, 1)) / 4;
      const gy = (h(-1, 1) + 2 * h(0, 1) + h(1, 1) - h(-1, -1) - 2 * h(0, -1) - h(1, -1)) / 4;
      const [nx, ny] = [-3 * gx, -3 * gy];
      const lit = (nx * lx + ny * ly + lz) / Math.hypot(nx, ny, 1);
      expect(get(1, x, y)).toBeCloseTo(Math.min(1, Math.max(0, (0.5 * lit) / lz)), 4);
    });
  });
});

describe('what lies outside of the picture', () => {
  it('takes the nearest value inside', () => {
    put(0, noisy);
    kernels.extendEdges(at(0), W, H, 3, 2, W - 4, H - 5);
    every((x, y) => expect(get(0, x, y)).toBe(noisy(Math.min(W - 5, Math.max(3, x)), Math.min(H - 6, Math.max(2, y)))));
  });
  it('may lie beyond the plane, which then stays as it is', () => {
    put(0, noisy);
    kernels.extendEdges(at(0), W, H, -10, -10, W + 10, H + 10);
    every((x, y) => expect(get(0, x, y)).toBe(noisy(x, y)));
  });
});

describe('detail and what it stands on', () => {
  it('are weighed apart and clipped', () => {
    put(0, noisy);
    put(1, (x, y) => 1 - noisy(x, y));
    kernels.recombine(at(0), at(1), N, 0.7, 0.3, 0.5);
    every((x, y) => {
      const [v, b] = [noisy(x, y), 1 - noisy(x, y)];
      expect(get(0, x, y)).toBeCloseTo(Math.min(1, Math.max(0, 0.5 + 0.7 * (v - b) + 0.3 * (b - 0.5))), 5);
    });
  });
});

describe('reading between pixels by a table', () => {
  it('has weights that add up to one at every place, by Catmull and Rom (1974) or along a straight line', () => {
    const table = at(6);
    machine.memory.grow(1);
    for (const smooth of [1, 0]) {
      kernels.sampleProjected({
        src: PAGE,
        w: 4,
        h: 4,
        dst: at(1),
        stride: 64,
        tw: 1,
        th: 1,
        m: [1, 0, 0, 0, 1, 0, 0, 0, 1],
        smooth,
        clear: 0,
        mix: 1,
        taps: table,
      });
      const words = new Int16Array(machine.memory.buffer, table, 2049 * 4);
      for (let i = 0; i <= 2048; i += 64) {
        const w = [0, 1, 2, 3].map((k) => words[i * 4 + k]);
        expect(w.reduce((a, b) => a + b)).toBe(16384);
        const t = i / 2048;
        const want = smooth
          ? [-0.5 * t + t * t - 0.5 * t ** 3, 1 - 2.5 * t * t + 1.5 * t ** 3, 0.5 * t + 2 * t * t - 1.5 * t ** 3, -0.5 * t * t + 0.5 * t ** 3]
          : [0, 1 - t, t, 0];
        w.forEach((v, k) => expect(Math.abs(v / 16384 - want[k])).toBeLessThan(2e-4));
      }
    }
  });
});
