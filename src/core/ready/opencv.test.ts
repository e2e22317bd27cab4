import { pullTile } from '@/testing/draw';
import { openCv as cv } from '@/testing/opencv';
import { numbers, testBench } from '@/testing/machine';
import { toFile, fromFile, readiedMap } from './geometry';
import { bendByLine, bent, lensSchema, planLens, straightened, straightness } from './lens';
import { apply, type Point } from '../image/projection';
import { readySchema } from './schema';

const bench = testBench(128);
const { machine } = bench;
const [W, H] = [240, 160];

/** Smooth, with detail of some pixels: what two interpolations may differ in is small against a level. */
const scene = (x: number, y: number) => [
  128 + 60 * Math.sin(x * 0.16) * Math.cos(y * 0.11),
  120 + 50 * Math.sin((x + y) * 0.09) + 20 * Math.cos(y * 0.2),
  100 + 0.4 * x + 20 * Math.sin(y * 0.13),
];
const photo = bench.picture(W, H, (x, y) => scene(x, y).map(Math.round));
const mat = () => cv.matFromArray(H, W, cv.CV_8UC4, machine.bytes.slice(photo.levels[0], photo.levels[0] + W * H * 4));

/** The readied photo at full size as levels 0..255. */
function drawn(ready: object): { width: number; height: number; at(x: number, y: number): number[] } {
  const tile = pullTile(bench, { photo, ready: readySchema.parse(ready) });
  const at = (x: number, y: number) => [0, 1, 2].map((c) => machine.floats[(tile.ptr + c * tile.stride) / 4 + y * tile.width + x] * 255);
  return { width: tile.width, height: tile.height, at };
}

/** Mean difference in levels between what we drew and RGBA bytes, the outermost pixels left out. */
function meanGap(ours: ReturnType<typeof drawn>, theirs: Uint8Array): number {
  let sum = 0;
  let n = 0;
  for (let y = 4; y < H - 4; y += 3)
    for (let x = 4; x < W - 4; x += 3)
      ours.at(x, y).forEach((v, c) => {
        sum += Math.abs(v - theirs[(y * W + x) * 4 + c]);
        n++;
      });
  return sum / n;
}

describe('distortion by Brown and Conrady, against OpenCV', () => {
  const radius = Math.hypot(W, H) / 2;
  // OpenCV counts pixel centres as whole numbers; its focal length in pixels is our unit of distance, divided by the zoom afterwards.
  const camera = (f: number) => cv.matFromArray(3, 3, cv.CV_64FC1, [f, 0, W / 2 - 0.5, 0, f, H / 2 - 0.5, 0, 0, 1]);
  it.each([
    [-0.2, 0],
    [0.18, 0],
    [-0.15, 0.08],
    [0.05, -0.1],
  ])('reads where it reads, to a part of a pixel (k1 %d, k2 %d)', (k1, k2) => {
    const lens = planLens(photo, lensSchema.parse({ k1, k2 }))!;
    // Pictures whose values are their own coordinates tell where OpenCV reads, to its steps of 1/32 pixel.
    const ramp = (value: (i: number) => number) =>
      cv.matFromArray(
        H,
        W,
        cv.CV_32FC1,
        Float32Array.from({ length: W * H }, (_, i) => value(i)),
      );
    const distortion = cv.matFromArray(1, 4, cv.CV_64FC1, [k1, k2, 0, 0]);
    const [x, y] = [new cv.Mat(), new cv.Mat()];
    cv.undistort(
      ramp((i) => i % W),
      x,
      camera(radius),
      distortion,
      camera(radius / lens.zoom),
    );
    cv.undistort(
      ramp((i) => Math.floor(i / W)),
      y,
      camera(radius),
      distortion,
      camera(radius / lens.zoom),
    );
    for (let j = 0; j < H; j += 7)
      for (let i = 0; i < W; i += 7) {
        const [px, py] = bent(lens, [i + 0.5, j + 0.5]);
        if (i > 3 && j > 3 && i < W - 4 && j < H - 4) {
          expect(Math.abs(px - 0.5 - x.data32F[j * W + i])).toBeLessThan(0.04);
          expect(Math.abs(py - 0.5 - y.data32F[j * W + i])).toBeLessThan(0.04);
        }
        // No empty corners.
        expect(px).toBeGreaterThan(-0.01);
        expect(px).toBeLessThan(W + 0.01);
        expect(py).toBeGreaterThan(-0.01);
        expect(py).toBeLessThan(H + 0.01);
        const [bx, by] = straightened(lens, [px, py]);
        expect(Math.hypot(bx - i - 0.5, by - j - 0.5)).toBeLessThan(0.001);
      }
  });
  it('draws the picture that OpenCV draws', () => {
    const lens = planLens(photo, lensSchema.parse({ k1: -0.18, k2: 0.03 }))!;
    const out = new cv.Mat();
    cv.undistort(mat(), out, camera(radius), cv.matFromArray(1, 4, cv.CV_64FC1, [-0.18, 0.03, 0, 0]), camera(radius / lens.zoom));
    const ours = drawn({ lens: { k1: -0.18, k2: 0.03 } });
    // OpenCV reads bilinearly, we by a cubic.
    expect(meanGap(ours, out.data)).toBeLessThan(0.8);
  });
});

