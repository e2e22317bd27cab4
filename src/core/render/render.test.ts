import { drawPiece, drawPlan, grainOf, planOf, type TestDrawing } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { coatSchema, type Coat } from '../piece/schema';
import { slotAt, slotBytes } from '../graph/slot';
import { nodeTypeOf } from './nodes';
import { unitOfPlan, type Plan } from './plan';
import { reachesOf } from './reach';

const bench = testBench(256);
const W = 400;
const H = 300;
const photo = bench.picture(W, H, (x, y) => [128 + 100 * Math.sin(x / 17), 128 + 100 * Math.cos(y / 23), 255 * ((x + y) / (W + H))].map(Math.round));
const texture = bench.picture(256, 256, (x, y) => {
  const v = Math.round(150 + 70 * Math.sin(x / 5) * Math.sin(y / 7) + 20 * Math.sin(x / 31));
  return [v, Math.round(v * 0.95), Math.round(v * 0.85)];
});

const coat = (id: string, more: Record<string, unknown>): Coat => coatSchema.parse({ id, source: { kind: 'picture', file: 'x' }, ...more });
const stroke = {
  does: 'take',
  size: 300,
  hardness: 0.2,
  strength: 0.8,
  flow: 0.5,
  points: [
    [0.2, 0.3, 1],
    [0.6, 0.5, 1],
    [1.2, 0.4, 0.5],
  ],
};
const coats = [
  coat('a', {
    blend: 'multiply',
    strength: 0.8,
    lay: { fit: 'cover', turn: 17, scale: 1.3 },
    treatments: [{ kind: 'tone', contrast: 0.3, hue: 20 }],
    limits: [0.1, 0.3, 0.8, 1],
  }),
  coat('b', {
    blend: 'soft-light',
    strength: 0.9,
    lay: { fit: 'tile', scale: 0.5 },
    mask: {
      start: 'all',
      parts: [
        { kind: 'strokes', strokes: [stroke] },
        { kind: 'ellipse', op: 'subtract', cx: 0.5, cy: 0.5, rx: 0.2, ry: 0.3, feather: 0.7, density: 0.6, turn: 30 },
      ],
    },
  }),
  coat('c', { blend: 'color', strength: 0.3, source: { kind: 'colour', colour: '#a2423d' } }),
  coat('d', { blend: 'overlay', strength: 0.4, source: { kind: 'below' }, treatments: [{ kind: 'tone', saturation: -1 }] }),
];

const grain = grainOf(bench, texture);
const load: TestDrawing['load'] = ({ need }) =>
  need === 'picture' ? { kind: 'picture', picture: texture } : need === 'grain' ? { kind: 'picture', picture: grain } : undefined;
const draw = (change: Partial<TestDrawing> = {}): Uint8Array => drawPiece(bench, { photo, coats, load, ...change });

const mean = (a: Uint8Array, b: Uint8Array) => a.reduce((s, v, i) => s + Math.abs(v - b[i]), 0) / a.length;
const reduced = (a: Uint8Array, w: number, h: number) =>
  Uint8Array.from({ length: (w / 2) * (h / 2) * 4 }, (_, i) => {
    const p = Math.floor(i / 4);
    const [x, y] = [(p % (w / 2)) * 2, Math.floor(p / (w / 2)) * 2];
    return [0, 1, w, w + 1].reduce((s, o) => s + a[(y * w + x + o) * 4 + (i % 4)], 0) / 4;
  });
const same = (a: Uint8Array, b: Uint8Array) => Buffer.compare(Buffer.from(a), Buffer.from(b)) === 0;

it('tiling is invisible: many tiles and one are equal to the bit', () => {
  const many = draw({ tile: 64 });
  expect(same(many, draw({ tile: 512 }))).toBe(true);
  expect(same(many, draw({ tile: 128 }))).toBe(true);
});

it.each(coats.map((c) => c.id))('coat %s is the same picture at half the scale, within 1.5 levels mean', (id) => {
  const one = coats.filter((c) => c.id === id);
  expect(mean(reduced(draw({ coats: one }), W, H), draw({ coats: one, scale: 0.5 }))).toBeLessThan(1.5);
});

