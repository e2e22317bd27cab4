import { converter, convertXyz65ToXyz50, type Rgb } from 'culori';
import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { adaptation, D50, D65, daylight, tintedDaylight } from '../color/daylight';
import { transform3 } from '../color/matrix3';
import { treatmentByKind } from '.';
import { balanceMatrix } from './balance';
import { toneCurve } from './exposure';

const bench = testBench(96);
const { machine, scratch } = bench;
const photo = bench.picture(16, 16, () => [0, 0, 0]);
const lch = converter('lch65');
const xyz = converter('xyz65');

/** Colours 0..1 through a treatment. */
function treat(kind: string, values: object, colours: number[][]): number[][] {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: colours.length, height: 1 });
  colours.forEach((rgb, i) => [...rgb, 1].forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + i] = v)));
  const treatment = treatmentByKind(kind);
  treatment.apply(contextOn(bench, photo), tile, treatment.schema.parse({ kind, ...values }));
  return colours.map((_, i) => [0, 1, 2].map((c) => machine.floats[(tile.ptr + c * tile.stride) / 4 + i]));
}
const colours = [0.02, 0.2, 0.45, 0.7, 0.98].flatMap((r) => [0.05, 0.4, 0.9].flatMap((g) => [0.1, 0.5, 0.85].map((b) => [r, g, b])));
const decode = (v: number) => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
const encode = (v: number) => (v <= 0.0031308 ? 12.92 * v : 1.055 * v ** (1 / 2.4) - 0.055);
const clamp = (v: number) => Math.min(1, Math.max(0, v));
const luma = ([r, g, b]: number[]) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

describe('daylight', () => {
  const white = (mode: 'xyz50' | 'xyz65') => {
    const { x, y, z } = converter(mode)({ mode: 'rgb', r: 1, g: 1, b: 1 });
    return [x / (x + y + z), y / (x + y + z)];
  };
  it.each([
    // D50 and D65 as the culori package has them; D55 and D75 by CIE 15:2004, table T.3, values from memory.
    [5003, ...white('xyz50')],
    [5503, 0.3324, 0.3474],
    [6504, ...white('xyz65')],
    [7504, 0.299, 0.3149],
  ])('of %d K lies where CIE 15 puts it', (kelvin, x, y) => {
    const [dx, dy] = daylight(kelvin);
    expect(Math.abs(dx - x)).toBeLessThan(0.0002);
    expect(Math.abs(dy - y)).toBeLessThan(0.0002);
  });
  it('is defined from 4000 to 25000 K, and its tint is across it: green above, magenta below', () => {
    expect(() => daylight(3000)).toThrow('4000 to 25000 K');
    const [gx, gy] = tintedDaylight(6504, 0.02);
    const [mx, my] = tintedDaylight(6504, -0.02);
    expect(gy).toBeGreaterThan(0.34);
    expect(my).toBeLessThan(0.315);
    expect(gx - mx).toBeLessThan(0.05);
  });
  it('is adapted from D65 to D50 as culori does (Bradford)', () => {
    const m = adaptation(D65, D50);
    for (const [r, g, b] of colours) {
      const want = convertXyz65ToXyz50(xyz({ mode: 'lrgb', r, g, b }) as never) as unknown as { x: number; y: number; z: number };
      const [R, G, B] = transform3(m, [r, g, b]);
      const got = xyz({ mode: 'lrgb', r: R, g: G, b: B }) as unknown as { x: number; y: number; z: number };
      for (const key of ['x', 'y', 'z'] as const) expect(Math.abs(got[key] - want[key])).toBeLessThan(0.002);
    }
  });
});

describe('white balance', () => {
  it('warmth raises red against blue and keeps the luminance of white', () => {
    for (const warmth of [-1, -0.4, 0.4, 1]) {
      const white = transform3(balanceMatrix({ warmth, tint: 0, paper: 0, gains: [1, 1, 1] }), [1, 1, 1]);
      expect(Math.sign(white[0] - white[2])).toBe(Math.sign(warmth));
      expect(luma(white)).toBeCloseTo(1, 3);
    }
    const magenta = transform3(balanceMatrix({ warmth: 0, tint: 1, paper: 0, gains: [1, 1, 1] }), [1, 1, 1]);
    expect(magenta[1]).toBeLessThan(magenta[0]);
    expect(magenta[1]).toBeLessThan(magenta[2]);
  });
  it('works in linear light', () => {
    const gains: [number, number, number] = [0.8, 1, 1.15];
    const got = treat('balance', { gains }, colours);
    got.forEach((rgb, i) => rgb.forEach((v, c) => expect(Math.abs(v - encode(clamp(decode(colours[i][c]) * gains[c])))).toBeLessThan(5e-4)));
  });
});

