import { parse, converter } from 'culori';
import { hueRotation, saturation } from '../color/matrix';
import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import { treatmentByKind } from '.';

/** Scalar formulas of W3C Filter Effects Level 1: the shorthands' component transfers and matrices, each step clamped. */
function reference(rgb: number[], p: { brightness: number; contrast: number; saturation: number; hue: number; invert: boolean }): number[] {
  const clamp = (v: number) => Math.min(1, Math.max(0, v));
  let c = rgb.map((v) => clamp(v * (1 + p.brightness)));
  c = c.map((v) => clamp(v * (1 + p.contrast) - 0.5 * (1 + p.contrast) + 0.5));
  const matrix = (m: number[]) => (c = [0, 1, 2].map((r) => clamp(m[4 * r] * c[0] + m[4 * r + 1] * c[1] + m[4 * r + 2] * c[2] + m[4 * r + 3])));
  const s = 1 + p.saturation;
  const gray = [0.213, 0.715, 0.072];
  matrix([0, 1, 2].flatMap((r) => [...gray.map((g, k) => g + (r === k ? (1 - g) * s : -g * s)), 0]));
  matrix(hueRotation(p.hue));
  return p.invert ? c.map((v) => 1 - v) : c;
}

const tone = treatmentByKind('tone');
const bench = testBench(64);
const { machine, scratch, picture } = bench;
const photo = picture(16, 16, (x, y) => [x * 16, y * 16, 128]);

function apply(rgb: number[][], params: Record<string, unknown>): number[][] {
  const context = contextOn(bench, photo);
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: rgb.length, height: 1 });
  rgb.forEach((p, i) => [...p, 1].forEach((v, c) => (machine.floats[tile.ptr / 4 + (c * tile.stride) / 4 + i] = v)));
  tone.apply(context, tile, tone.schema.parse({ kind: 'tone', ...params }));
  return rgb.map((_, i) => [0, 1, 2].map((c) => machine.floats[tile.ptr / 4 + (c * tile.stride) / 4 + i]));
}

const colours = ['#a2423d', '#808080', '#102030', '#f0e0c0', '#00ff00', '#ffffff', '#000000'].map((h) => {
  const { r, g, b } = parse(h) as unknown as { r: number; g: number; b: number };
  return [r, g, b];
});

it.each([
  { brightness: 0.1, contrast: 0.2, saturation: -0.4, hue: 0, invert: false },
  { brightness: -0.5, contrast: -0.5, saturation: 0.8, hue: 47, invert: true },
  { brightness: 0, contrast: 1, saturation: -1, hue: -120, invert: false },
])('follows the filter shorthands for %o', (p) => {
  apply(colours, p).forEach((rgb, i) => rgb.forEach((v, c) => expect(v).toBeCloseTo(reference(colours[i], p)[c], 5)));
});

it('is left out when neutral, and says why hue does nothing to a grey material', () => {
  expect(tone.neutral(tone.schema.parse({ kind: 'tone' }))).toBe(true);
  const meta = (tone.schema.shape.hue as unknown as { meta(): { idle(v: object): string | undefined } }).meta();
  expect(meta.idle({ saturation: -1 })).toMatch(/^No effect/);
  expect(meta.idle({ saturation: 0 })).toBeUndefined();
});

it('takes saturation to none without changing the luminance that the matrix keeps (outside: culori’s lrgb weights agree within 1 %)', () => {
  const m = saturation(0);
  const weights = m.slice(0, 3);
  const white = converter('xyz65')({ mode: 'lrgb', r: 1, g: 0, b: 0 }) as { y: number };
  expect(weights[0]).toBeCloseTo(white.y, 2);
});

it('refuses values out of range', () => {
  expect(() => tone.schema.parse({ kind: 'tone', brightness: 3 })).toThrow();
});
