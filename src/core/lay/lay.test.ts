import { openCv as cv } from '@/testing/opencv';
import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { apply, type Point } from '../image/projection';
import { fillLaid } from './laid';
import { cornersOf, enlargement, layMap, layPlace, layProjection, laySchema } from './lay';

const bench = testBench(128);
const { machine, scratch } = bench;
const [W, H] = [240, 160];
// Detail of some pixels, so that two interpolations may differ by little.
const colourAt = (x: number, y: number) => [
  128 + 60 * Math.sin(x * 0.13) * Math.cos(y * 0.11),
  120 + 50 * Math.sin((x + y) * 0.08),
  100 + 0.4 * x + 20 * Math.sin(y * 0.12),
];
const picture = bench.picture(W, H, (x, y) => colourAt(x, y).map(Math.round));
const photo = bench.picture(W, H, () => [128, 128, 128]);

function drawn(lay: object, scale = 1, part = { x: 0, y: 0, width: W * scale, height: H * scale }) {
  const context = contextOn(bench, photo, scale);
  const tile = scratch.tile(part);
  fillLaid(context, tile, { picture }, laySchema.parse(lay));
  return (x: number, y: number, c: number) => machine.floats[(tile.ptr + c * tile.stride) / 4 + (y - part.y) * part.width + x - part.x] * 255;
}
beforeEach(() => scratch.reset());

const corners = [
  [0.1, 0.05],
  [0.8, 0.15],
  [0.95, 0.9],
  [0.05, 0.8],
] as [Point, Point, Point, Point];

describe('a lay in perspective', () => {
  it('shows what OpenCV shows under the same four corners, within a level on the mean', () => {
    const at = drawn({ fit: 'stretch', corners });
    // OpenCV counts pixel centres as whole numbers.
    const half = (points: number[]) => points.map((v) => v - 0.5);
    const from = cv.matFromArray(4, 1, cv.CV_32FC2, half([0, 0, W, 0, W, H, 0, H]));
    const to = cv.matFromArray(4, 1, cv.CV_32FC2, half(corners.flatMap(([x, y]) => [x * W, y * H])));
    const source = cv.matFromArray(H, W, cv.CV_8UC4, machine.bytes.slice(picture.levels[0], picture.levels[0] + W * H * 4));
    const out = new cv.Mat();
    cv.warpPerspective(source, out, cv.getPerspectiveTransform(from, to), new cv.Size(W, H), cv.INTER_LINEAR, cv.BORDER_REPLICATE);
    let [sum, n, inside] = [0, 0, 0];
    for (let y = 4; y < H - 4; y++)
      for (let x = 4; x < W - 4; x++) {
        if (at(x, y, 3) < 254.9) continue;
        inside++;
        for (let c = 0; c < 3; c++, n++) sum += Math.abs(at(x, y, c) - out.data[(y * W + x) * 4 + c]);
      }
    expect(inside).toBeGreaterThan(W * H * 0.4);
    expect(sum / n).toBeLessThan(1);
  });

  it('is clear outside its corners and full inside, and the corners lie where they were put', () => {
    const at = drawn({ fit: 'stretch', corners });
    expect(at(2, 2, 3)).toBe(0);
    expect(at(235, 80, 3)).toBe(0);
    expect(at(120, 80, 3)).toBeCloseTo(255, 3);
    const lay = laySchema.parse({ fit: 'stretch', corners });
    const map = layProjection(lay, picture, { width: W, height: H, unit: 0.12 });
    for (const [i, [x, y]] of corners.entries()) {
      const [u, v] = apply(map, [x * W, y * H]);
      expect(u).toBeCloseTo([0, W, W, 0][i], 6);
      expect(v).toBeCloseTo([0, 0, H, H][i], 6);
    }
  });

  it('moves, turns and grows with the rest of the lay: its corners go through the flat map', () => {
    const lay = laySchema.parse({ scale: 1.4, turn: 30, x: 0.1, flipX: true, corners });
    const frame = { width: 300, height: 160, unit: 0.15 };
    const map = layProjection(lay, picture, frame);
    const place = layPlace(lay, picture, frame);
    corners.forEach((corner, i) => {
      const [u, v] = apply(map, apply(place, corner));
      expect(u).toBeCloseTo([0, W, W, 0][i], 5);
      expect(v).toBeCloseTo([0, 0, H, H][i], 5);
    });
  });

  it('with its corners where they are anyway draws what it draws without, within less than a level', () => {
    const flat = drawn({ fit: 'cover', scale: 0.7, turn: 20 });
    const square = [
      [0, 0],
      [1, 0],
      [1, 1],
      [0, 1],
    ];
    const same = drawn({ fit: 'cover', scale: 0.7, turn: 20, corners: square });
    let worst = 0;
    for (let y = 0; y < H; y += 3)
      for (let x = 0; x < W; x += 3)
        if (flat(x, y, 3) > 254.9 && same(x, y, 3) > 254.9)
          for (let c = 0; c < 3; c++) worst = Math.max(worst, Math.abs(flat(x, y, c) - same(x, y, c)));
    // Reduced 1.43 times the two read between the same levels.
    expect(worst).toBeLessThan(0.6);
  });

  it('does not sparkle where it recedes: a checker of one pixel goes grey', () => {
    const checker = bench.picture(256, 256, (x, y) => Array(3).fill((x + y) % 2 ? 255 : 0));
    const context = contextOn(bench, photo);
    const tile = scratch.tile({ x: 0, y: 0, width: W, height: H });
    const away = [
      [0.45, 0.3],
      [0.55, 0.3],
      [1, 1],
      [0, 1],
    ];
    fillLaid(context, tile, { picture: checker }, laySchema.parse({ fit: 'stretch', corners: away }));
    let worst = 0;
    for (let x = 110; x < 130; x++) worst = Math.max(worst, Math.abs(machine.floats[tile.ptr / 4 + 52 * W + x] - 0.5));
    expect(worst).toBeLessThan(0.08);
  });

  it('does not depend on where tiles are cut', () => {
    const whole = drawn({ fit: 'stretch', corners });
    const part = drawn({ fit: 'stretch', corners }, 1, { x: 70, y: 40, width: 64, height: 64 });
    for (let y = 40; y < 104; y += 7) for (let x = 70; x < 134; x += 7) expect(part(x, y, 0)).toBeCloseTo(whole(x, y, 0), 3);
  });

  it('refuses corners with a dent in one sentence', () => {
    const dent = [corners[0], corners[1], [0.2, 0.2], corners[3]];
    expect(() => laySchema.parse({ corners: dent })).toThrow('without a dent');
  });
});

