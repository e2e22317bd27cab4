import { differenceEuclidean } from 'culori';
import { maskValues, type TestDrawing } from '@/testing/draw';
import { numbers, testBench } from '@/testing/machine';
import { openCv } from '@/testing/opencv';
import { moveParams } from '../graph/operation';
import type { Mask } from '../piece/schema';
import { strokeSchema, type Stroke } from '../strokes/schema';
import { maskPartByKind, maskParts } from '.';
import { partReach, wholeReach } from './draw';
import { layStrokes } from '../strokes/lay';
import { cutTip } from '../strokes/tip';
import { buildLevels, levelUpTo, type Picture } from '../image/picture';
import { motionBy } from '../image/motion';
import { scaled } from '../image/projection';

const bench = testBench(160);
const { machine, scratch } = bench;
const { floats } = machine;
const W = 240;
const H = 160;
const random = numbers(12);
// Bands of colour, a ramp of light, and a little noise.
const photo = bench.picture(W, H, (x, y) => [x < 80 ? 200 : 40, Math.round((y / H) * 255), x > 160 ? 220 : 60 + Math.round(random() * 8)]);

const part = (kind: string, values: object = {}) => maskPartByKind(kind).schema.parse({ kind, op: 'add', ...values }) as Record<string, unknown>;

type TestMask = Omit<Partial<Mask>, 'parts'> & { parts: Record<string, unknown>[] };
const draw = (mask: TestMask, scale = 1, region?: TestDrawing['region'], load?: TestDrawing['load']) =>
  maskValues(bench, mask as Partial<Mask>, { photo, scale, load }, region);
/** Pixels around a pixel that a mask reads. */
const maskReach = (mask: TestMask, unit: number) => Math.max(...mask.parts.map((p) => partReach(p, unit))) + wholeReach(mask, unit);
const smooth = (t: number) => {
  const v = Math.min(1, Math.max(0, t));
  return v * v * (3 - 2 * v);
};
const each = (values: Float32Array, want: (x: number, y: number) => number, w = W) => {
  let worst = 0;
  values.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - want(i % w, Math.floor(i / w))))));
  return worst;
};

describe('an ellipse that becomes a box', () => {
  const shaped = (shape: number) => draw({ parts: [part('ellipse', { shape, cx: 0.5, cy: 0.5, rx: 0.3, ry: 0.3, feather: 0 })] });
  const area = (values: Float32Array) => values.reduce((s, v) => s + v, 0);
  it('has an ellipse’s area at one end, a box’s at the other, and a rounded box’s between', () => {
    // Radii less half of the soft pixel at the edge.
    const [rx, ry] = [0.3 * W, 0.3 * H];
    const edge = (1 - 0.5 / Math.min(rx, ry)) ** 2;
    expect(area(shaped(0)) / (Math.PI * rx * ry * edge)).toBeCloseTo(1, 2);
    expect(area(shaped(1)) / (4 * rx * ry * edge)).toBeCloseTo(1, 2);
    // A square of side 2 with corners of radius c has 4 − (4 − π)·c².
    expect(area(shaped(0.6)) / ((4 - (4 - Math.PI) * 0.16) * rx * ry * edge)).toBeCloseTo(1, 2);
  });
  it('fills the corners only as a box', () => {
    const corner = Math.round(0.5 * H + 0.28 * H) * W + Math.round(0.5 * W + 0.28 * W);
    expect(shaped(0)[corner]).toBe(0);
    expect(shaped(1)[corner]).toBe(1);
  });
});

it('a straight gradient rises by smoothstep to its most', () => {
  const values = draw({ parts: [part('gradient', { x0: 0.25, y0: 0.5, x1: 0.75, y1: 0.5, most: 0.5 })] });
  expect(each(values, (x) => 0.5 * smooth((x + 0.5 - 60) / 120))).toBeLessThan(1e-4);
});

it('lights and darks follow Rec. 709 luma of the photo between four places', () => {
  const values = draw({ parts: [part('tones', { range: [0.2, 0.4, 0.6, 0.8] })] });
  expect(
    each(values, (x, y) => {
      const [r, g, b] = [0, 1, 2].map((c) => machine.bytes[photo.levels[0] + (y * W + x) * 4 + c] / 255);
      const luma = 0.2126 * r + 0.7152 * g + 0.0722 * b;
      const ramp = (v: number) => Math.min(1, Math.max(0, v));
      return ramp((luma - 0.2) / 0.2) * ramp((0.8 - luma) / 0.2);
    }),
  ).toBeLessThan(1e-4);
});

