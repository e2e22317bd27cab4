import { drawPiece, type TestDrawing } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { testGradient } from '@/testing/piece';
import { coatSchema, type Coat } from '../piece/schema';

const bench = testBench(64);
const [W, H] = [96, 64];
const photo = bench.picture(W, H, (x, y) => [(x * 37 + y * 11) % 256, (x * 5 + y * 53) % 256, (x * 91 + y) % 256]);
const draw = (coats: Coat[], change: Partial<TestDrawing> = {}): Uint8Array => drawPiece(bench, { photo, coats, ...change });

const coat = (id: string, more: object): Coat =>
  coatSchema.parse({
    id,
    source: testGradient([
      { at: 0, colour: '#f2331a', alpha: 0.2 },
      { at: 1, colour: '#0a4080', alpha: 0.9 },
    ]),
    guards: 0,
    ...more,
  });
const group = (id: string, coats: Coat[], more: object = {}, isolated = false): Coat =>
  coatSchema.parse({ id, source: { kind: 'group', coats, isolated }, guards: 0, ...more });

const a = coat('a', { blend: 'multiply', strength: 0.8 });
const b = coat('b', { blend: 'screen', strength: 0.5, mask: { parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.4, cy: 0.5, rx: 0.3, ry: 0.3 }] } });
const c = coat('c', { source: { kind: 'below' }, treatments: [{ kind: 'blur', radius: 60 }], strength: 0.7 });
const d = coat('d', { blend: 'overlay', limits: [0.2, 0.4, 0.7, 0.9] });

/** The largest difference, in levels. */
function off(one: ArrayLike<number>, two: ArrayLike<number>): number {
  let most = 0;
  for (let i = 0; i < one.length; i++) most = Math.max(most, Math.abs(one[i] - two[i]));
  return most;
}

describe('a group that is not isolated', () => {
  it('with neutral values changes nothing, whatever is in it and however deep it lies', () => {
    const flat = draw([a, b, c, d]);
    expect(off(draw([a, group('g', [b, c]), d]), flat)).toBe(0);
    expect(off(draw([group('g', [a, group('h', [b, group('i', [c])])]), d]), flat)).toBe(0);
    expect(off(draw([a, group('g', []), b, c, d]), flat)).toBe(0);
  });
  it('at half strength lies half way between what is below it and what it makes (the backdrop is removed: W3C Compositing, 5.3)', () => {
    const [below, whole] = [draw([a]), draw([a, b, c, d])];
    const half = draw([a, group('g', [b, c, d], { strength: 0.5 })]);
    expect(
      off(
        half,
        below.map((v, i) => (v + whole[i]) / 2),
      ),
    ).toBeLessThanOrEqual(1);
  });
  it('has one mask for all its coats', () => {
    const mask = { start: 'none', parts: [{ kind: 'ellipse', op: 'add', cx: 0.3, cy: 0.5, rx: 0.2, ry: 0.4 }] };
    const [below, whole, masked] = [draw([a]), draw([a, b, d]), draw([a, group('g', [b, d], { mask })])];
    const grey = draw([a, group('g', [b, d], { mask })], { view: { kind: 'mask', coat: 'g' } });
    const expected = below.map((v, i) => v + ((whole[i] - v) * (i % 4 === 3 ? 255 : grey[i])) / 255);
    expect(off(masked, expected)).toBeLessThanOrEqual(1);
  });
  it('hidden or at no strength is as if it were not there', () => {
    expect(off(draw([a, group('g', [b, d], { visible: false })]), draw([a]))).toBe(0);
    expect(off(draw([a, group('g', [b, d], { strength: 0 })]), draw([a]))).toBe(0);
    expect(off(draw([a, group('g', [{ ...b, visible: false }, d])]), draw([a, d]))).toBe(0);
  });
  it('its steps work on the picture with its coats', () => {
    const treatments = [{ kind: 'tone', saturation: -1 }];
    const adjusted = coat('x', { source: { kind: 'below' }, treatments });
    expect(off(draw([a, group('g', [b], { treatments })]), draw([a, b, adjusted]))).toBeLessThanOrEqual(1);
  });
});

