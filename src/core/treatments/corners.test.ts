import { treat } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { wholeCorners } from '../image/corners';
import { motionBy } from '../image/motion';
import { treatmentByKind } from '.';

const bench = testBench(128);
const { machine, scratch } = bench;
const [W, H] = [120, 80];
/** Where in the picture a value comes from, in whole levels. */
const levels = (x: number, y: number) => [(x + 0.5) / W, (y + 0.5) / H, 0.5].map((v) => Math.round(255 * v));
const place = (x: number, y: number) => [...levels(x, y).map((v) => v / 255), 1];
const photo = bench.picture(W, H, levels);
const corners = treatmentByKind('corners');

function put(values: object): (x: number, y: number) => number[] {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: W, height: H });
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) place(x, y).forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + y * W + x] = v));
  const out = treat(bench, photo, tile, [corners.schema.parse({ kind: 'corners', ...values })], 1);
  return (x, y) => [0, 1, 2, 3].map((c) => machine.floats[(out.ptr + c * out.stride) / 4 + (y - out.y) * out.width + x - out.x]);
}

describe('perspective by four corners', () => {
  it('takes the corners of the picture where they are put, and its middle where the diagonals meet', () => {
    const to = [
      [0.2, 0.1],
      [0.9, 0.2],
      [0.8, 0.9],
      [0.1, 0.8],
    ];
    const at = put({ corners: to });
    [...to.map(([x, y], i) => [x, y, ...wholeCorners[i]])].forEach(([x, y, u, v]) => {
      // A little inside, where the picture is.
      const [px, py] = [x + 0.03 * (0.5 - x), y + 0.03 * (0.5 - y)];
      const [red, green] = at(Math.round(px * W - 0.5), Math.round(py * H - 0.5));
      expect(Math.abs(red - u)).toBeLessThan(0.06);
      expect(Math.abs(green - v)).toBeLessThan(0.06);
    });
    // The diagonals of these corners meet in the middle of the picture.
    const [red, green] = at(W / 2, H / 2);
    expect(Math.abs(red - 0.5)).toBeLessThan(0.02);
    expect(Math.abs(green - 0.5)).toBeLessThan(0.02);
  });
  it('a rectangle half as wide shows twice as much in a pixel, and nothing beside it where that is clear', () => {
    const half = [
      [0.25, 0],
      [0.75, 0],
      [0.75, 1],
      [0.25, 1],
    ];
    const at = put({ corners: half, outside: 'clear' });
    expect((at(80, 40)[0] - at(40, 40)[0]) / 40).toBeCloseTo(2 / W, 3);
    expect(at(60, 40)[3]).toBeCloseTo(1, 5);
    expect(at(10, 40)[3]).toBe(0);
    expect(put({ corners: half })(10, 40)[0]).toBeLessThan(0.02);
  });
  it('changes nothing with the corners in place, and refuses corners with a dent', () => {
    expect(corners.neutral(corners.schema.parse({ kind: 'corners' }))).toBe(true);
    const dented = [
      [0, 0],
      [1, 0],
      [0.3, 0.3],
      [0, 1],
    ];
    expect(() => corners.schema.parse({ kind: 'corners', corners: dented })).toThrow('without a dent');
  });
  it('is the same perspective seen from another frame', () => {
    const p = corners.schema.parse({
      kind: 'corners',
      corners: [
        [0.1, 0],
        [1, 0.2],
        [0.9, 1],
        [0, 0.8],
      ],
    });
    const there = motionBy([2, 0, -0.5, 0, 2, -0.5, 0, 0, 1], { width: 1000, height: 800 }, { width: 500, height: 400 });
    const back = motionBy([0.5, 0, 0.25, 0, 0.5, 0.25, 0, 0, 1], { width: 500, height: 400 }, { width: 1000, height: 800 });
    const cropped = corners.moved?.(p, there) as typeof p;
    expect(cropped.corners).not.toEqual(p.corners);
    const again = corners.moved?.(cropped, back) as unknown as { corners: number[][] };
    (p as unknown as { corners: number[][] }).corners.forEach((corner, i) => corner.forEach((v, c) => expect(again.corners[i][c]).toBeCloseTo(v, 6)));
  });
});
