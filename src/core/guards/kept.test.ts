import { testBench } from '@/testing/machine';
import { drawIrises } from './irises';
import { GRID, IRIS_POINTS, irisOf, MESH_POINTS, type Face } from './finding';
import { Planes } from '../image/planes';
import { growKept } from './kept';

const bench = testBench(96);
const { machine, scratch } = bench;
const [W, H] = [200, 150];

describe('what is kept by a tap', () => {
  // A dark square on a light ground, with a grey one touching it.
  const photo = bench.picture(W, H, (x, y) =>
    x > 60 && x < 100 && y > 50 && y < 90 ? [30, 30, 30] : x >= 100 && x < 130 && y > 50 && y < 90 ? [120, 120, 120] : [220, 220, 220],
  );
  const grown = (...strokes: Parameters<typeof growKept>[4]) => {
    scratch.reset();
    const at = growKept(machine, scratch, photo, { width: W, height: H }, strokes);
    return (x: number, y: number) => machine.floats[at / 4 + y * W + x];
  };
  // A tip of 50 pixels: 500 u.
  const tap = (keep: boolean, x: number, y: number, size = 500) => ({ keep, size, points: [[x / W, y / H]] as [number, number][] });

  it('goes to the edges of what is tapped and no further', () => {
    const at = grown(tap(true, 80, 70));
    for (const [x, y] of [
      [80, 70],
      [65, 55],
      [96, 86],
    ])
      expect(at(x, y)).toBeGreaterThan(0.9);
    for (const [x, y] of [
      [80, 42],
      [115, 70],
      [50, 70],
      [180, 20],
    ])
      expect(at(x, y)).toBeLessThan(0.1);
  });
  it('takes in what a stroke touches besides, and leaves out what another touches', () => {
    const both = grown({
      keep: true,
      size: 500,
      points: [
        [80 / W, 70 / H],
        [115 / W, 70 / H],
      ],
    });
    expect(both(115, 70)).toBeGreaterThan(0.9);
    const left = grown(
      {
        keep: true,
        size: 500,
        points: [
          [80 / W, 70 / H],
          [115 / W, 70 / H],
        ],
      },
      tap(false, 118, 70, 300),
    );
    expect(left(80, 70)).toBeGreaterThan(0.9);
    expect(left(122, 70)).toBeLessThan(0.2);
  });
  it('is nothing when all of it is to be left out', () => expect(grown(tap(false, 80, 70))(80, 70)).toBe(0));
});

describe('irises', () => {
  const face = (irises?: number[]): Face => ({ score: 1, mesh: Array.from({ length: MESH_POINTS * 3 }, () => 0), irises });
  const k = GRID / W;
  const ring = (x: number, y: number, r: number) => [x, y, x + r, y, x, y - r, x - r, y, x, y + r].map((v) => Math.round(v * k));

  it('are read as circles, the person’s right one first; findings of earlier versions have none', () => {
    const found = irisOf(face([...ring(60, 70, 8), ...ring(140, 72, 6)]), W);
    expect(found?.[0].x).toBeCloseTo(60, 1);
    expect(found?.[0].radius).toBeCloseTo(8, 1);
    expect(found?.[1].y).toBeCloseTo(72, 1);
    expect(irisOf(face(), W)).toBeNull();
    expect(ring(0, 0, 1)).toHaveLength(IRIS_POINTS);
  });

  it('lie within the open eye, with the light in them apart', () => {
    scratch.reset();
    const planes = new Planes(machine, scratch, W, H);
    const one = face([...ring(60, 70, 8), ...ring(140, 70, 8)]);
    const put = (i: number, x: number, y: number) => [0, 1].forEach((c) => (one.mesh[3 * i + c] = Math.round([x, y][c] * k)));
    put(234, 20, 75);
    put(454, 180, 75);
    // Both eyes as flat boxes: the lids cover the upper half of the irises.
    const eyes = {
      33: [45, 70],
      246: [45, 70],
      161: [52, 70],
      160: [56, 70],
      159: [60, 70],
      158: [64, 70],
      157: [68, 70],
      173: [72, 70],
      133: [75, 70],
    };
    const right = [7, 163, 144, 145, 153, 154, 155];
    Object.entries(eyes).forEach(([i, [x, y]]) => put(Number(i), x, y));
    right.forEach((i, n) => put(i, 47 + 4.3 * n, 82));
    const luma = planes.make(0.2);
    for (let y = 73; y < 76; y++) for (let x = 58; x < 61; x++) machine.floats[luma / 4 + y * W + x] = 0.9;
    const drawn = drawIrises(planes, one, W, { luma, blue: luma, red: luma });
    const at = (plane: number, x: number, y: number) => machine.floats[plane / 4 + y * W + x];
    if (!drawn) throw new Error('no irises');
    expect(at(drawn.irises, 60, 74)).toBeGreaterThan(0.9);
    expect(at(drawn.irises, 60, 64)).toBeLessThan(0.1);
    expect(at(drawn.irises, 73, 74)).toBeLessThan(0.1);
    expect(at(drawn.catchlights, 59, 74)).toBeGreaterThan(0.9);
    expect(at(drawn.catchlights, 66, 74)).toBe(0);
  });
});