it('picked colours are near in CIE Lab, by culori’s distance', () => {
  const picked = ['#c86432', '#2878dc'];
  const values = draw({ parts: [part('colours', { picked, tolerance: 40, soft: 0.5 })] });
  const distance = differenceEuclidean('lab65');
  let worst = 0;
  for (let i = 0; i < W * H; i += 97) {
    const at = photo.levels[0] + i * 4;
    const [r, g, b] = [0, 1, 2].map((c) => machine.bytes[at + c] / 255);
    const near = Math.min(...picked.map((hex) => distance({ mode: 'rgb', r, g, b }, hex)));
    worst = Math.max(worst, Math.abs(values[i] - (1 - smooth((near - 20) / 20))));
  }
  expect(worst).toBeLessThan(0.01);
  expect(Math.max(...draw({ parts: [part('colours')] }))).toBe(0);
});

describe('how parts join', () => {
  const half = part('gradient', { x0: 0.499, y0: 0.5, x1: 0.501, y1: 0.5 });
  const lower = (op: string, more: object = {}) => part('gradient', { op, x0: 0.5, y0: 0.499, x1: 0.5, y1: 0.501, ...more });
  const quarters = (values: Float32Array) => [40 * W + 60, 40 * W + 180, 120 * W + 60, 120 * W + 180].map((i) => +values[i].toFixed(3));
  it.each([
    ['add', {}, [0, 1, 1, 1]],
    ['subtract', {}, [0, 1, 0, 0]],
    ['intersect', {}, [0, 0, 0, 1]],
    ['add', { density: 0.4 }, [0, 1, 0.4, 1]],
    ['subtract', { density: 0.4 }, [0, 1, 0, 0.6]],
    ['intersect', { density: 0.4 }, [0, 0.6, 0, 1]],
    ['subtract', { invert: true }, [0, 0, 0, 1]],
    ['subtract', { active: false }, [0, 1, 0, 1]],
  ])('%s with %j', (op, more, want) => {
    expect(quarters(draw({ parts: [half, lower(op, more)] }))).toEqual(want);
  });
  it('in their order', () => {
    const [a, b] = [lower('add'), lower('subtract')];
    expect(quarters(draw({ parts: [half, a, b] }))).toEqual([0, 1, 0, 0]);
    expect(quarters(draw({ parts: [half, b, a] }))).toEqual([0, 1, 1, 1]);
  });
});

describe('the whole of a mask', () => {
  const box = part('ellipse', { shape: 1, cx: 0.5, cy: 0.5, rx: 0.2, ry: 0.2, feather: 0 });
  it('eased by its density leaves a little of the coat everywhere', () => {
    const values = draw({ parts: [box], density: 0.7 });
    expect(values[0]).toBeCloseTo(0.3, 5);
    expect(values[(H / 2) * W + W / 2]).toBeCloseTo(1, 5);
  });
  it('turned inside out is one minus it', () => {
    const [plain, turned] = [draw({ parts: [box] }), draw({ parts: [box], invert: true })];
    expect(each(turned, (x, y) => 1 - plain[y * W + x])).toBeLessThan(1e-6);
  });
  it('expanded is dilated by a disc of so many u (OpenCV)', () => {
    const unit = W / 2000;
    const r = 9;
    const values = draw({ parts: [box], expand: r / unit });
    const shape = openCv.matFromArray(
      2 * r + 1,
      2 * r + 1,
      openCv.CV_8UC1,
      Array.from({ length: (2 * r + 1) ** 2 }, (_, i) => +(((i % (2 * r + 1)) - r) ** 2 + (Math.floor(i / (2 * r + 1)) - r) ** 2 <= r * r)),
    );
    const from = openCv.matFromArray(H, W, openCv.CV_32FC1, draw({ parts: [box] }));
    const to = new openCv.Mat();
    openCv.dilate(from, to, shape);
    expect(each(values, (x, y) => to.data32F[y * W + x])).toBeLessThan(1e-4);
    [shape, from, to].forEach((m) => m.delete());
  });
  it('feathered is a Gaussian of a third of the feather (OpenCV)', () => {
    const sigma = 6;
    const values = draw({ parts: [box], feather: (3 * sigma) / (W / 2000) });
    const from = openCv.matFromArray(H, W, openCv.CV_32FC1, draw({ parts: [box] }));
    const to = new openCv.Mat();
    openCv.GaussianBlur(from, to, new openCv.Size(0, 0), sigma, sigma, openCv.BORDER_REPLICATE);
    expect(each(values, (x, y) => to.data32F[y * W + x])).toBeLessThan(0.02);
    [from, to].forEach((m) => m.delete());
  });
  it('drawn to edges follows the photo', () => {
    // At a size at which ten u are ten pixels.
    const wide = bench.picture(2000, 60, (x) => Array(3).fill(x < 1000 ? 60 : 190));
    const soft = part('gradient', { x0: 0.494, y0: 0.5, x1: 0.504, y1: 0.5 });
    const at = (refine: number, x: number) => {
      const where = { x: 900, y: 10, width: 200, height: 20 };
      return maskValues(bench, { parts: [soft] as never[], refine }, { photo: wide }, where)[10 * 200 + x - 900];
    };
    const step = (refine: number) => at(refine, 1002) - at(refine, 997);
    expect(step(1)).toBeGreaterThan(1.5 * step(0));
  });
});

