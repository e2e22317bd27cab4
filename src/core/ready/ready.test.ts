import { contextOn, drawPiece } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema, pieceSchema, type Piece } from '../piece/schema';
import { fillLaid } from '../lay/laid';
import { isLargest, largestFrame, withFlip, withQuarter, withTurn, within } from './frame';
import { cropMap, outline, readiedMap, readiedSize } from './geometry';
import { apply, invert, squareTo, type Point } from '../image/projection';
import type { Affine } from '../image/sample';
import { setReady } from '../piece/rebase';
import { neutralReady, readySchema, type Ready } from './schema';

const ready = (r: object): Ready => readySchema.parse(r);
const photoSize = { width: 300, height: 200 };

describe('geometry', () => {
  it('turns by quarters clockwise and then mirrors', () => {
    // The left upper corner of the file: after one quarter turn clockwise it lies right above.
    const at = (r: object, p: Point) => apply(invert(readiedMap(photoSize, ready(r))), p);
    expect(readiedSize(photoSize, ready({ quarter: 1 }))).toEqual({ width: 200, height: 300 });
    expect(at({ quarter: 1 }, [0, 0])).toEqual([200, 0]);
    expect(at({ quarter: 2 }, [0, 0])).toEqual([300, 200]);
    expect(at({ quarter: 3 }, [0, 0])).toEqual([0, 300]);
    expect(at({ flip: true }, [0, 0])).toEqual([300, 0]);
    expect(at({ quarter: 1, flip: true }, [0, 0])).toEqual([0, 0]);
  });

  it('crops by fractions after quarter turns, on whole pixels', () => {
    const r = ready({ crop: { x: 0.1, y: 0.25, w: 0.5, h: 0.5 } });
    expect(readiedSize(photoSize, r)).toEqual({ width: 150, height: 100 });
    expect(apply(readiedMap(photoSize, r), [0, 0])).toEqual([30, 50]);
  });

  it('turns the frame clockwise about its own centre', () => {
    const r = ready({ crop: { x: 0.25, y: 0.25, w: 0.5, h: 0.5, turn: 90 / 2 } });
    const map = readiedMap(photoSize, r);
    const [cx, cy] = apply(map, [75, 50]);
    expect(cx).toBeCloseTo(150, 9);
    expect(cy).toBeCloseTo(100, 9);
    // The right end of the frame's middle line has gone down.
    const [x, y] = apply(map, [150, 50]);
    expect(x).toBeCloseTo(150 + 75 * Math.SQRT1_2, 9);
    expect(y).toBeCloseTo(100 + 75 * Math.SQRT1_2, 9);
  });

  it('brings four points of the photo to its corners', () => {
    const corners: [Point, Point, Point, Point] = [
      [0.1, 0.05],
      [0.9, 0.1],
      [0.95, 0.9],
      [0.02, 0.97],
    ];
    const map = readiedMap(photoSize, ready({ perspective: { corners } }));
    const want = corners.map(([x, y]) => [x * 300, y * 200]);
    [
      [0, 0],
      [300, 0],
      [300, 200],
      [0, 200],
    ].forEach((p, i) => apply(map, p as Point).forEach((v, k) => expect(v).toBeCloseTo(want[i][k], 6)));
    // Straight lines stay straight: the crossing of the diagonals is kept.
    const cross = apply(squareTo(corners), [0.5, 0.5]);
    const side = ([ax, ay]: Point, [bx, by]: Point, [px, py]: Point) => (bx - ax) * (py - ay) - (by - ay) * (px - ax);
    expect(side(corners[0], corners[2], cross)).toBeCloseTo(0, 9);
    expect(side(corners[1], corners[3], cross)).toBeCloseTo(0, 9);
    expect(() =>
      readiedMap(
        photoSize,
        ready({
          perspective: {
            corners: [
              [0, 0],
              [0.5, 0.5],
              [1, 1],
              [0.2, 0.2],
            ],
          },
        }),
      ),
    ).toThrow('lie on one line');
  });
});