describe('light', () => {
  it('one stop is twice the light (IEC 61966-2-1)', () => {
    for (const exposure of [1, -1.5]) {
      const got = treat('exposure', { exposure }, colours);
      got.forEach((rgb, i) => rgb.forEach((v, c) => expect(Math.abs(v - encode(clamp(decode(colours[i][c]) * 2 ** exposure)))).toBeLessThan(5e-4)));
    }
  });
  it('its curve rises everywhere, whatever the sliders, and ends at black and white when they are neutral', () => {
    const neutral = { exposure: 0, contrast: 0, shadows: 0, highlights: 0, white: 0, black: 0, fade: 0 };
    expect(toneCurve(neutral)(0)).toBe(0);
    expect(toneCurve(neutral)(0.37)).toBeCloseTo(0.37, 12);
    expect(toneCurve(neutral)(1)).toBe(1);
    for (let k = 0; k < 3 ** 5; k++) {
      const pick = (n: number) => (Math.floor(k / 3 ** n) % 3) - 1;
      const curve = toneCurve({ ...neutral, contrast: pick(0), shadows: pick(1), highlights: pick(2), white: pick(3), black: pick(4) });
      for (let i = 1; i <= 200; i++) expect(curve(i / 200)).toBeGreaterThanOrEqual(curve((i - 1) / 200) - 1e-9);
    }
  });
  it('opens shadows most in the dark and leaves white alone', () => {
    const [dark, light] = treat('exposure', { shadows: 0.5 }, [
      [0.2, 0.2, 0.2],
      [0.9, 0.9, 0.9],
    ]);
    expect(dark[0]).toBeGreaterThan(0.23);
    expect(Math.abs(light[0] - 0.9)).toBeLessThan(0.002);
  });
});

describe('colour', () => {
  it('saturation is the saturate filter of W3C Filter Effects, luma kept', () => {
    const got = treat('colour', { saturation: -0.4 }, colours);
    got.forEach((rgb, i) => {
      const y = luma(colours[i]);
      rgb.forEach((v, c) => expect(Math.abs(v - clamp(y + (colours[i][c] - y) * 0.6))).toBeLessThan(1e-5));
    });
    treat('colour', { saturation: -1 }, colours).forEach((rgb, i) =>
      expect(Math.max(...rgb.map((v) => Math.abs(v - luma(colours[i]))))).toBeLessThan(1e-5),
    );
  });
  it('vibrance moves pale colours more than strong ones', () => {
    const [pale, strong] = treat('colour', { vibrance: 0.8 }, [
      [0.55, 0.5, 0.45],
      [0.95, 0.2, 0.1],
    ]);
    expect((pale[0] - pale[2]) / 0.1).toBeGreaterThan(1.5);
    expect((strong[0] - strong[2]) / 0.85).toBeLessThan(1.15);
  });
  it('makes a faded print: saturation −40 %, lightness +15 %, lifted shadows (common practice, no source)', () => {
    const faded = treat('exposure', { fade: 0.6 }, treat('colour', { saturation: -0.4, lightness: 0.15 }, colours));
    const [black] = treat('exposure', { fade: 0.6 }, treat('colour', { saturation: -0.4, lightness: 0.15 }, [[0, 0, 0]]));
    expect(Math.min(...black)).toBeGreaterThan(0.05);
    const chroma = (list: number[][]) => list.reduce((s, [r, g, b]) => s + lch({ mode: 'rgb', r, g, b } as Rgb).c, 0) / list.length;
    const less = 1 - chroma(faded) / chroma(colours);
    expect(less).toBeGreaterThan(0.35);
    expect(less).toBeLessThan(0.45);
  });
});