const everything: Record<string, object> = {
  ellipse: { shape: 0.5, turn: 20 },
  gradient: {},
  tones: { range: [0.3, 0.5, 1, 1], feather: 30 },
  colours: { picked: ['#c86432'], tolerance: 40, feather: 20 },
  strokes: {
    feather: 40,
    density: 0.8,
    strokes: [
      {
        does: 'put',
        size: 300,
        strength: 0.8,
        points: [
          [0.2, 0.3, 1],
          [0.8, 0.6, 0.5],
        ],
      },
    ],
  },
};
describe.each(Object.keys(everything))('%s', (kind) => {
  const whole = { parts: [part(kind, everything[kind])], feather: 12, expand: 20, refine: 0.5 };
  it('is the same at half the scale, within a level', () => {
    const [full, half] = [draw(whole), draw(whole, 0.5)];
    let sum = 0;
    for (let y = 0; y < H / 2; y++)
      for (let x = 0; x < W / 2; x++) {
        const i = 2 * y * W + 2 * x;
        sum += Math.abs((full[i] + full[i + 1] + full[i + W] + full[i + W + 1]) / 4 - half[(y * W) / 2 + x]);
      }
    // A tone's edge on a photo reduced is not the reduced tone's edge: both are within this.
    expect((255 * sum) / ((W * H) / 4)).toBeLessThan(kind === 'tones' || kind === 'colours' ? 2.5 : 1);
  });
  it('does not depend on where tiles are cut', () => {
    const full = draw(whole);
    const tile = draw(whole, 1, { x: 70, y: 50, width: 64, height: 48 });
    let worst = 0;
    tile.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - full[(50 + Math.floor(i / 64)) * W + 70 + (i % 64)]))));
    expect(worst).toBeLessThan(2e-3);
    expect(maskReach(whole as unknown as TestMask, W / 2000)).toBeGreaterThan(0);
  });
});

describe('parts that read a picture', () => {
  // Dark stripes on a light ground, as cracks are.
  const stripes = bench.picture(W, H, (x) => Array(3).fill(x % 40 < 10 ? 20 : 230));
  const sized = { kind: 'picture' as const, picture: stripes, nominal: { width: W, height: H }, held: { width: W, height: H } };
  it('a material counts by its lights, or by its darks when its two places are turned round', () => {
    const at = (values: object, x: number) => draw({ parts: [part('material', { id: 'm', ...values })] }, 1, undefined, () => sized)[60 * W + x];
    expect([at({ black: 0.35, white: 0.65 }, 5), at({ black: 0.35, white: 0.65 }, 25)]).toEqual([0, 1]);
    expect([at({ black: 0.6, white: 0.35 }, 5), at({ black: 0.6, white: 0.35 }, 25)]).toEqual([1, 0]);
    // Both in one place part at it.
    expect([at({ black: 0.5, white: 0.5 }, 5), at({ black: 0.5, white: 0.5 }, 25)]).toEqual([0, 1]);
  });
  it('fine detail counts from the least that is asked for', () => {
    const grey = bench.picture(W, H, () => [115, 115, 115]);
    const at = (least: number) =>
      draw({ parts: [part('detail', { least })] }, 1, undefined, ({ need }) =>
        need === 'guard' ? { kind: 'picture', picture: grey } : undefined,
      )[0];
    expect(at(0)).toBe(1);
    expect(at(0.4)).toBeGreaterThan(0);
    expect(at(0.4)).toBeLessThan(0.5);
    expect(at(0.9)).toBe(0);
  });
  it('say what they need, and are not drawn without it', () => {
    for (const kind of ['material', 'detail', 'guard'])
      expect(() => draw({ parts: [part(kind, kind === 'material' ? { id: 'm' } : {})] }, 1, undefined, () => null)).toThrow('has not been loaded');
  });
});

