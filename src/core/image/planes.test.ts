import { numbers, testBench } from '@/testing/machine';
import { openCv } from '@/testing/opencv';
import { applyModel, guidedModel, refine } from '../guards/guided';
import { Planes } from './planes';

const bench = testBench(192);
const { machine } = bench;
const { floats } = machine;
const W = 96;
const H = 70;

function fresh(): Planes {
  bench.scratch.reset();
  return new Planes(machine, bench.scratch, W, H);
}
const put = (plane: number, value: (x: number, y: number) => number) => {
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) floats[plane / 4 + y * W + x] = value(x, y);
  return plane;
};
const read = (plane: number) => floats.slice(plane / 4, plane / 4 + W * H);
const most = (a: ArrayLike<number>, b: ArrayLike<number>) => {
  let worst = 0;
  for (let i = 0; i < a.length; i++) worst = Math.max(worst, Math.abs(a[i] - b[i]));
  return worst;
};

describe('an outline filled', () => {
  it('covers its area, to a thousandth (shoelace formula)', () => {
    const planes = fresh();
    const outline: [number, number][] = [
      [10.3, 8.1],
      [70.6, 14.9],
      [84.2, 60.4],
      [40.5, 44.2],
      [12.8, 63.7],
    ];
    const area = Math.abs(outline.reduce((sum, [x, y], i) => sum + x * outline[(i + 1) % 5][1] - outline[(i + 1) % 5][0] * y, 0)) / 2;
    const plane = planes.make();
    planes.fill(plane, outline);
    expect(planes.sum(plane) / area).toBeGreaterThan(0.999);
    expect(planes.sum(plane) / area).toBeLessThan(1.001);
    expect(Math.max(...read(plane))).toBe(1);
  });

  it('is clipped by the plane, and moves with a part of it', () => {
    const planes = fresh();
    const box: [number, number][] = [
      [-20, -20],
      [30, -20],
      [30, 25],
      [-20, 25],
    ];
    const whole = planes.make();
    planes.fill(whole, box);
    expect(planes.sum(whole)).toBeCloseTo(30 * 25, 2);
    const part = planes.around(
      [
        [20, 15],
        [40, 35],
      ],
      4,
    );
    const small = part.make();
    part.fill(small, box);
    const again = planes.make();
    part.mostOf(planes, again, small);
    expect(floats[again / 4 + 20 * W + 25]).toBe(1);
    expect(floats[again / 4 + 20 * W + 31]).toBe(0);
    expect(floats[again / 4 + 2 * W + 2]).toBe(0);
  });
});

describe('widening by a disc against OpenCV', () => {
  // A kernel of our own for OpenCV's dilate and erode: a disc of the same radius.
  const disc = (r: number) =>
    Array.from({ length: (2 * r + 1) ** 2 }, (_, i) => +(((i % (2 * r + 1)) - r) ** 2 + (Math.floor(i / (2 * r + 1)) - r) ** 2 <= r * r));
  it.each([1, 4, 9])('equals its dilation and erosion at a radius of %i', (r) => {
    const random = numbers(r);
    const values = Float32Array.from({ length: W * H }, () => random() ** 3);
    const from = openCv.matFromArray(H, W, openCv.CV_32FC1, values);
    const shape = openCv.matFromArray(2 * r + 1, 2 * r + 1, openCv.CV_8UC1, disc(r));
    const to = new openCv.Mat();
    const planes = fresh();
    const plane = put(planes.make(), (x, y) => values[y * W + x]);
    openCv.dilate(from, to, shape);
    planes.widen(plane, r);
    expect(most(read(plane), to.data32F)).toBeLessThan(1e-6);
    put(plane, (x, y) => values[y * W + x]);
    openCv.erode(from, to, shape);
    planes.widen(plane, -r);
    expect(most(read(plane), to.data32F)).toBeLessThan(1e-6);
    [from, shape, to].forEach((m) => m.delete());
  });

  it('between whole radii lies between them', () => {
    const planes = fresh();
    const spot = () => put(planes.make(), (x, y) => +(Math.hypot(x - 48, y - 35) < 6));
    const areas = [3, 3.5, 4].map((r) => {
      const plane = spot();
      planes.widen(plane, r);
      return planes.sum(plane);
    });
    expect(areas[1]).toBeCloseTo((areas[0] + areas[2]) / 2, 2);
  });
});

