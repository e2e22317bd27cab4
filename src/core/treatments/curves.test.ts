import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { treatmentByKind } from '.';
import { smoothCurve, type CurvePoint } from './curves';

const bench = testBench(96);
const { machine, scratch } = bench;
const photo = bench.picture(16, 16, () => [0, 0, 0]);

function ramp(values: object): number[][] {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: 256, height: 1 });
  for (let i = 0; i < 256; i++) for (let c = 0; c < 4; c++) machine.floats[(tile.ptr + c * tile.stride) / 4 + i] = c === 3 ? 1 : i / 255;
  const treatment = treatmentByKind('curves');
  treatment.apply(contextOn(bench, photo), tile, treatment.schema.parse({ kind: 'curves', ...values }));
  return [0, 1, 2].map((c) => Array.from({ length: 256 }, (_, i) => machine.floats[(tile.ptr + c * tile.stride) / 4 + i]));
}

// Fritsch & Carlson 1980: the interpolant passes through the data and is monotone wherever the data are.
describe('a smooth curve', () => {
  const sets: CurvePoint[][] = [
    [
      [0, 0],
      [0.25, 0.1],
      [0.5, 0.55],
      [1, 1],
    ],
    [
      [0, 0.1],
      [0.1, 0.1],
      [0.12, 0.8],
      [0.6, 0.82],
      [1, 0.9],
    ],
    [
      [0.1, 0],
      [0.9, 1],
    ],
    [
      [0, 1],
      [0.4, 0.6],
      [0.7, 0.1],
      [1, 0],
    ],
  ];
  it.each(sets.map((s) => [s]))('goes through %j and turns nowhere between', (points) => {
    const f = smoothCurve(points);
    for (const [x, y] of points) expect(f(x)).toBeCloseTo(y, 12);
    for (let i = 0; i + 1 < points.length; i++) {
      const [[x0, y0], [x1, y1]] = [points[i], points[i + 1]];
      let last = y0;
      for (let k = 1; k <= 50; k++) {
        const y = f(x0 + ((x1 - x0) * k) / 50);
        expect((y - last) * Math.sign(y1 - y0 || 1)).toBeGreaterThanOrEqual(-1e-12);
        last = y;
      }
    }
    expect(f(-1)).toBe(points[0][1]);
    expect(f(2)).toBe(points[points.length - 1][1]);
  });

  it('through two points is a straight line', () => {
    const f = smoothCurve([
      [0.2, 0.1],
      [0.8, 0.7],
    ]);
    for (let x = 0.2; x <= 0.8; x += 0.05) expect(f(x)).toBeCloseTo(x - 0.1, 12);
  });
});

it('works on all channels and on one, to a thousandth', () => {
  const all: CurvePoint[] = [
    [0, 0.05],
    [0.5, 0.6],
    [1, 0.95],
  ];
  const [red, green, blue] = ramp({
    all,
    blue: [
      [0, 0.2],
      [1, 1],
    ],
  });
  const f = smoothCurve(all);
  for (let i = 0; i < 256; i++) {
    expect(Math.abs(red[i] - f(i / 255))).toBeLessThan(1e-3);
    expect(green[i]).toBe(red[i]);
    expect(Math.abs(blue[i] - (0.2 + 0.8 * f(i / 255)))).toBeLessThan(1e-3);
  }
});

it('refuses points that do not rise, and too few', () => {
  const { schema, neutral } = treatmentByKind('curves');
  expect(
    schema.safeParse({
      kind: 'curves',
      all: [
        [0.5, 0],
        [0.5, 1],
      ],
    }).success,
  ).toBe(false);
  expect(schema.safeParse({ kind: 'curves', red: [[0, 0]] }).success).toBe(false);
  expect(neutral(schema.parse({ kind: 'curves' }))).toBe(true);
  expect(
    neutral(
      schema.parse({
        kind: 'curves',
        red: [
          [0.1, 0.1],
          [1, 1],
        ],
      }),
    ),
  ).toBe(false);
});