it('far feathers and expansions are drawn smaller, and stay the same to the eye, whole and on tiles', () => {
  const box = part('ellipse', { shape: 1, cx: 0.5, cy: 0.5, rx: 0.15, ry: 0.15, feather: 0.1 });
  const far: TestMask = { start: 'none', parts: [box], feather: 250, expand: 150 };
  // At eight times the size it reads some four hundred pixels around, at its own some fifty.
  expect(maskReach(far, (8 * W) / 2000)).toBeGreaterThan(150);
  expect(maskReach(far, W / 2000)).toBeLessThan(72);
  const large = draw(far, 8, { x: 704, y: 304, width: 512, height: 400 });
  const small = draw(far, 1);
  let sum = 0;
  for (let y = 0; y < 50; y++) {
    for (let x = 0; x < 64; x++) {
      let mean = 0;
      for (let j = 0; j < 8; j++) for (let i = 0; i < 8; i++) mean += large[(8 * y + j) * 512 + 8 * x + i] / 64;
      sum += Math.abs(mean - small[(38 + y) * W + 88 + x]);
    }
  }
  expect((255 * sum) / (64 * 50)).toBeLessThan(1.5);
  const tile = draw(far, 8, { x: 864, y: 414, width: 128, height: 128 });
  let worst = 0;
  tile.forEach((v, i) => (worst = Math.max(worst, Math.abs(v - large[(110 + Math.floor(i / 128)) * 512 + 160 + (i % 128)]))));
  expect(worst).toBeLessThan(1e-3);
});

it('every kind has words, and stays where it is under a motion that is none', () => {
  const still = motionBy(scaled(1, 1), { width: W, height: H }, { width: W, height: H });
  for (const { kind, label } of maskParts) {
    expect(label.length).toBeGreaterThan(3);
    const values = part(kind, kind === 'material' ? { id: 'cracks.glaze' } : kind === 'coat' ? { coat: 'a' } : (everything[kind] ?? {}));
    const moved = moveParams(maskPartByKind(kind), values, still);
    expect(maskPartByKind(kind).schema.parse(moved)).toEqual(maskPartByKind(kind).schema.parse(values));
  }
});