describe('the guided filter with a colour guide', () => {
  const random = numbers(4);
  const colours = Array.from({ length: 3 }, (_, c) =>
    Float32Array.from({ length: W * H }, (_, i) => 0.3 + 0.4 * +(i % W > 40) + 0.1 * c + 0.1 * random()),
  );
  const mask = Float32Array.from({ length: W * H }, (_, i) => Math.min(1, Math.max(0, ((i % W) - 30) / 20)));

  it('equals equations 19 to 21 of He, Sun & Tang (2013) worked with OpenCV’s box filter', () => {
    const r = 4;
    const eps = 1e-3;
    const box = (values: Float32Array) => {
      const from = openCv.matFromArray(H, W, openCv.CV_32FC1, values);
      const to = new openCv.Mat();
      openCv.boxFilter(from, to, -1, new openCv.Size(2 * r + 1, 2 * r + 1), new openCv.Point(-1, -1), true, openCv.BORDER_REPLICATE);
      const out = to.data32F.slice();
      from.delete();
      to.delete();
      return out;
    };
    const times = (a: Float32Array, b: Float32Array) => a.map((v, i) => v * b[i]);
    const I = colours.map(box);
    const pairs = [
      [0, 0],
      [0, 1],
      [0, 2],
      [1, 1],
      [1, 2],
      [2, 2],
    ].map(([a, b]) => box(times(colours[a], colours[b])));
    const mixed = colours.map((c) => box(times(c, mask)));
    const p = box(mask);
    const a = [0, 1, 2].map(() => new Float32Array(W * H));
    const b = new Float32Array(W * H);
    for (let i = 0; i < W * H; i++) {
      const cov = (k: number, x: number, y: number) => pairs[k][i] - I[x][i] * I[y][i] + (x === y ? eps : 0);
      const [rr, rg, rb, gg, gb, bb] = [cov(0, 0, 0), cov(1, 0, 1), cov(2, 0, 2), cov(3, 1, 1), cov(4, 1, 2), cov(5, 2, 2)];
      const v = [0, 1, 2].map((c) => mixed[c][i] - I[c][i] * p[i]);
      // Cramer's rule on the symmetric system.
      const det = (m: number[][]) =>
        m[0][0] * (m[1][1] * m[2][2] - m[1][2] * m[2][1]) -
        m[0][1] * (m[1][0] * m[2][2] - m[1][2] * m[2][0]) +
        m[0][2] * (m[1][0] * m[2][1] - m[1][1] * m[2][0]);
      const m = [
        [rr, rg, rb],
        [rg, gg, gb],
        [rb, gb, bb],
      ];
      const whole = det(m);
      for (let c = 0; c < 3; c++) a[c][i] = det(m.map((row, y) => row.map((value, x) => (x === c ? v[y] : value)))) / whole;
      b[i] = p[i] - a[0][i] * I[0][i] - a[1][i] * I[1][i] - a[2][i] * I[2][i];
    }
    const [ma, mb] = [a.map(box), box(b)];
    const want = Float32Array.from({ length: W * H }, (_, i) =>
      Math.min(1, Math.max(0, ma[0][i] * colours[0][i] + ma[1][i] * colours[1][i] + ma[2][i] * colours[2][i] + mb[i])),
    );
    const planes = fresh();
    const guide = colours.map((c) => put(planes.make(), (x, y) => c[y * W + x])) as [number, number, number];
    const plane = put(planes.make(), (x, y) => mask[y * W + x]);
    const got = read(applyModel(planes, guide, guidedModel(planes, guide, plane, r, eps)));
    expect(most(got, want)).toBeLessThan(2e-3);
  });

  it('draws a soft mask to an edge of the picture', () => {
    const planes = fresh();
    const guide = colours.map((_, c) => put(planes.make(), (x) => 0.3 + 0.4 * +(x > 40) + 0.1 * c)) as [number, number, number];
    const plane = put(planes.make(), (x) => Math.min(1, Math.max(0, (x - 30) / 20)));
    refine(planes, guide, plane, 8, 1e-4);
    const at = (x: number) => floats[plane / 4 + 35 * W + x];
    expect(at(42) - at(39)).toBeGreaterThan(0.45);
  });
});

it('the geodesic distance is that of Dijkstra’s shortest path over eight neighbours', () => {
  const planes = fresh();
  const random = numbers(6);
  const noise = [0, 1, 2].map(() => Float32Array.from({ length: W * H }, () => random() * 0.2));
  const guide = noise.map((n) => put(planes.make(), (x, y) => n[y * W + x])) as [number, number, number];
  const seeds = put(planes.make(), (x, y) => +(x === 5 && y === 60));
  const gamma = 6;
  const got = read(planes.geodesic(seeds, guide, gamma));
  const dist = new Float64Array(W * H).fill(Infinity);
  dist[60 * W + 5] = 0;
  // Few pixels: relaxing all edges until nothing changes is Bellman and Ford's way to the same end.
  for (let changed = true; changed;) {
    changed = false;
    for (let y = 0; y < H; y++) {
      for (let x = 0; x < W; x++) {
        for (let dy = -1; dy <= 1; dy++) {
          for (let dx = -1; dx <= 1; dx++) {
            const [u, v] = [x + dx, y + dy];
            if (u < 0 || v < 0 || u >= W || v >= H || (dx === 0 && dy === 0)) continue;
            const step = Math.sqrt(dx * dx + dy * dy + gamma * gamma * noise.reduce((s, n) => s + (n[y * W + x] - n[v * W + u]) ** 2, 0));
            if (dist[v * W + u] + step < dist[y * W + x] - 1e-9) {
              dist[y * W + x] = dist[v * W + u] + step;
              changed = true;
            }
          }
        }
      }
    }
  }
  // Four sweeps come within a few hundredths on rough ground, never below.
  got.forEach((d, i) => expect(d).toBeGreaterThan(dist[i] - 1e-3));
  expect(got.reduce((s, d, i) => s + d / Math.max(1, dist[i]), 0) / got.length).toBeLessThan(1.02);
});

it('bytes and planes go over into each other', () => {
  const planes = fresh();
  const plane = put(planes.make(), (x, y) => (x + y) / 200);
  const bytes = bench.scratch.take(W * H);
  machine.kernels.packPlane(plane, bytes, W * H);
  const back = planes.make();
  machine.kernels.unpackPlane(bytes, back, W * H);
  expect(most(read(plane), read(back))).toBeLessThan(0.5 / 255 + 1e-6);
});
