import { drawPiece } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { testGradient } from '@/testing/piece';
import { blendNames, type BlendName } from '../blend';
import { operatorOf } from '../files/openRaster';
import { coatSchema, type Coat } from '../piece/schema';
import { layersOf, type PieceEntry } from './layers';

const bench = testBench(64);
const [W, H] = [96, 64];
const photo = bench.picture(W, H, (x, y) => [(x * 37 + y * 11) % 256, (x * 5 + y * 53) % 256, (x * 91 + y) % 256]);
const named = blendNames.filter((mode) => operatorOf(mode) !== undefined);
const coat = (id: string, more: object): Coat =>
  coatSchema.parse({
    id,
    source: testGradient([
      { at: 0, colour: '#f2331a', alpha: 0.2 },
      { at: 0.5, colour: '#30c0e0', alpha: 1 },
      { at: 1, colour: '#0a0840', alpha: 0.7 },
    ]),
    strength: 0.8,
    limits: [0.05, 0.2, 0.8, 1],
    mask: { start: 'all', parts: [{ kind: 'ellipse', op: 'subtract', cx: 0.3, cy: 0.4, rx: 0.3, ry: 0.4, feather: 0.6 }] },
    ...more,
  });

type Rgb = number[];
const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = (c: Rgb) => Math.max(...c) - Math.min(...c);
function setLum(c: Rgb, l: number): Rgb {
  const d = l - lum(c);
  const moved = c.map((v) => v + d);
  const [n, x, at] = [Math.min(...moved), Math.max(...moved), lum(moved)];
  return moved.map((v) => {
    if (n < 0) v = at + ((v - at) * at) / (at - n);
    if (x > 1) v = at + ((v - at) * (1 - at)) / (x - at);
    return v;
  });
}
function setSat(c: Rgb, s: number): Rgb {
  const [n, x] = [Math.min(...c), Math.max(...c)];
  return c.map((v) => (x > n ? ((v - n) * s) / (x - n) : 0));
}
const hardLight = (b: number, s: number) => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1));
/** B(b, s) of each mode, written from W3C Compositing and Blending Level 1, sections 10.1 and 10.2. */
const formulas: Partial<Record<BlendName, (b: Rgb, s: Rgb) => Rgb>> = Object.fromEntries(
  Object.entries({
    normal: (_b: number, s: number) => s,
    multiply: (b: number, s: number) => b * s,
    screen: (b: number, s: number) => b + s - b * s,
    overlay: (b: number, s: number) => hardLight(s, b),
    darken: Math.min,
    lighten: Math.max,
    'color-dodge': (b: number, s: number) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s))),
    'color-burn': (b: number, s: number) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
    'hard-light': hardLight,
    'soft-light': (b: number, s: number) =>
      s <= 0.5 ? b - (1 - 2 * s) * b * (1 - b) : b + (2 * s - 1) * ((b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b)) - b),
    difference: (b: number, s: number) => Math.abs(b - s),
  }).map(([mode, of]) => [mode, (b: Rgb, s: Rgb) => b.map((v, i) => of(v, s[i]))]),
);
Object.assign(formulas, {
  hue: (b: Rgb, s: Rgb) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b: Rgb, s: Rgb) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b: Rgb, s: Rgb) => setLum(s, lum(b)),
  luminosity: (b: Rgb, s: Rgb) => setLum(b, lum(s)),
});

/** Pixels with alpha, not multiplied by it: four values of 0 to 1 each. */
type Sheet = Float64Array;

/** Lays a picture on another by W3C Compositing, 5 (simple alpha compositing with B mixed in by the backdrop's alpha). */
function laid(below: Sheet, above: Sheet, mode: BlendName, opacity: number): Sheet {
  const out = new Float64Array(below.length);
  for (let i = 0; i < W * H; i++) {
    const [b, s] = [below, above].map((sheet) => [...sheet.subarray(4 * i, 4 * i + 3)]);
    const [ab, as] = [below[4 * i + 3], above[4 * i + 3] * opacity];
    const alpha = mode === 'plus-lighter' ? Math.min(1, ab + as) : as + ab - as * ab;
    const mixed = mode === 'plus-lighter' ? s : (formulas[mode] as (b: Rgb, s: Rgb) => Rgb)(b, s).map((v, c) => (1 - ab) * s[c] + ab * v);
    for (let c = 0; c < 3; c++) {
      const sum = mode === 'plus-lighter' ? Math.min(1, as * s[c] + ab * b[c]) : as * mixed[c] + (1 - as) * ab * b[c];
      out[4 * i + c] = alpha > 0 ? sum / alpha : 0;
    }
    out[4 * i + 3] = alpha;
  }
  return out;
}