describe('what is kept between drawings', () => {
  /** The plan with the tiles of nodes kept, as `which` says. */
  function keeping(plan: Plan, which: (i: number, plan: Plan) => boolean): Plan {
    const reaches = reachesOf(plan.graph, unitOfPlan(plan));
    plan.graph.nodes.forEach((node, i) => {
      const margin = reaches.to(i, plan.graph.root);
      if (margin === null || !which(i, plan)) return;
      const { planes } = nodeTypeOf(node.op);
      node.kept = slotAt(bench.take(slotBytes(plan.region, plan.tile, margin, planes)), plan.region, plan.tile, margin, planes, 5 + i);
    });
    return plan;
  }
  const furthest = (a: Uint8Array, b: Uint8Array) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i])), 0);
  const wide = [...coats, coat('e', { source: { kind: 'below' }, blend: 'soft-light', treatments: [{ kind: 'blur', radius: 30 }] })];

  it.each(planOf({ photo, coats: wide, load }).graph.nodes.map((node, i) => [i, node.op] as const))(
    'changes nothing but by 16 bit rounding: node %d, %s',
    (which) => {
      const plan = () => planOf({ photo, coats: wide, load });
      const plain = drawPlan(bench, plan());
      const kept = keeping(plan(), (i) => i === which);
      expect(same(drawPlan(bench, kept), plain)).toBe(true);
      expect(furthest(drawPlan(bench, kept), plain)).toBeLessThanOrEqual(1);
    },
  );

  it('is really read: tiles of another drawing show', () => {
    const kept = keeping(planOf({ photo, coats: wide, load }), (i, { graph }) => graph.nodes[i].of === 'b');
    const first = drawPlan(bench, kept);
    const other = planOf({ photo, coats: [{ ...wide[0], blend: 'normal' }, ...wide.slice(1)], load });
    other.graph.nodes.forEach((node, i) => (node.kept = kept.graph.nodes[i].kept));
    expect(furthest(drawPlan(bench, other), first)).toBeLessThanOrEqual(1);
  });
});

describe('views', () => {
  it('shows the photo without coats', () => {
    const bytes = draw({ view: { kind: 'photo' } });
    expect([...bytes.slice(0, 3)]).toEqual([128, 228, 0]);
  });
  it('leaves one coat out, or stops at one', () => {
    expect(same(draw({ view: { kind: 'without', coat: 'a' } }), draw({ coats: coats.slice(1) }))).toBe(true);
    expect(same(draw({ view: { kind: 'upTo', coat: 'b' } }), draw({ coats: coats.slice(0, 2) }))).toBe(true);
    expect(same(draw({ view: { kind: 'upTo', coat: null } }), draw({ view: { kind: 'photo' } }))).toBe(true);
  });
  it('shows the mask alone as grey: white where the coat is whole', () => {
    const bytes = draw({ view: { kind: 'mask', coat: 'b' } });
    const at = (x: number, y: number) => bytes[(y * W + x) * 4];
    expect(at(5, H - 5)).toBe(255);
    expect(at(Math.round(W * 0.45), Math.round(H * 0.43))).toBeLessThan(90);
  });
  it('lays colour over what is kept clear, and shows a coat alone', () => {
    const over = draw({ view: { kind: 'maskOver', coat: 'b', colour: [1, 0, 0] } });
    const i = (Math.round(H * 0.43) * W + Math.round(W * 0.45)) * 4;
    expect(over[i] - draw()[i]).toBeGreaterThan(10);
    expect(same(draw({ view: { kind: 'alone', coat: 'c' } }).slice(0, 3), Uint8Array.from([162, 66, 61]))).toBe(true);
  });
  it('one strength over all coats lies between photo and piece', () => {
    const [photoOnly, half, all] = [draw({ strength: 0 }), draw({ strength: 0.5 }), draw()];
    expect(same(photoOnly, draw({ view: { kind: 'photo' } }))).toBe(true);
    let most = 0;
    half.forEach((v, i) => (most = Math.max(most, Math.abs(v - (photoOnly[i] + all[i]) / 2))));
    expect(most).toBeLessThanOrEqual(1);
  });
});

