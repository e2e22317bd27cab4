import { numbers, testBench } from '@/testing/machine';

const bench = testBench(64);
const { machine, scratch } = bench;
const [W, H] = [37, 29];
const next = numbers(21);
/** Transparent here and there in its left third; what is opaque is read four pixels at a time. */
const values = Array.from({ length: W * H }, (_, i) =>
  [next() * 255, next() * 255, next() * 255, i % W < W / 3 && next() < 0.1 ? next() * 255 : 255].map(Math.round),
);
const photo = bench.picture(W, H, (x, y) => values[y * W + x]);

const clamp = (i: number, n: number) => Math.min(n - 1, Math.max(0, i));
const at = (x: number, y: number, c: number) => values[clamp(y, H) * W + clamp(x, W)][c];

/** Catmull and Rom (1974): the cubic through the two middle values with half the difference of their neighbours as slopes. */
const catmull = (a: number, b: number, c: number, d: number, t: number) =>
  b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a)));

function reference(x: number, y: number, c: number, smooth: boolean): number {
  const [x0, y0] = [Math.floor(x - 0.5), Math.floor(y - 0.5)];
  const [fx, fy] = [x - 0.5 - x0, y - 0.5 - y0];
  if (!smooth) {
    const row = (j: number) => at(x0, j, c) * (1 - fx) + at(x0 + 1, j, c) * fx;
    return row(y0) * (1 - fy) + row(y0 + 1) * fy;
  }
  const row = (j: number) => catmull(at(x0 - 1, j, c), at(x0, j, c), at(x0 + 1, j, c), at(x0 + 2, j, c), fx);
  return Math.min(255, Math.max(0, catmull(row(y0 - 1), row(y0), row(y0 + 1), row(y0 + 2), fy)));
}

const lens = { cx: W / 2, cy: H / 2, radius: Math.hypot(W, H) / 2, zoom: 0.97, k1: -0.12, k2: 0.03 };
/** Maps with a turn and a perspective, so that every term is used. */
const map = [1.02, 0.05, -0.6, -0.04, 0.98, 0.4, 0.0006, -0.0004, 1] as const;

function expected(i: number, j: number, stretch: number): [number, number] {
  const [X, Y] = [i + 0.5, j + 0.5];
  const w = map[6] * X + map[7] * Y + map[8];
  const px = ((map[0] * X + map[1] * Y + map[2]) / w - lens.cx) * lens.zoom;
  const py = ((map[3] * X + map[4] * Y + map[5]) / w - lens.cy) * lens.zoom;
  const rr = (px * px + py * py) / lens.radius ** 2;
  const k = (1 + rr * (lens.k1 + rr * lens.k2)) * (1 + stretch);
  return [lens.cx + px * k, lens.cy + py * k];
}

const draw = (smooth: boolean, red: number, blue: number, clear = false, mix = 1) => {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: 35, height: 27 });
  for (let c = 0; c < 4; c++) machine.kernels.fill(tile.ptr + c * tile.stride, tile.count, 0.25);
  const { cx, cy, radius, zoom, k1, k2 } = lens;
  const target = { dst: tile.ptr, stride: tile.stride, tw: tile.width, th: tile.height };
  const bend = { cx, cy, radius, zoom, k1, k2, red, blue };
  const taps = scratch.take(16400);
  machine.kernels.sampleLens({ src: photo.levels[0], w: W, h: H, ...target, m: map, smooth: +smooth, clear: +clear, mix, ...bend, taps });
  return (x: number, y: number, c: number) => machine.floats[(tile.ptr + c * tile.stride) / 4 + y * tile.width + x];
};

describe('reading a picture through a lens', () => {
  it.each([
    [false, 0, 0],
    [false, 0.03, -0.02],
    [true, 0, 0],
    [true, 0.03, -0.02],
  ])('is the reference’s, inside and at every edge (smooth %s, red %d, blue %d)', (smooth, red, blue) => {
    const out = draw(smooth, red, blue);
    let most = 0;
    for (let j = 0; j < 27; j++)
      for (let i = 0; i < 35; i++)
        [red, 0, blue].forEach((stretch, c) => {
          const [x, y] = expected(i, j, stretch);
          most = Math.max(most, Math.abs(out(i, j, c) * 255 - reference(x, y, c, smooth)));
        });
    // Weights of the cubic are whole numbers, and places are known to 1/4096 of a pixel.
    expect(most).toBeLessThan(smooth ? 0.6 : 0.1);
  });
  it('keeps what is transparent, and with “clear” nothing lies beyond the edge', () => {
    const plain = draw(false, 0, 0);
    const clear = draw(false, 0, 0, true);
    let outside = 0;
    for (let j = 0; j < 27; j++)
      for (let i = 0; i < 35; i++) {
        const [x, y] = expected(i, j, 0);
        expect(Math.abs(plain(i, j, 3) * 255 - reference(x, y, 3, false))).toBeLessThan(0.1);
        const inside = Math.min(x, W - x, y, H - y) + 0.5;
        if (inside < 0) outside++;
        expect(clear(i, j, 3)).toBeCloseTo(plain(i, j, 3) * Math.min(1, Math.max(0, inside)), 3);
      }
    expect(outside).toBeGreaterThanOrEqual(0);
  });
  it('mixes into what is there', () => {
    const [whole, half] = [draw(false, 0, 0), 0.5];
    const kept = whole(10, 10, 1);
    expect(draw(false, 0, 0, false, half)(10, 10, 1)).toBeCloseTo(0.25 * half + kept * half, 5);
  });
  it('the cubic without a lens is the same reference’s', () => {
    scratch.reset();
    const tile = scratch.tile({ x: 0, y: 0, width: 35, height: 27 });
    machine.kernels.sampleProjected({
      src: photo.levels[0],
      w: W,
      h: H,
      dst: tile.ptr,
      stride: tile.stride,
      tw: 35,
      th: 27,
      m: map,
      smooth: 1,
      clear: 0,
      mix: 1,
      taps: scratch.take(16400),
    });
    let most = 0;
    for (let j = 0; j < 27; j++)
      for (let i = 0; i < 35; i++) {
        const [X, Y] = [i + 0.5, j + 0.5];
        const w = map[6] * X + map[7] * Y + map[8];
        const [x, y] = [(map[0] * X + map[1] * Y + map[2]) / w, (map[3] * X + map[4] * Y + map[5]) / w];
        for (let c = 0; c < 3; c++)
          most = Math.max(most, Math.abs(machine.floats[(tile.ptr + c * tile.stride) / 4 + j * 35 + i] * 255 - reference(x, y, c, true)));
      }
    expect(most).toBeLessThan(0.6);
  });
});