/** Lays layers over each other as any reader of the file would, from their 8 bits. */
function composed(coats: Coat[], strength = 1): Float64Array {
  const stack = (entries: readonly PieceEntry[], ground: Sheet): Sheet =>
    entries.reduce((below, entry) => {
      if (!entry.visible) return below;
      if (!('layers' in entry))
        return laid(
          below,
          Float64Array.from(drawPiece(bench, { photo, coats, strength, view: entry.view }), (v) => v / 255),
          entry.mode,
          entry.opacity,
        );
      if (!entry.isolated) return stack(entry.layers, below);
      return laid(below, stack(entry.layers, new Float64Array(W * H * 4)), entry.mode, entry.opacity);
    }, ground);
  const whole = stack(layersOf({ coats, guards: undefined, strength }), new Float64Array(W * H * 4));
  return Float64Array.from({ length: W * H * 3 }, (_, i) => whole[Math.floor(i / 3) * 4 + (i % 3)]);
}

/** The largest and the mean difference from the piece itself, in levels. */
function off(coats: Coat[], strength?: number): { most: number; mean: number } {
  const [whole, parts] = [drawPiece(bench, { photo, coats, strength }), composed(coats, strength)];
  let [most, sum] = [0, 0];
  for (let i = 0; i < parts.length; i++) {
    const apart = Math.abs(parts[i] * 255 - whole[Math.floor(i / 3) * 4 + (i % 3)]);
    most = Math.max(most, apart);
    sum += apart;
  }
  return { most, mean: sum / parts.length };
}

describe('the layers of a piece, laid over each other by the formulas of the W3C', () => {
  it.each(named)('are the piece within a level: %s', (mode) => {
    const { most, mean } = off([coat('a', { blend: mode })]);
    // Dodging and burning multiply the rounding of a layer's 8 bits where they are steep, and the hue of what is nearly grey hangs on its last bit.
    expect(mean).toBeLessThan(0.5);
    expect(most).toBeLessThanOrEqual(['color-dodge', 'color-burn', 'hue'].includes(mode) ? 6 : 2);
  });

  it('several of them, hidden ones left out, and coats whose mode has no name there baked', () => {
    const coats = [
      coat('a', { blend: 'multiply' }),
      coat('b', { blend: 'linear-burn', strength: 0.4 }),
      coat('c', { blend: 'overlay', visible: false }),
      coat('d', { blend: 'screen', strength: 0.5 }),
    ];
    expect(layersOf({ coats, guards: undefined, strength: 1 }).map((layer) => [layer.mode, 'baked' in layer && layer.baked, layer.visible])).toEqual([
      ['normal', false, true],
      ['multiply', false, true],
      ['normal', true, true],
      ['overlay', false, false],
      ['screen', false, true],
    ]);
    expect(off(coats).most).toBeLessThanOrEqual(2);
  });

  it('a piece whose coats are eased together ends with what they make', () => {
    const coats = [coat('a', { blend: 'multiply' })];
    expect(layersOf({ coats, guards: undefined, strength: 0.5 }).pop()).toMatchObject({ baked: true, mode: 'normal', opacity: 1 });
    expect(off(coats, 0.5).most).toBeLessThanOrEqual(1);
  });

  const group = (coats: Coat[], more: object = {}, isolated = false): Coat =>
    coatSchema.parse({ id: 'g', source: { kind: 'group', coats, isolated }, guards: 0, ...more });
  const kinds = (entries: readonly PieceEntry[]): unknown[] =>
    entries.map((entry) => ('layers' in entry ? kinds(entry.layers) : entry.baked ? 'baked' : 'layer'));
  const [a, b, c] = [coat('a', { blend: 'multiply' }), coat('b', { blend: 'screen', strength: 0.5 }), coat('c', { blend: 'linear-burn' })];

  it.each<[string, Coat, unknown]>([
    ['a plain group is a stack', group([a, b]), ['layer', 'layer']],
    ['an isolated one too', group([a, b], { strength: 0.6 }, true), ['layer', 'layer']],
    ['one in a mode', group([a, b], { blend: 'overlay', strength: 0.7 }), ['layer', 'layer']],
    ['one with a mask of its own is one layer when it is isolated', group([a, b], { mask: a.mask }, true), 'layer'],
    ['and baked when it is not', group([a, b], { strength: 0.5 }), 'baked'],
    ['a mode without a name is baked in a plain group', group([a, c]), ['layer', 'baked']],
    ['and makes an isolated one a single layer', group([a, c], {}, true), 'layer'],
    ['a group in a group', group([a, { ...group([b], {}, true), id: 'h' }]), ['layer', ['layer']]],
  ])('%s', (_name, one, expected) => {
    const coats = [coat('z', { blend: 'soft-light', strength: 0.4 }), one];
    expect(kinds(layersOf({ coats, guards: undefined, strength: 1 }))).toEqual(['layer', 'layer', expected]);
    expect(off(coats).most).toBeLessThanOrEqual(2.5);
  });
});