describe('the largest frame without empty corners', () => {
  const inside = (r: Ready) => {
    const size = readiedSize(photoSize, r);
    const edges = outline(photoSize, r);
    return (
      [
        [0, 0],
        [size.width, 0],
        [size.width, size.height],
        [0, size.height],
      ] as Point[]
    ).every((corner) => {
      const p = apply(cropMap(photoSize, r), corner);
      return edges.every(([x, y], i) => {
        const [x2, y2] = edges[(i + 1) % 4];
        const cross = (x2 - x) * (p[1] - y) - (y2 - y) * (p[0] - x);
        return r.flip ? cross <= 0.01 : cross >= -0.01;
      });
    });
  };

  it('is the photo itself when nothing is turned', () => {
    expect(largestFrame(photoSize, neutralReady, 1.5, 0)).toMatchObject({ w: 1, h: 1 });
  });

  it.each([1, 4, -7, 20, 44])('fits at %d degrees, and no frame a hundredth larger does', (turn) => {
    const r = { ...neutralReady, crop: largestFrame(photoSize, neutralReady, 1.5, turn) };
    expect(inside(r)).toBe(true);
    // The known largest rectangle of the same shape: W' = W / (cos + sin · W/H) when H limits.
    const a = (Math.abs(turn) * Math.PI) / 180;
    const w = Math.min(300 / (Math.cos(a) + Math.sin(a) / 1.5), 200 / (Math.sin(a) + Math.cos(a) / 1.5));
    expect(Math.abs(r.crop.w * 300 - w)).toBeLessThan(2.5);
  });

  it('follows the turn while it is the largest; another frame is kept, and drawn in when it sticks out', () => {
    const turned = withTurn(photoSize, neutralReady, 5);
    expect(isLargest(photoSize, turned)).toBe(true);
    expect(withTurn(photoSize, turned, 0).crop.w).toBeCloseTo(1, 2);
    const own = { ...neutralReady, crop: { x: 0.4, y: 0.4, w: 0.2, h: 0.2, turn: 0 } };
    expect(withTurn(photoSize, own, 5).crop).toEqual({ ...own.crop, turn: 5 });
    const wide = within(photoSize, neutralReady, { x: 0.5, y: 0, w: 0.8, h: 1, turn: 0 });
    expect(inside({ ...neutralReady, crop: wide })).toBe(true);
    expect((wide.w * 300) / (wide.h * 200)).toBeCloseTo((0.8 * 300) / 200, 6);
  });

  it('is inside a perspective too', () => {
    const r = ready({
      perspective: {
        corners: [
          [0.1, 0],
          [0.9, 0],
          [1, 1],
          [0, 1],
        ],
      },
    });
    const crop = largestFrame(photoSize, r, 1.5, 3);
    expect(inside({ ...r, crop })).toBe(true);
    expect(crop.w).toBeGreaterThan(0.6);
  });
});

const bench = testBench(200);
const { machine } = bench;
const photo = bench.picture(300, 200, (x, y) => [Math.round((x * 255) / 299), Math.round((y * 255) / 199), (x * 7 + y * 13) % 256]);
const sheet = bench.picture(160, 120, (x, y) => [Math.round(120 + 100 * Math.sin(x / 9)), Math.round(120 + 100 * Math.sin(y / 7)), (x + y) % 256]);

function draw(piece: Pick<Piece, 'coats' | 'ready'>, scale = 1): { pixels: Uint8Array; width: number; height: number } {
  const r = piece.ready ?? neutralReady;
  const size = readiedSize(photoSize, r);
  const [width, height] = [Math.round(size.width * scale), Math.round(size.height * scale)];
  const load = ({ need }: { need: string }) => (need === 'picture' ? { kind: 'picture' as const, picture: sheet } : undefined);
  return { pixels: drawPiece(bench, { photo, ...piece, scale, tile: 400, load }), width, height };
}
const at = ({ pixels, width }: ReturnType<typeof draw>, x: number, y: number) => [...pixels.slice((y * width + x) * 4, (y * width + x) * 4 + 3)];
const file = (x: number, y: number) => [...machine.bytes.slice(photo.levels[0] + (y * 300 + x) * 4, photo.levels[0] + (y * 300 + x) * 4 + 3)];

