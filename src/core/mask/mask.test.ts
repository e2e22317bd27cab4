import { maskValues } from '@/testing/draw';
import { numbers, testBench } from '@/testing/machine';
import { maskPartByKind } from '.';

// Scalar references, written from the definitions: smoothstep 3t² − 2t³, and add, subtract and intersect as the algebra of alphas.
const bench = testBench(96);
const { machine, scratch, picture } = bench;
const { kernels, floats } = machine;
const clamp = (v: number) => Math.min(1, Math.max(0, v));
const smooth = (e0: number, e1: number, x: number) => {
  const t = clamp((x - e0) / (e1 - e0));
  return t * t * (3 - 2 * t);
};
const combine = [(m: number, v: number) => m + (1 - m) * v, (m: number, v: number) => m * (1 - v), (m: number, v: number) => m * v];
const random = numbers(3);
const fresh = (count: number, value?: number) => {
  scratch.reset();
  const at = scratch.plane(count + 8, 0);
  for (let i = 0; i < count; i++) floats[at / 4 + i] = value ?? random();
  return at;
};

describe('an ellipse', () => {
  it.each([
    ['added', 0, 61, 37],
    ['taken away', 1, 64, 40],
    ['kept inside', 2, 31, 50],
  ])('%s equals its formula, at widths that are no multiple of four', (_name, op, w, h) => {
    const at = fresh(w * h);
    const before = floats.slice(at / 4, at / 4 + w * h + 4);
    const [cx, cy, rx, ry, turn, feather, density] = [22.3, 19.1, 18, 9, 0.6, 0.45, 0.8];
    kernels.maskEllipse({ mask: at, tw: w, th: h, cx, cy, rx, ry, cos: Math.cos(turn), sin: Math.sin(turn), feather, density, op, shape: 0 });
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        const [dx, dy] = [x + 0.5 - cx, y + 0.5 - cy];
        const u = (dx * Math.cos(turn) + dy * Math.sin(turn)) / rx;
        const v = (dy * Math.cos(turn) - dx * Math.sin(turn)) / ry;
        const value = (1 - smooth(1 - feather, 1, Math.hypot(u, v))) * density;
        expect(Math.abs(floats[at / 4 + y * w + x] - combine[op](before[y * w + x], value))).toBeLessThan(2e-5);
      }
    }
    // Nothing is written beyond the plane.
    expect([...floats.slice(at / 4 + w * h, at / 4 + w * h + 4)]).toEqual([...before.slice(w * h)]);
  });

  it('with no feather is anti-aliased over one pixel and full in its middle', () => {
    const at = fresh(64 * 64, 0);
    kernels.maskEllipse({ mask: at, tw: 64, th: 64, cx: 32, cy: 32, rx: 20, ry: 20, cos: 1, sin: 0, feather: 0, density: 1, op: 0, shape: 0 });
    let area = 0;
    for (let i = 0; i < 64 * 64; i++) area += floats[at / 4 + i];
    expect(floats[at / 4 + 32 * 64 + 32]).toBe(1);
    // A pixel-wide soft edge lies just inside the radius.
    expect(area / (Math.PI * 19.5 ** 2)).toBeGreaterThan(0.98);
    expect(area / (Math.PI * 19.5 ** 2)).toBeLessThan(1.02);
  });
});

describe('dabs', () => {
  it('build up as c + (1 − c)·flow·tip', () => {
    const [w, h] = [45, 33];
    const at = fresh(w * h, 0);
    const list = [
      [10.2, 8.7, 6, 0.5],
      [14, 10, 9.5, 0.3],
      [44, 30, 7, 1],
      [-3, 20, 8, 0.7],
    ];
    const dabs = scratch.plane(list.length * 7, 0);
    floats.set(
      list.flatMap((d) => [...d, 1, 0, 0]),
      dabs / 4,
    );
    const hardness = 0.4;
    kernels.stampDabs(at, w, h, dabs, list.length, hardness, 1);
    for (let y = 0; y < h; y++) {
      for (let x = 0; x < w; x++) {
        let c = 0;
        for (const [cx, cy, r, flow] of list) {
          const inner = Math.min(r * hardness, r - 0.5);
          c += (1 - c) * flow * (1 - smooth(inner, Math.max(r, inner + 1), Math.hypot(x + 0.5 - cx, y + 0.5 - cy)));
        }
        expect(Math.abs(floats[at / 4 + y * w + x] - c)).toBeLessThan(2e-5);
      }
    }
  });

  it('a whole stroke moves the mask towards its target by strength times cover', () => {
    const at = fresh(32);
    const before = [...floats.slice(at / 4, at / 4 + 32)];
    const cover = scratch.plane(32, 0);
    for (let i = 0; i < 32; i++) floats[cover / 4 + i] = i / 31;
    kernels.applyStroke(at, cover, 32, 0.25, 0.6);
    before.forEach((m, i) => expect(floats[at / 4 + i]).toBeCloseTo(m + (0.25 - m) * 0.6 * (i / 31), 5));
  });
});

it('tonal limits rise from b0 to b1 and fall from w0 to w1 on Rec. 709 luma', () => {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: 64, height: 1 });
  for (let i = 0; i < 64; i++) for (let c = 0; c < 4; c++) floats[(tile.ptr + c * tile.stride) / 4 + i] = c === 3 ? 1 : i / 63;
  const mask = scratch.plane(64, 1);
  kernels.maskLimits(mask, tile.ptr, tile.stride, 64, 0.2, 0.4, 0.7, 0.9);
  for (let i = 0; i < 64; i++) {
    const y = i / 63;
    expect(floats[mask / 4 + i]).toBeCloseTo(clamp((y - 0.2) / 0.2) * clamp((0.9 - y) / 0.2), 4);
  }
});

it('parts of a mask lie on the same points of the photo at every scale', () => {
  const photo = picture(400, 240, () => [0, 0, 0]);
  const part = { kind: 'ellipse', op: 'add', cx: 0.3, cy: 0.6, rx: 0.2, ry: 0.15, turn: 30, feather: 0.5, density: 1 };
  const strokes = {
    kind: 'strokes',
    strokes: [
      {
        does: 'put',
        size: 300,
        hardness: 0.2,
        strength: 0.8,
        flow: 0.4,
        level: 0.5,
        points: [
          [0.1, 0.2, 1],
          [0.8, 0.4, 1],
        ],
      },
    ],
  };
  const draw = (scale: number) => {
    const parts = [part, strokes].map((p) => maskPartByKind(p.kind).schema.parse(p)) as never[];
    return maskValues(bench, { parts }, { photo, scale });
  };
  const full = draw(1);
  const half = draw(0.5);
  let sum = 0;
  for (let y = 0; y < 120; y++) {
    for (let x = 0; x < 200; x++) {
      const mean =
        (full[2 * y * 400 + 2 * x] + full[2 * y * 400 + 2 * x + 1] + full[(2 * y + 1) * 400 + 2 * x] + full[(2 * y + 1) * 400 + 2 * x + 1]) / 4;
      sum += Math.abs(mean - half[y * 200 + x]);
    }
  }
  expect((255 * sum) / (200 * 120)).toBeLessThan(0.5);
});