describe('tips', () => {
  const grainOf = (from: Picture, marks: Stroke['marks']): Picture => {
    const target = bench.picture(from.width, from.height, () => [0, 0, 0]);
    cutTip(machine, scratch, { from: levelUpTo(from, 999), marks }, target);
    buildLevels(machine, target);
    return target;
  };
  const cut = grainOf(
    bench.picture(64, 64, (x) => Array(3).fill(x % 16 < 8 ? 255 : 0)),
    'lights',
  );
  // A net of dark lines on a plain ground.
  const net = grainOf(
    bench.picture(256, 256, (x, y) => Array(3).fill(x % 32 < 2 || y % 32 < 2 ? 90 : 180)),
    'darks',
  );
  const tap = (values: Partial<Stroke>): Float32Array => {
    scratch.reset();
    const at = scratch.plane(W * H + 8, 0);
    const stroke = strokeSchema.parse({ does: 'put', size: 500, hardness: 1, strength: 1, flow: 1, points: [[0.5, 0.5, 1]], ...values });
    const tips = { 'm:1:lights': cut, 'net:1:darks': net };
    layStrokes({ machine, scratch, unit: W / 2000, width: W, height: H }, at, { x: 0, y: 0, width: W, height: H }, [stroke], tips);
    return floats.slice(at / 4, at / 4 + W * H);
  };
  const area = (v: Float32Array) => v.reduce((s, x) => s + x, 0);
  it('a flat one is a third as thick, and turns', () => {
    expect(area(tap({ tip: 'flat' })) / area(tap({}))).toBeCloseTo(0.33, 1);
    const [level, upright] = [tap({ tip: 'flat', follow: false, angle: 0 }), tap({ tip: 'flat', follow: false, angle: 90 })];
    const across = (v: Float32Array) => v[80 * W + 120 + 22];
    expect([across(level), across(upright)].sort()).toEqual([0, 1]);
  });
  it('a round one stands even when its flow is whole', () => expect(tap({})[80 * W + 120]).toBe(1));
  it('one cut from a material paints with its lights only', () => {
    const values = tap({ tip: 'cut', material: { id: 'm', seed: 1 } });
    const share = area(values) / area(tap({}));
    expect(share).toBeGreaterThan(0.35);
    expect(share).toBeLessThan(0.65);
  });
  it('a net of cracks prints as much, and as evenly, when its dab is small', () => {
    const drawn = (size: number) => {
      const values = tap({ tip: 'cut', material: { id: 'net', seed: 1 }, marks: 'darks', size });
      const radius = (size / 2) * (W / 2000);
      const inside = [...values].filter((_, i) => Math.hypot((i % W) + 0.5 - W / 2, Math.floor(i / W) + 0.5 - H / 2) < radius - 1);
      const mean = inside.reduce((s, v) => s + v, 0) / inside.length;
      return { mean, most: Math.max(...inside) };
    };
    // Lines of two texels in 32, both ways, cover 12 % of the net.
    const share = 1 - (30 / 32) ** 2;
    const [large, small, tiny] = [drawn(1000), drawn(200), drawn(80)];
    expect(large.mean).toBeCloseTo(share, 1);
    expect(large.most).toBeGreaterThan(0.9);
    expect(small.mean / large.mean).toBeGreaterThan(0.85);
    expect(small.mean / large.mean).toBeLessThan(1.15);
    // Far smaller than its meshes, it is an even tone instead of dots.
    expect(tiny.most).toBeLessThan(0.5);
  });
  it('with a ring is whole in the middle and half around it', () => {
    const values = tap({ ring: true, strength: 0.6 });
    expect(values[80 * W + 120]).toBeCloseTo(0.6, 3);
    expect(values[80 * W + 120 + 45]).toBeCloseTo(0.3, 3);
    expect(values[80 * W + 120 + 65]).toBe(0);
  });
  it('jitter strays the same way each time, within its measure', () => {
    const line: Stroke['points'] = [
      [0.1, 0.5, 1],
      [0.9, 0.5, 1],
    ];
    const [a, b] = [tap({ size: 100, jitter: 0.8, spacing: 0.5, points: line }), tap({ size: 100, jitter: 0.8, spacing: 0.5, points: line })];
    expect(a).toEqual(b);
    expect(area(a)).not.toBe(area(tap({ size: 100, spacing: 0.5, points: line })));
    let furthest = 0;
    a.forEach((v, i) => v > 0 && (furthest = Math.max(furthest, Math.abs(Math.floor(i / W) + 0.5 - 80))));
    expect(furthest).toBeLessThanOrEqual(6 + 0.8 * 12 + 1);
  });
  it('pressure changes size, flow, both or neither', () => {
    const light = (presses: Stroke['presses']) => tap({ presses, points: [[0.5, 0.5, 0.5]] });
    expect(area(light('none'))).toBeCloseTo(area(tap({})), 1);
    expect(light('size')[80 * W + 120]).toBe(1);
    expect(area(light('size')) / area(tap({}))).toBeCloseTo(0.25, 1);
    expect(light('flow')[80 * W + 120]).toBeCloseTo(0.5, 3);
  });
});

it('the distance transform is OpenCV’s with a mask of three (Borgefors 1986)', () => {
  scratch.reset();
  const seeds = Array.from({ length: W * H }, () => +(random() < 0.002));
  const from = openCv.matFromArray(
    H,
    W,
    openCv.CV_8UC1,
    seeds.map((s) => 1 - s),
  );
  const to = new openCv.Mat();
  // 2: L2, 3: mask of 3 × 3.
  openCv.distanceTransform(from, to, 2, 3);
  const src = scratch.plane(W * H + 8, 0);
  floats.set(seeds, src / 4);
  const dst = scratch.plane(W * H + 8, 0);
  machine.kernels.distance(src, dst, W, H, 0.5, 1e4, 0, 0);
  expect(each(floats.slice(dst / 4, dst / 4 + W * H), (x, y) => to.data32F[y * W + x])).toBeLessThan(0.01);
  from.delete();
  to.delete();
});