describe('the readied photo', () => {
  it('shows the pixels of the file, cropped, turned and mirrored, unchanged', () => {
    const crop = draw({ coats: [], ready: ready({ crop: { x: 0.1, y: 0.25, w: 0.5, h: 0.5 } }) });
    expect(at(crop, 10, 20)).toEqual(file(40, 70));
    const turned = draw({ coats: [], ready: ready({ quarter: 1 }) });
    expect([turned.width, turned.height]).toEqual([200, 300]);
    expect(at(turned, 199, 0)).toEqual(file(0, 0));
    expect(at(turned, 150, 30)).toEqual(file(30, 49));
    const mirrored = draw({ coats: [], ready: ready({ flip: true, quarter: 2 }) });
    expect(at(mirrored, 0, 0)).toEqual(file(0, 199));
  });

  it('makes a picked spot grey and keeps its luma', () => {
    const before = file(90, 120);
    const r = ready({ whiteBalance: { neutral: [90.5 / 300, 120.5 / 200] } });
    const [red, green, blue] = at(draw({ coats: [], ready: r }), 90, 120);
    expect(Math.abs(red - green)).toBeLessThanOrEqual(1);
    expect(Math.abs(green - blue)).toBeLessThanOrEqual(1);
    expect(Math.abs(green - (0.2126 * before[0] + 0.7152 * before[1] + 0.0722 * before[2]))).toBeLessThan(1.5);
  });

  it('keeps the spot when the frame changes', () => {
    const piece = pieceSchema.parse({
      dermatex: 1,
      id: 'p',
      name: 'p',
      created: 1,
      changed: 1,
      photo: { key: 'k', name: 'k', ...photoSize },
      ready: { whiteBalance: { neutral: [0.6, 0.7] } },
    });
    const after = setReady(piece, withFlip({ ...(piece.ready as Ready), crop: { x: 0.2, y: 0.2, w: 0.7, h: 0.7, turn: 0 } }));
    const a = apply(readiedMap(photoSize, piece.ready), [0.6 * 300, 0.7 * 200]);
    const size = readiedSize(photoSize, after.ready);
    const [nx, ny] = after.ready?.whiteBalance?.neutral as Point;
    const b = apply(readiedMap(photoSize, after.ready), [nx * size.width, ny * size.height]);
    expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.5);
  });
});

// issue 3: after a crop, turn or flip, coat and mask pixels stay on the same photo points within 0.5 px.
const changes: [string, (r: Ready) => Ready][] = [
  ['a crop', (r) => ({ ...r, crop: { x: 0.2, y: 0.1, w: 0.6, h: 0.8, turn: 0 } })],
  ['a deep crop', (r) => ({ ...r, crop: { x: 0.55, y: 0.45, w: 0.15, h: 0.2, turn: 0 } })],
  ['a turned crop', (r) => withTurn(photoSize, r, 7)],
  ['a quarter turn', (r) => withQuarter(r, 1)],
  ['a quarter turn back', (r) => withQuarter(r, -1)],
  ['a flip', (r) => withFlip(r)],
  ['all of them', (r) => withQuarter(withFlip(withTurn(photoSize, { ...r, crop: { x: 0.1, y: 0.15, w: 0.7, h: 0.7, turn: 0 } }, -4)), 1)],
];

