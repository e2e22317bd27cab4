import { converter, differenceCiede2000, parse } from 'culori';
import { numbers } from '@/testing/machine';
import { ciede2000 } from './difference';
import { hueRotation } from './matrix';
import { parseHex, srgbToLab, toEncoded, toLinear, type Triple } from './srgb';

const lab65 = converter('lab65');
const random = numbers(4);
const some: Triple[] = Array.from({ length: 200 }, () => [random(), random(), random()]);

it('converts sRGB to Lab as culori does', () => {
  for (const [r, g, b] of some) {
    const want = lab65({ mode: 'rgb', r, g, b });
    const got = srgbToLab([r, g, b]);
    expect(got[0]).toBeCloseTo(want.l, 2);
    expect(got[1]).toBeCloseTo(want.a, 2);
    expect(got[2]).toBeCloseTo(want.b, 2);
  }
});

it('has the transfer function of IEC 61966-2-1, there and back', () => {
  const lrgb = converter('lrgb');
  for (const v of [0, 0.02, 0.04045, 0.2, 0.5, 0.8, 1]) {
    expect(toLinear(v)).toBeCloseTo(lrgb({ mode: 'rgb', r: v, g: 0, b: 0 }).r, 6);
    expect(toEncoded(toLinear(v))).toBeCloseTo(v, 6);
  }
});

it('measures CIEDE2000 as culori does, on 200 random pairs', () => {
  const de = differenceCiede2000();
  for (let i = 1; i < some.length; i++) {
    const [a, b] = [srgbToLab(some[i - 1]), srgbToLab(some[i])];
    const want = de({ mode: 'lab65', l: a[0], a: a[1], b: a[2] }, { mode: 'lab65', l: b[0], a: b[1], b: b[2] });
    expect(ciede2000(a, b)).toBeCloseTo(want, 3);
  }
});

it.each([
  // Pairs of Sharma, Wu & Dalal 2005, table 1; values from memory.
  [[50, 2.6772, -79.7751], [50, 0, -82.7485], 2.0425],
  [[50, 3.1571, -77.2803], [50, 0, -82.7485], 2.8615],
  [[50, 2.8361, -74.02], [50, 0, -82.7485], 3.4412],
  [[50, 2.5, 0], [50, 0, -2.5], 4.3065],
  [[2.0776, 0.0795, -1.135], [0.9033, -0.0636, -0.5514], 0.9082],
] as [Triple, Triple, number][])('gives the published difference of %j and %j', (a, b, want) => {
  expect(ciede2000(a, b)).toBeCloseTo(want, 3);
});

it('reads hex colours and refuses others', () => {
  const { r, g, b } = parse('#a2423d') as unknown as { r: number; g: number; b: number };
  expect(parseHex('#a2423d')).toEqual([r, g, b]);
  expect(() => parseHex('madder')).toThrow('A colour is written #rrggbb, got "madder".');
});

it('turns hue as a rotation about grey: culori finds the same hue moved in a plane of its own luma weights, and grey stays grey', () => {
  const turn = (rgb: Triple, degrees: number) => {
    const m = hueRotation(degrees);
    return [0, 1, 2].map((r) => m[4 * r] * rgb[0] + m[4 * r + 1] * rgb[1] + m[4 * r + 2] * rgb[2]) as Triple;
  };
  turn([0.4, 0.4, 0.4], 77).forEach((v) => expect(v).toBeCloseTo(0.4, 3));
  // Three turns by 120° are none.
  const colour: Triple = [0.5, 0.4, 0.45];
  turn(turn(turn(colour, 120), 120), 120).forEach((v, i) => expect(v).toBeCloseTo(colour[i], 2));
  // The hue that a colour library reads moves the same way round and, for a small turn, nearly as far.
  const hsl = converter('hsl');
  const hue = ([r, g, b]: Triple) => hsl({ mode: 'rgb', r, g, b }).h ?? 0;
  const moved = ((hue(turn(colour, 20)) - hue(colour) + 540) % 360) - 180;
  expect(moved).toBeGreaterThan(5);
  expect(moved).toBeLessThan(45);
});