describe('perspective, against OpenCV', () => {
  const corners: Point[] = [
    [0.08, 0.05],
    [0.93, 0.1],
    [0.97, 0.92],
    [0.03, 0.96],
  ];
  const ready = readySchema.parse({ perspective: { corners } });
  const flat = (points: Point[]) => cv.matFromArray(4, 1, cv.CV_32FC2, points.flat());
  const whole: Point[] = [
    [0, 0],
    [W, 0],
    [W, H],
    [0, H],
  ];
  it('is the homography through the four corners, to a thousandth of a pixel', () => {
    const matrix = cv.getPerspectiveTransform(flat(whole), flat(corners.map(([x, y]) => [x * W, y * H])));
    const next = numbers(3);
    const points: Point[] = Array.from({ length: 50 }, () => [next() * W, next() * H]);
    const out = new cv.Mat();
    cv.perspectiveTransform(cv.matFromArray(50, 1, cv.CV_32FC2, points.flat()), out, matrix);
    points.forEach((p, i) => {
      const [x, y] = apply(readiedMap(photo, ready), p);
      expect(Math.hypot(x - out.data32F[2 * i], y - out.data32F[2 * i + 1])).toBeLessThan(0.001);
    });
  });
  it('draws the picture that OpenCV draws', () => {
    const centre = (points: Point[]) => flat(points.map(([x, y]) => [x - 0.5, y - 0.5]));
    const matrix = cv.getPerspectiveTransform(centre(corners.map(([x, y]) => [x * W, y * H])), centre(whole));
    const out = new cv.Mat();
    cv.warpPerspective(mat(), out, matrix, new cv.Size(W, H), cv.INTER_CUBIC, cv.BORDER_REPLICATE);
    const ours = drawn({ perspective: { corners } });
    expect(meanGap(ours, out.data)).toBeLessThan(0.6);
  });
});

describe('lens', () => {
  it('is found from a line that should be straight, both ways', () => {
    for (const k1 of [-0.21, -0.06, 0.09, 0.2]) {
      const model = { ...planLens({ width: 3000, height: 2000 }, lensSchema.parse({ k1 }))!, zoom: 1 };
      // A straight edge near the top, as the lens took it, drawn by a hand that is a pixel or two off.
      const points = Array.from({ length: 40 }, (_, i): Point => bent(model, [200 + i * 65, 260 + i * 2 + (i % 3) - 1]));
      expect(Math.abs(bendByLine({ width: 3000, height: 2000 }, lensSchema.parse({}), points) - k1)).toBeLessThan(0.012);
    }
    expect(() =>
      bendByLine(photo, lensSchema.parse({}), [
        [0, 0],
        [5, 5],
        [9, 9],
      ]),
    ).toThrow('too short');
    expect(
      straightness([
        [0, 0],
        [5, 5],
        [10, 10],
      ]),
    ).toBeLessThan(1e-12);
  });
  it('leads points to the file and back under every frame', () => {
    const ready = readySchema.parse({ quarter: 1, flip: true, lens: { k1: -0.15, k2: 0.02 }, crop: { x: 0.1, y: 0.05, w: 0.7, h: 0.8, turn: 4 } });
    for (const p of [
      [0.1, 0.2],
      [0.5, 0.5],
      [0.9, 0.7],
    ] as Point[]) {
      const back = fromFile(photo, ready, toFile(photo, ready, p));
      expect(Math.hypot(back[0] - p[0], back[1] - p[1])).toBeLessThan(1e-6);
    }
  });
  it('draws red and blue back onto green', () => {
    // Taken with red 3 ‰ too far out and blue 2 ‰ too far in.
    const rings = (x: number, y: number, k: number) => 128 + 90 * Math.sin(Math.hypot(x + 0.5 - W / 2, y + 0.5 - H / 2) * k * 0.5);
    const taken = bench.picture(W, H, (x, y) => [rings(x, y, 1 / 1.003), rings(x, y, 1), rings(x, y, 1 / 0.998)].map(Math.round));
    const apartness = (lens: object | undefined) => {
      const tile = pullTile(bench, { photo: taken, ready: readySchema.parse({ lens }) });
      let sum = 0;
      for (let i = 0; i < W * H; i++) {
        const [r, g, b] = [0, 1, 2].map((c) => machine.floats[(tile.ptr + c * tile.stride) / 4 + i] * 255);
        sum += Math.abs(r - g) + Math.abs(b - g);
      }
      return sum / (W * H);
    };
    const before = apartness(undefined);
    const after = apartness({ red: 3, blue: -2 });
    expect(before).toBeGreaterThan(8);
    expect(after).toBeLessThan(before / 6);
  });
  it('lightens dark corners and leaves the middle', () => {
    const grey = bench.picture(W, H, () => [100, 100, 100]);
    const tile = pullTile(bench, { photo: grey, ready: readySchema.parse({ lens: { corners: 1 } }) });
    const at = (x: number, y: number) => machine.floats[tile.ptr / 4 + y * W + x];
    const linear = (v: number) => ((v + 0.055) / 1.055) ** 2.4;
    expect(at(W / 2, H / 2)).toBeCloseTo(100 / 255, 2);
    // 1 + 0.9 in linear light at the very corner.
    expect(linear(at(0, 0)) / linear(100 / 255)).toBeCloseTo(1.88, 1);
  });
});