describe.each(changes)('after %s', (_name, change) => {
  const base = (lay: object) =>
    pieceSchema.parse({
      dermatex: 1,
      id: 'p',
      name: 'p',
      created: 1,
      changed: 1,
      photo: { key: 'k', name: 'k', ...photoSize },
      coats: [
        coatSchema.parse({
          id: 'a',
          source: { kind: 'picture', file: 'x', width: 160, height: 120 },
          lay,
          mask: {
            parts: [
              { kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.45, rx: 0.2, ry: 0.3, turn: 20, feather: 0.5, density: 1 },
              {
                kind: 'strokes',
                strokes: [
                  {
                    does: 'take',
                    size: 200,
                    points: [
                      [0.3, 0.3, 1],
                      [0.7, 0.6, 1],
                    ],
                  },
                ],
              },
            ],
          },
        }),
      ],
    });

  it.each([
    ['covering', { fit: 'cover', scale: 1.3, x: 0.05, y: -0.1, turn: 12, flipY: true }],
    ['contained', { fit: 'contain' }],
    ['stretched', { fit: 'stretch', turn: 90 }],
    ['tiled', { fit: 'tile', scale: 0.7, turn: -30 }],
  ])('a coat %s stays on the same points of the photo within half a pixel', (_fit, lay) => {
    const piece = base(lay);
    const after = setReady(piece, change(piece.ready ?? neutralReady));
    // Where a coat's source is read, told by the map from the file's pixels to the source's.
    const spots = (p: Piece) => {
      const r = p.ready ?? neutralReady;
      const context = contextOn(bench, photo, 1, r);
      return (file: Point): Point => {
        const q = apply(invert(readiedMap(photoSize, r)), file);
        const seen: Point[] = [];
        const spy = {
          ...machine,
          kernels: {
            ...machine.kernels,
            sampleAffine: ({ a, b, c, d, e, f }: Affine) => void seen.push([a * q[0] + c * q[1] + e, b * q[0] + d * q[1] + f]),
          },
        };
        fillLaid(
          { ...context, machine: spy as unknown as typeof machine },
          { x: 0, y: 0, width: 1, height: 1, ptr: 0, stride: 0, count: 0 },
          { picture: { ...sheet, levels: sheet.levels.slice(0, 1) } },
          p.coats[0].lay,
        );
        return seen[0];
      };
    };
    const [one, two] = [spots(piece), spots(after)];
    for (const p of [
      [60, 50],
      [150, 100],
      [240, 160],
    ] as Point[]) {
      const [a, b] = [one(p), two(p)];
      expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.5);
    }
  });

  it('its mask does too', () => {
    const piece = base({ fit: 'cover' });
    const after = setReady(piece, change(neutralReady));
    const parts = (p: Piece) =>
      p.coats[0].mask.parts as unknown as [{ cx: number; cy: number; rx: number }, { strokes: { size: number; points: Point[] }[] }];
    const toFile = (p: Piece, [x, y]: [number, number, ...unknown[]]) => {
      const size = readiedSize(photoSize, p.ready);
      return apply(readiedMap(photoSize, p.ready), [x * size.width, y * size.height]);
    };
    const near = (a: Point, b: Point) => expect(Math.hypot(a[0] - b[0], a[1] - b[1])).toBeLessThan(0.5);
    near(toFile(piece, [parts(piece)[0].cx, parts(piece)[0].cy]), toFile(after, [parts(after)[0].cx, parts(after)[0].cy]));
    parts(piece)[1].strokes[0].points.forEach((p, i) => near(toFile(piece, p), toFile(after, parts(after)[1].strokes[0].points[i])));
    const long = (p: Piece) => Math.max(...Object.values(readiedSize(photoSize, p.ready)));
    expect((parts(after)[1].strokes[0].size * long(after)) / 2000).toBeCloseTo((200 * 300) / 2000, 6);
    expect(parts(after)[0].rx * readiedSize(photoSize, after.ready).width).toBeCloseTo(0.2 * 300, 6);
  });

  it('and back again is what it was', () => {
    const piece = base({ fit: 'cover', scale: 1.3, x: 0.05, turn: 12 });
    const back = setReady(setReady(piece, change(neutralReady)), neutralReady);
    const { lay } = back.coats[0];
    expect(lay.scale).toBeCloseTo(1.3, 6);
    expect(lay.x).toBeCloseTo(0.05, 6);
    expect(lay.turn).toBeCloseTo(12, 4);
    expect(lay.stretchX).toBeCloseTo(1, 6);
    expect(lay.flipX).toBe(false);
  });
});

it('a preview of a turned frame equals the reduced export within 1.5 levels mean', () => {
  const smooth = bench.picture(600, 400, (x, y) =>
    [128 + 90 * Math.sin(x / 23), 128 + 90 * Math.cos(y / 31), 128 + 60 * Math.sin((x + y) / 40)].map(Math.round),
  );
  const r = withTurn({ width: 600, height: 400 }, neutralReady, 4);
  const go = (scale: number) => {
    const size = readiedSize({ width: 600, height: 400 }, r);
    const [width, height] = [Math.floor(size.width * scale), Math.floor(size.height * scale)];
    const pixels = drawPiece(bench, { photo: smooth, ready: r, scale, region: { x: 0, y: 0, width, height }, tile: 700 });
    return { pixels, width, height };
  };
  const [full, half] = [go(1), go(0.5)];
  let sum = 0;
  for (let y = 0; y < half.height; y++)
    for (let x = 0; x < half.width; x++)
      for (let c = 0; c < 3; c++) {
        const p = (i: number, j: number) => full.pixels[((2 * y + j) * full.width + 2 * x + i) * 4 + c];
        sum += Math.abs((p(0, 0) + p(1, 0) + p(0, 1) + p(1, 1)) / 4 - half.pixels[(y * half.width + x) * 4 + c]);
      }
  expect(sum / (half.width * half.height * 3)).toBeLessThan(1.5);
});
