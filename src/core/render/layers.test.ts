import { drawPiece } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { blendNames, type BlendName } from '../blend';
import { operatorOf } from '../files/openRaster';
import { coatSchema, type Coat } from '../piece/schema';
import { layersOf } from './layers';

const bench = testBench(64);
const [W, H] = [96, 64];
const photo = bench.picture(W, H, (x, y) => [(x * 37 + y * 11) % 256, (x * 5 + y * 53) % 256, (x * 91 + y) % 256]);
const named = blendNames.filter((mode) => operatorOf(mode) !== undefined);
const coat = (id: string, more: object): Coat =>
  coatSchema.parse({
    id,
    source: {
      kind: 'gradient',
      stops: [
        { at: 0, colour: '#f2331a', alpha: 0.2 },
        { at: 0.5, colour: '#30c0e0', alpha: 1 },
        { at: 1, colour: '#0a0840', alpha: 0.7 },
      ],
      x1: 0,
      y1: 0.1,
      x2: 1,
      y2: 0.9,
    },
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

/** Lays layers over each other as any reader of the file would, from their 8 bits; every backdrop is opaque. */
function composed(coats: Coat[], strength = 1): Float64Array {
  const out = new Float64Array(W * H * 3);
  for (const { view, mode, opacity, visible } of layersOf({ coats, guards: undefined, strength })) {
    if (!visible) continue;
    const pixels = drawPiece(bench, { photo, coats, strength, view });
    for (let i = 0; i < W * H; i++) {
      const alpha = (pixels[4 * i + 3] / 255) * opacity;
      const [b, s] = [0, 1].map((k) => [0, 1, 2].map((c) => (k ? pixels[4 * i + c] / 255 : out[3 * i + c])));
      // svg:plus adds what is covered; the others mix B(b, s) in.
      const mixed =
        mode === 'plus-lighter' ? b.map((v, c) => Math.min(1, v + alpha * s[c])) : formulas[mode]?.(b, s).map((v, c) => b[c] + alpha * (v - b[c]));
      (mixed as Rgb).forEach((v, c) => (out[3 * i + c] = v));
    }
  }
  return out;
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
    expect(layersOf({ coats, guards: undefined, strength: 1 }).map(({ mode, baked, visible }) => [mode, baked, visible])).toEqual([
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
});
