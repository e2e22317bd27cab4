import { numbers } from '@/testing/machine';
import { outline, readiedMap, readiedSize, uprightMap } from './geometry';
import { findUprights, type Line } from './level';
import { apply, invert, squareTo, type Point } from '../image/projection';
import { isConvex, wholeCorners, type Corners } from '../image/corners';
import { uprightCorners, withCorners } from './perspective';
import { neutralReady } from './schema';

const photo = { width: 480, height: 320 };
const lean = ([a, b]: Line, map: (p: Point) => Point) => {
  const [p, q] = [map(a), map(b)];
  // A line may be drawn either way.
  const degrees = (Math.atan2(q[0] - p[0], q[1] - p[1]) * 180) / Math.PI;
  return degrees - 180 * Math.round(degrees / 180);
};

describe('upright verticals by two lines', () => {
  const cases: [string, Line, Line][] = [
    [
      'converging upwards',
      [
        [0.2, 0.9],
        [0.3, 0.1],
      ],
      [
        [0.85, 0.9],
        [0.72, 0.2],
      ],
    ],
    [
      'converging downwards',
      [
        [0.2, 0.1],
        [0.3, 0.9],
      ],
      [
        [0.8, 0.1],
        [0.75, 0.8],
      ],
    ],
    [
      'leaning alike',
      [
        [0.2, 0.1],
        [0.25, 0.9],
      ],
      [
        [0.7, 0.1],
        [0.75, 0.9],
      ],
    ],
    [
      'already upright',
      [
        [0.2, 0.1],
        [0.2, 0.9],
      ],
      [
        [0.7, 0.1],
        [0.7, 0.9],
      ],
    ],
  ];
  it.each(cases)('%s', (_name, one, two) => {
    const ready = withCorners(photo, neutralReady, uprightCorners(one, two));
    const back = invert(uprightMap(photo, ready));
    const map = ([x, y]: Point) => apply(back, [x * photo.width, y * photo.height]);
    for (const line of [one, two]) expect(Math.abs(lean(line, map))).toBeLessThan(1e-6);
    // No empty corner.
    const size = readiedSize(photo, ready);
    for (const corner of [
      [0, 0],
      [size.width, 0],
      [size.width, size.height],
      [0, size.height],
    ] as Point[]) {
      const [x, y] = apply(readiedMap(photo, ready), corner);
      expect(x).toBeGreaterThan(-0.6);
      expect(y).toBeGreaterThan(-0.6);
      expect(x).toBeLessThan(photo.width + 0.6);
      expect(y).toBeLessThan(photo.height + 0.6);
    }
  });
  it('refuses lines that run level, and lines that meet in the picture', () => {
    expect(() =>
      uprightCorners(
        [
          [0.1, 0.5],
          [0.9, 0.5],
        ],
        [
          [0.2, 0],
          [0.2, 1],
        ],
      ),
    ).toThrow('run level');
    expect(() =>
      uprightCorners(
        [
          [0.1, 0],
          [0.9, 1],
        ],
        [
          [0.9, 0],
          [0.1, 1],
        ],
      ),
    ).toThrow('meet too near');
  });
});

it('four corners within the photo become its frame', () => {
  const corners: Corners = [
    [0.2, 0.1],
    [0.7, 0.2],
    [0.75, 0.8],
    [0.15, 0.9],
  ];
  const ready = withCorners(photo, neutralReady, corners);
  expect(ready.crop).toEqual(neutralReady.crop);
  const size = readiedSize(photo, ready);
  const [x, y] = apply(readiedMap(photo, ready), [size.width, 0]);
  expect([x / photo.width, y / photo.height]).toEqual([expect.closeTo(0.7, 9), expect.closeTo(0.2, 9)]);
});

it('four corners go round without a dent', () => {
  expect(isConvex(wholeCorners)).toBe(true);
  expect(
    isConvex([
      [0, 0],
      [0.6, 0.3],
      [1, 1],
      [0, 1],
    ]),
  ).toBe(true);
  expect(
    isConvex([
      [0, 0],
      [1, 0],
      [0.2, 0.2],
      [0, 1],
    ]),
  ).toBe(false);
  expect(
    isConvex([
      [1, 0],
      [0, 0],
      [1, 1],
      [0, 1],
    ]),
  ).toBe(false);
  expect(outline(photo, withCorners(photo, neutralReady, null))).toHaveLength(4);
});

describe('uprights found by themselves', () => {
  /** A front of a house with windows, seen under a perspective that is given by four corners. */
  const scene = (corners: Corners): Float32Array => {
    const map = invert(squareTo(corners));
    const random = numbers(3);
    return Float32Array.from({ length: photo.width * photo.height }, (_, i) => {
      let sum = 0;
      for (let k = 0; k < 4; k++) {
        const [u, v] = apply(map, [
          ((i % photo.width) + (k % 2) / 2 + 0.25) / photo.width,
          (Math.floor(i / photo.width) + Math.floor(k / 2) / 2 + 0.25) / photo.height,
        ]);
        const [p, q] = [(u * 9) % 1, (v * 5) % 1];
        sum += u < 0.02 || u > 0.98 || v < 0.02 || v > 0.98 ? 200 : p > 0.3 && p < 0.7 && q > 0.25 && q < 0.8 ? 60 : 140;
      }
      return sum / 4 + 6 * random();
    });
  };
  it.each([[0.06], [0.1], [-0.08]])('take a keystone of %d of the width back to within half a degree', (k) => {
    const corners: Corners = [
      [k, 0],
      [1 - k, 0],
      [1, 1],
      [0, 1],
    ];
    const lines = findUprights(scene(corners), photo);
    expect(lines).not.toBeNull();
    const back = invert(squareTo(uprightCorners(...(lines as [Line, Line]))));
    // The true verticals of the front, left and right.
    for (const x of [0.15, 0.85]) {
      const line = [
        [x, 0.1],
        [x, 0.9],
      ].map((p) => apply(squareTo(corners), p as Point)) as Line;
      const angle = lean(line, (p) => {
        const [u, v] = apply(back, p);
        return [u * photo.width, v * photo.height];
      });
      expect(Math.abs(angle)).toBeLessThan(0.5);
    }
  });
  it('are not found where there are none', () => {
    const random = numbers(4);
    expect(
      findUprights(
        Float32Array.from({ length: photo.width * photo.height }, () => 255 * random()),
        photo,
      ),
    ).toBeNull();
  });
});