describe('tiles', () => {
  it('mirrored ones meet their own image: the row on both sides of a seam is the same', () => {
    const { width } = { width: 240 };
    const at = drawn({ fit: 'tile', mirror: true, scale: 1 }, 1);
    // One pixel is one u: at 240 pixels a long side of 2000 u puts the tile of 240 u on 28.8 pixels.
    const map = layMap(laySchema.parse({ fit: 'tile' }), picture, { width: W, height: H, unit: width / 2000 });
    const seam = (W - map.e) / map.a;
    const gap = (mirrored: typeof at) => {
      let sum = 0;
      for (let y = 20; y < 140; y++)
        for (let k = 1; k < 6; k++) sum += Math.abs(mirrored(Math.round(seam) - k, y, 2) - mirrored(Math.round(seam) + k - 1, y, 2));
      return sum / 600;
    };
    expect(gap(at)).toBeLessThan(12);
    expect(gap(drawn({ fit: 'tile', scale: 1 }, 1))).toBeGreaterThan(40);
  });
});

describe('enlargement', () => {
  it('is what one pixel of the file covers: a file of 4000 on a photo of 60 megapixels covers unasked', () => {
    const sixty = { width: 9000, height: 6667 };
    expect(enlargement(laySchema.parse({}), { width: 4000, height: 2667 }, sixty)).toBeCloseTo(2.5, 2);
    expect(enlargement(laySchema.parse({ scale: 0.5 }), { width: 4000, height: 2667 }, sixty)).toBeCloseTo(1.25, 2);
    expect(cornersOf(laySchema.parse({}))).toBeNull();
  });
});
