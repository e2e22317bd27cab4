import { PAGE } from '../image/machine';
import { numbers, testMachine } from '@/testing/machine';
import { modeById, modes, type BlendName } from '.';

type Rgb = [number, number, number];

/** Scalar formulas written from W3C Compositing and Blending Level 1, §10 (https://www.w3.org/TR/compositing-1/). */
const separable: Partial<Record<BlendName, (b: number, s: number) => number>> = {
  normal: (_b, s) => s,
  multiply: (b, s) => b * s,
  screen: (b, s) => b + s - b * s,
  overlay: (b, s) => hard(s, b),
  darken: Math.min,
  lighten: Math.max,
  'color-dodge': (b, s) => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s))),
  'color-burn': (b, s) => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s)),
  'hard-light': (b, s) => hard(b, s),
  'soft-light': (b, s) => {
    if (s <= 0.5) return b - (1 - 2 * s) * b * (1 - b);
    const d = b <= 0.25 ? ((16 * b - 12) * b + 4) * b : Math.sqrt(b);
    return b + (2 * s - 1) * (d - b);
  },
  difference: (b, s) => Math.abs(b - s),
  exclusion: (b, s) => b + s - 2 * b * s,
  // Common practice, no source; what is outside 0..1 is cut off.
  'linear-burn': (b, s) => cut(b + s - 1),
  'linear-dodge': (b, s) => cut(b + s),
  'linear-light': (b, s) => cut(b + 2 * s - 1),
  'vivid-light': (b, s) => (s <= 0.5 ? burn(b, 2 * s) : dodge(b, 2 * s - 1)),
  'pin-light': (b, s) => (s <= 0.5 ? Math.min(b, 2 * s) : Math.max(b, 2 * s - 1)),
  subtract: (b, s) => cut(b - s),
  divide: (b, s) => (b === 0 ? 0 : s === 0 ? 1 : cut(b / s)),
  // design.md, vocabulary.
  'hard-step': (b, s) => (b + s >= 1 ? 1 : 0),
  fold: (b, s) => 1 - Math.abs(1 - b - s),
};
const cut = (v: number) => Math.min(1, Math.max(0, v));
const dodge = (b: number, s: number): number => (b === 0 ? 0 : s === 1 ? 1 : Math.min(1, b / (1 - s)));
const burn = (b: number, s: number): number => (b === 1 ? 1 : s === 0 ? 0 : 1 - Math.min(1, (1 - b) / s));
const hard = (b: number, s: number): number => (s <= 0.5 ? b * 2 * s : b + (2 * s - 1) - b * (2 * s - 1));
const lum = ([r, g, b]: Rgb) => 0.3 * r + 0.59 * g + 0.11 * b;
const sat = (c: Rgb) => Math.max(...c) - Math.min(...c);
const setLum = (c: Rgb, l: number): Rgb => {
  const d = l - lum(c);
  let out = c.map((v) => v + d) as Rgb;
  const L = lum(out);
  const n = Math.min(...out);
  const x = Math.max(...out);
  if (n < 0) out = out.map((v) => L + ((v - L) * L) / (L - n)) as Rgb;
  if (x > 1) out = out.map((v) => L + ((v - L) * (1 - L)) / (x - L)) as Rgb;
  return out;
};
const setSat = (c: Rgb, s: number): Rgb => {
  const order = [0, 1, 2].sort((i, j) => c[i] - c[j]);
  const [min, mid, max] = order;
  const out: Rgb = [0, 0, 0];
  if (c[max] > c[min]) {
    out[mid] = ((c[mid] - c[min]) * s) / (c[max] - c[min]);
    out[max] = s;
  }
  return out;
};
const whole: Partial<Record<BlendName, (b: Rgb, s: Rgb) => Rgb>> = {
  hue: (b, s) => setLum(setSat(s, sat(b)), lum(b)),
  saturation: (b, s) => setLum(setSat(b, sat(s)), lum(b)),
  color: (b, s) => setLum(s, lum(b)),
  luminosity: (b, s) => setLum(b, lum(s)),
};

const machine = testMachine(4);
const COUNT = 64;
const STRIDE = COUNT * 4;
const [back, source, mask] = [PAGE, PAGE + 4 * STRIDE, PAGE + 8 * STRIDE];

/** Blends flat planes by the kernel; one value a pixel. */
function run(mode: BlendName, backdrop: number[][], over: number[][], strength: number, masks: number[]): number[][] {
  const put = (at: number, px: number[][]) => px.forEach((p, i) => p.forEach((v, c) => (machine.floats[at / 4 + c * COUNT + i] = v)));
  put(back, backdrop);
  put(source, over);
  masks.forEach((v, i) => (machine.floats[mask / 4 + i] = v));
  machine.kernels.blend(modeById(mode).kernel, back, source, mask, STRIDE, COUNT, strength);
  return backdrop.map((_, i) => [0, 1, 2, 3].map((c) => machine.floats[back / 4 + c * COUNT + i]));
}