it('hidden coats and coats of no strength take no part', () => {
  const hidden = coats.map((c) => ({ ...c, visible: c.id === 'a' }));
  expect(same(draw({ coats: hidden }), draw({ coats: coats.slice(0, 1) }))).toBe(true);
});

describe('strokes (common practice, no source)', () => {
  const one = (strokes: object[]) =>
    draw({ coats: [coat('m', { mask: { start: 'all', parts: [{ kind: 'strokes', strokes }] } })], view: { kind: 'mask', coat: 'm' } });
  const level = (strokes: object[]) => one(strokes)[(150 * W + 200) * 4] / 255;
  const tap = (strength: number, does = 'take', extra = {}) => ({
    does,
    size: 400,
    hardness: 0.9,
    strength,
    flow: 1,
    points: [[0.5, 0.5, 1]],
    ...extra,
  });
  it('two at 30 % build up, one does not exceed it', () => {
    const back = { ...tap(0.3), points: Array.from({ length: 40 }, (_, i) => [0.5 + 0.001 * (i % 2), 0.5, 1]) };
    expect(level([tap(0.3)])).toBeCloseTo(0.7, 2);
    expect(level([back])).toBeCloseTo(0.7, 2);
    expect(level([tap(0.3), tap(0.3)])).toBeCloseTo(0.49, 2);
  });
  it('a level is set on the way up and down, and putting back undoes taking away', () => {
    expect(level([tap(1), tap(1, 'level', { level: 0.5 })])).toBeCloseTo(0.5, 2);
    expect(level([tap(1), tap(1, 'put')])).toBeCloseTo(1, 2);
  });
  it('may begin outside the picture', () => {
    const bytes = one([
      {
        does: 'take',
        size: 200,
        hardness: 1,
        strength: 1,
        flow: 1,
        points: [
          [-0.3, 0.5, 1],
          [0.1, 0.5, 1],
        ],
      },
    ]);
    expect(bytes[(150 * W + 10) * 4]).toBe(0);
  });
});

it('a drape that wraps shifts in what lies on the other side, on every tile', () => {
  // An even map shifts everything by the same: eight pixels across, six down.
  const even = bench.picture(W, H, () => [191, 191, 191]);
  const amount = (pixels: number) => pixels / ((W / 2000) * (191 / 255 - 0.5));
  const laid = (treatments: object[]) => draw({ photo: even, coats: [coat('a', { blend: 'normal', lay: { fit: 'stretch' }, treatments })] });
  const plain = laid([]);
  const wrapped = laid([{ kind: 'drape', map: 'photo', amountX: amount(8), amountY: amount(6), blur: 0, edge: 'wrap' }]);
  const extended = laid([{ kind: 'drape', map: 'photo', amountX: amount(8), amountY: amount(6), blur: 0 }]);
  let [worst, differ] = [0, 0];
  for (let y = 0; y < H; y += 3)
    for (let x = 0; x < W; x += 3) {
      const at = (y * W + x) * 4;
      const from = (((y + 6) % H) * W + ((x + 8) % W)) * 4;
      worst = Math.max(worst, Math.abs(wrapped[at] - plain[from]));
      if (Math.abs(wrapped[at] - extended[at]) > 8) differ++;
    }
  expect(worst).toBeLessThanOrEqual(2);
  expect(differ).toBeGreaterThan(50);
});

it('treats what lies below where it lies when nobody else wants it, with the same result', () => {
  // A drape by what lies below, of no amount, changes nothing but says that it reads it.
  const idle = { kind: 'drape', map: 'below', amountX: 0, amountY: 0 };
  const under = coats.slice(0, 2);
  const over = (treatments: object[]) =>
    coat('e', { blend: 'soft-light', strength: 0.7, source: { kind: 'below' }, treatments, limits: [0, 0.2, 0.9, 1] });
  const steps = [
    { kind: 'blur', radius: 20 },
    { kind: 'tone', saturation: -0.5 },
  ];
  expect(Buffer.compare(draw({ coats: [...under, over(steps)] }), draw({ coats: [...under, over([idle, ...steps])] }))).toBe(0);
});
