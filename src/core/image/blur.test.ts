import { openCv } from '@/testing/opencv';
import { numbers, testBench } from '@/testing/machine';
import { blurAndCut, blurPlane, blurReach, blurTile } from './blur';
import { grow, type Tile } from './tile';

const bench = testBench(256);
const { machine, scratch } = bench;
const { floats, kernels } = machine;
const [W, H] = [403, 301];
const random = numbers(29);

type Scene = (x: number, y: number) => number;
const scenes: [string, Scene][] = [
  ['a step', (x, y) => +(x + 0.3 * y > 247)],
  ['crossing lines', (x, y) => +(x === 203 || y === 77)],
  ['noise', () => random()],
];

function planeOf(scene: Scene): number {
  const at = scratch.plane(W * H + 8);
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) floats[at / 4 + y * W + x] = scene(x, y);
  return at;
}

/** OpenCV's Gaussian with five deviations of taps, in floats. */
function openCvBlur(at: number, sigma: number): Float32Array {
  const from = openCv.matFromArray(H, W, openCv.CV_32FC1, [...floats.subarray(at / 4, at / 4 + W * H)]);
  const to = new openCv.Mat();
  const taps = 2 * Math.ceil(5 * sigma) + 1;
  openCv.GaussianBlur(from, to, new openCv.Size(taps, taps), sigma, sigma, openCv.BORDER_REPLICATE);
  const values = Float32Array.from(to.data32F);
  from.delete();
  to.delete();
  return values;
}

describe.each(scenes)('a Gaussian over %s', (_name, scene) => {
  // Five and its doubles are where the way changes.
  it.each([1.3, 4.9, 5.1, 7, 10.2, 13, 30])('of deviation %d is OpenCV’s away from the edges', (sigma) => {
    scratch.reset();
    const at = planeOf(scene);
    const want = openCvBlur(at, sigma);
    blurPlane(machine, scratch, at, W, H, sigma);
    const rim = Math.ceil(2 * sigma);
    let [most, sum, n] = [0, 0, 0];
    for (let y = rim; y < H - rim; y++)
      for (let x = rim; x < W - rim; x++) {
        const off = 255 * Math.abs(floats[at / 4 + y * W + x] - want[y * W + x]);
        [most, sum, n] = [Math.max(most, off), sum + off, n + 1];
      }
    // In levels of 255: of lines and noise finer than the cells a little comes through.
    expect(most).toBeLessThan(2.5);
    expect(sum / n).toBeLessThan(0.35);
  });
});

it('keeps a level plane level to its edges, and reads no further than it says', () => {
  for (const sigma of [2, 5, 17, 60]) {
    scratch.reset();
    const at = planeOf(() => 0.7);
    blurPlane(machine, scratch, at, W, H, sigma);
    for (const i of [0, W - 1, W * H - 1, 5 * W + 9]) expect(floats[at / 4 + i]).toBeCloseTo(0.7, 5);
    scratch.reset();
    const reach = blurReach(sigma);
    const far = planeOf((x) => +(x >= 200 + reach));
    blurPlane(machine, scratch, far, W, H, sigma);
    if (200 + reach < W) expect(floats[far / 4 + 150 * W + 199]).toBeLessThan(0.004);
  }
});

function tileOf(values: (x: number, y: number) => number[]): Tile {
  const tile = scratch.tile({ x: 10, y: -20, width: W, height: H });
  for (let y = 0; y < H; y++) for (let x = 0; x < W; x++) values(x, y).forEach((v, c) => (floats[(tile.ptr + c * tile.stride) / 4 + y * W + x] = v));
  return tile;
}

it.each([
  ['opaque', 9, 1],
  ['opaque, narrow', 2, 1],
  ['half transparent', 9, 0.5],
])('cut by its reach it is the same as blurred and then cut: %s', (_name, sigma, alpha) => {
  scratch.reset();
  const scene = (x: number, y: number) => [x / W, (x ^ y) & 32 ? 0.9 : 0.2, y / H, x > 150 ? 1 : alpha];
  const rim = blurReach(sigma);
  const whole = tileOf(scene);
  blurTile(machine, scratch, whole, sigma);
  const cut = blurAndCut(machine, scratch, tileOf(scene), sigma, rim);
  expect(cut).toMatchObject(grow({ x: 10, y: -20, width: W, height: H }, -rim));
  for (let c = 0; c < 4; c++)
    for (let y = 0; y < cut.height; y += 7)
      for (let x = 0; x < cut.width; x += 5)
        expect(floats[(cut.ptr + c * cut.stride) / 4 + y * cut.width + x]).toBeCloseTo(
          floats[(whole.ptr + c * whole.stride) / 4 + (y + rim) * W + x + rim],
          5,
        );
});

it('means of cells count what the plane lacks as its edge, and spread to any window', () => {
  scratch.reset();
  const [w, h, cell] = [10, 7, 4];
  const plane = scratch.plane(w * h + 8);
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) floats[plane / 4 + y * w + x] = x + 10 * y;
  const means = scratch.plane(16);
  const work = scratch.take(4096);
  kernels.meanCells(plane, w, h, means, 3, 2, cell, work);
  const at = (x: number, y: number) => Math.min(w - 1, x) + 10 * Math.min(h - 1, y);
  for (let r = 0; r < 2; r++)
    for (let c = 0; c < 3; c++) {
      let sum = 0;
      for (let y = 0; y < cell; y++) for (let x = 0; x < cell; x++) sum += at(c * cell + x, r * cell + y);
      expect(floats[means / 4 + r * 3 + c]).toBeCloseTo(sum / 16, 4);
    }
  // A ramp comes back as it was, whatever window is asked for; with two to a cell as with eight.
  for (const size of [2, 4, 8]) {
    const [columns, rows] = [12, 9];
    const ramp = scratch.plane(columns * rows + 8);
    for (let r = 0; r < rows; r++) for (let c = 0; c < columns; c++) floats[ramp / 4 + r * columns + c] = size * (c + 2 * r);
    const out = scratch.plane(400);
    for (const [x0, y0] of [
      [2 * size, 2 * size],
      [2 * size + 1, 3 * size - 1],
      [3 * size - 1, 2 * size + 1],
    ]) {
      kernels.spreadCells({ src: ramp, columns, rows, cell: size, dst: out, pitch: 13, x0, x1: x0 + 11, y0, y1: y0 + 5, work });
      for (let y = 0; y < 5; y++)
        for (let x = 0; x < 11; x++) expect(floats[out / 4 + y * 13 + x]).toBeCloseTo(x0 + x + 0.5 - size / 2 + 2 * (y0 + y + 0.5 - size / 2), 3);
    }
  }
  expect(kernels.isFilled(scratch.plane(7, 1), 7, 1)).toBe(1);
  const almost = scratch.plane(8, 1);
  floats[almost / 4 + 6] = 0.999;
  expect([kernels.isFilled(almost, 6, 1), kernels.isFilled(almost, 7, 1)]).toEqual([1, 0]);
});