const corner = numbers(9);
const value = () => {
  const v = corner();
  return v < 0.1 ? 0 : v > 0.9 ? 1 : corner();
};
const pixels = (alpha: () => number) => Array.from({ length: COUNT }, () => [value(), value(), value(), alpha()]);

describe.each(modes.map((m) => m.id))('%s', (mode) => {
  it('agrees with the standard, with alpha, mask and strength', () => {
    const b = pixels(value);
    const s = pixels(value);
    const m = b.map(() => value());
    const out = run(mode, b, s, 0.7, m);
    b.forEach((cb, i) => {
      const cs = s[i];
      const as = cs[3] * m[i] * 0.7;
      const ab = cb[3];
      const ao = as + ab - as * ab;
      if (mode === 'plus-lighter') {
        // CSS Compositing: αs·Cs + αb·Cb, premultiplied, colour and alpha cut off at 1.
        const sum = Math.min(1, as + ab);
        for (let c = 0; c < 3; c++) expect(out[i][c]).toBeCloseTo(sum > 0 ? Math.min(1, Math.min(1, as * cs[c] + ab * cb[c]) / sum) : 0, 4);
        return expect(out[i][3]).toBeCloseTo(sum, 5);
      }
      const mixed = separable[mode]
        ? [0, 1, 2].map((c) => separable[mode]!(cb[c], cs[c]))
        : whole[mode]!(cb.slice(0, 3) as Rgb, cs.slice(0, 3) as Rgb);
      for (let c = 0; c < 3; c++) {
        const co = as * (1 - ab) * cs[c] + as * ab * mixed[c] + (1 - as) * ab * cb[c];
        expect(out[i][c]).toBeCloseTo(ao > 0 ? co / ao : 0, 4);
      }
      expect(out[i][3]).toBeCloseTo(ao, 5);
    });
  });

  it('changes nothing at strength 0 and where the mask is 0', () => {
    const b = pixels(() => 1);
    const same = (out: number[][]) => out.forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 6)));
    same(
      run(
        mode,
        b,
        pixels(() => 1),
        0,
        b.map(() => 1),
      ),
    );
    same(
      run(
        mode,
        b,
        pixels(() => 1),
        1,
        b.map(() => 0),
      ),
    );
  });
});

describe('facts of the trade (common practice, no source)', () => {
  const b = pixels(() => 1);
  const full = b.map(() => 1);
  const flat = (v: number) => b.map(() => [v, v, v, 1]);
  it.each(['overlay', 'soft-light', 'hard-light', 'linear-light', 'vivid-light'] as const)('a layer of 50 %% grey in %s changes nothing', (mode) => {
    // Overlay is led by the backdrop; with grey it is the identity too.
    run(mode, b, flat(0.5), 1, full).forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 5)));
  });
  it('white in multiply and black in screen change nothing', () => {
    run('multiply', b, flat(1), 1, full).forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 5)));
    run('screen', b, flat(0), 1, full).forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 5)));
  });
  it('doubling a coat strengthens it', () => {
    const s = flat(0.4);
    const grey = flat(0.6);
    const once = run('multiply', grey, s, 0.5, full);
    const twice = run('multiply', once, s, 0.5, full);
    twice.forEach((p, i) => expect(p[0]).toBeLessThan(once[i][0] - 0.05));
  });
  it('white in linear burn, and black in linear dodge and subtract, change nothing', () => {
    run('linear-burn', b, flat(1), 1, full).forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 5)));
    for (const mode of ['linear-dodge', 'subtract', 'plus-lighter'] as const)
      run(
        mode,
        b,
        b.map(() => [0, 0, 0, mode === 'plus-lighter' ? 0 : 1]),
        1,
        full,
      ).forEach((p, i) => p.forEach((v, c) => expect(v).toBeCloseTo(b[i][c], 5)));
  });
  it('soft light lies nearer to overlay at half strength than to overlay', () => {
    const s = pixels(() => 1);
    const soft = run('soft-light', b, s, 1, full);
    const half = run('overlay', b, s, 0.5, full);
    const strong = run('overlay', b, s, 1, full);
    const apart = (a: number[][], z: number[][]) => a.reduce((sum, p, i) => sum + p.reduce((t, v, c) => t + Math.abs(v - z[i][c]), 0), 0);
    expect(apart(soft, half)).toBeLessThan(apart(soft, strong));
  });
});

it('names a mode that does not exist', () => {
  expect(() => modeById('sparkle')).toThrow('There is no blend mode called "sparkle".');
});