describe('an isolated group', () => {
  const solid = (id: string, colour: string, more: object = {}) => coat(id, { source: { kind: 'colour', colour }, ...more });

  it('blends its coats with each other, then itself: multiply by a grey of its own (W3C Compositing, multiply)', () => {
    // Two greys multiplied on nothing: the lower shows as it is, the upper multiplies it. The photo does not count.
    const coats = [solid('p', '#999999'), solid('q', '#808080', { blend: 'multiply' })];
    const drawn = draw([group('g', coats, { blend: 'normal' }, true)]);
    const expected = (0x99 * 0x80) / 255;
    for (let i = 0; i < drawn.length; i += 4) expect(Math.abs(drawn[i] - expected)).toBeLessThanOrEqual(1);
  });
  it('in another mode than normal is the same as its one coat in that mode', () => {
    for (const blend of ['multiply', 'screen', 'soft-light', 'difference'] as const) {
      const one = coat('x', { blend: 'normal' });
      expect([blend, off(draw([a, group('g', [one], { blend, strength: 0.6 })]), draw([a, { ...one, blend, strength: 0.6 }]))]).toEqual([blend, 0]);
    }
  });
  it('mixes translucent coats as one layer would (Porter and Duff, source over: alpha of two is a + b − ab)', () => {
    const coats = [solid('p', '#ff0000', { strength: 0.5 }), solid('q', '#0000ff', { strength: 0.5 })];
    const isolated = draw([group('g', coats, { strength: 0.5 }, true)]);
    const under = draw([]);
    for (let i = 0; i < isolated.length; i += 4) {
      // Alpha 0.75, of which the blue is 0.5 and the red 0.25; half of it is laid.
      const [red, green, blue] = [0.25 * 255, 0, 0.5 * 255].map((v, k) => under[i + k] * (1 - 0.375) + 0.5 * v);
      expect(off([isolated[i], isolated[i + 1], isolated[i + 2]], [red, green, blue])).toBeLessThanOrEqual(1);
    }
  });
  it('leaves the picture alone where its coats do not cover it, adjustments of what is below them included', () => {
    const clear = solid('p', '#ff0000', { mask: { start: 'none', parts: [] } });
    const adjust = coat('x', { source: { kind: 'below' }, treatments: [{ kind: 'invert' }] });
    expect(off(draw([a, group('g', [clear, adjust], {}, true)]), draw([a]))).toBe(0);
  });
  it('tonal limits and masks of its coats go by the picture below the group', () => {
    const limited = solid('p', '#204060', { limits: [0.3, 0.5, 1, 1] });
    expect(off(draw([a, group('g', [limited], {}, true)]), draw([a, limited]))).toBeLessThanOrEqual(1);
    const toned = solid('p', '#204060', { mask: { start: 'none', parts: [{ kind: 'tones', op: 'add', range: [0.3, 0.5, 1, 1] }] } });
    expect(off(draw([a, group('g', [toned], {}, true)]), draw([a, toned]))).toBeLessThanOrEqual(1);
  });
});

describe('views of coats in a group', () => {
  const coats = [a, group('g', [b, c], { strength: 0.9 }), d];
  it('without one of them, and up to one', () => {
    expect(off(draw(coats, { view: { kind: 'without', coat: 'b' } }), draw([a, group('g', [c], { strength: 0.9 }), d]))).toBe(0);
    expect(off(draw(coats, { view: { kind: 'upTo', coat: 'b' } }), draw([a, group('g', [b], { strength: 0.9 })]))).toBe(0);
    expect(off(draw(coats, { view: { kind: 'upTo', coat: 'g' } }), draw([a, coats[1]]))).toBe(0);
  });
  it('a mask that goes by tones sees the backdrop that it has in the group', () => {
    const toned = coat('t', { mask: { start: 'none', parts: [{ kind: 'tones', op: 'add', range: [0.3, 0.5, 1, 1] }] } });
    const view = { kind: 'mask', coat: 't' } as const;
    expect(off(draw([a, group('g', [b, toned])], { view }), draw([a, b, toned], { view }))).toBe(0);
    expect(off(draw([a, group('g', [b, toned], {}, true)], { view }), draw([a, toned], { view }))).toBe(0);
  });
  it('the mask of a coat in a group serves a coat outside it', () => {
    const linked = coat('l', { mask: { start: 'none', parts: [{ kind: 'coat', coat: 'b', op: 'add' }] } });
    expect(off(draw([group('g', [b]), linked]), draw([b, linked]))).toBe(0);
  });
});
