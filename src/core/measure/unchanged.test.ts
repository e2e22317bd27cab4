import { ciede2000 } from '../color/difference';
import { numbers, testMachine } from '@/testing/machine';
import { compare } from './compare';
import { addTallies, amountToKeep, unchangedOf, unchangedScratch, tallyUnchanged, verdictOf, type UnchangedOrder } from './unchanged';

const machine = testMachine(64);
const AT = 65536;

// The 34 pairs and differences of Sharma, Wu & Dalal, "The CIEDE2000 Color-Difference Formula" (2005), table 1.
const pairs = [
  [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
  [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
  [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
  [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
  [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
  [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
  [50, 0, 0, 50, -1, 2, 2.3669],
  [50, -1, 2, 50, 0, 0, 2.3669],
  [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
  [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
  [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
  [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
  [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
  [50, 2.5, 0, 50, 0, -2.5, 4.3065],
  [50, 2.5, 0, 73, 25, -18, 27.1492],
  [50, 2.5, 0, 61, -5, 29, 22.8977],
  [50, 2.5, 0, 56, -27, -3, 31.903],
  [50, 2.5, 0, 58, 24, 15, 19.4535],
  [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
  [50, 2.5, 0, 50, 3.2972, 0, 1],
  [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
  [50, 2.5, 0, 50, 3.2592, 0.335, 1],
  [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
  [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
  [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
  [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
  [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
  [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
  [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
  [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
  [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
  [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
];

describe('the kernel of CIEDE2000', () => {
  it.each(pairs.map((p, i) => [i + 1, p]))('gives the published difference of pair %i', (_i, p) => {
    const [L1, a1, b1, L2, a2, b2, want] = p as number[];
    // Pairs 9 to 16 turn on thousandths of a hue at its seam, which single precision still tells apart.
    expect(Math.abs(machine.kernels.ciede2000(L1, a1, b1, L2, a2, b2) - want)).toBeLessThan(2e-3);
    expect(ciede2000([L1, a1, b1], [L2, a2, b2])).toBeCloseTo(want, 4);
  });
});

const W = 90;
const H = 70;
function put(fill: (x: number, y: number, c: number) => number): Uint8Array {
  const out = new Uint8Array(W * H * 4).fill(255);
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) for (let c = 0; c < 3; c++) out[(y * W + x) * 4 + c] = Math.max(0, Math.min(255, Math.round(fill(x, y, c))));
  return out;
}
const random = numbers(8);
const photo = put((x, y, c) => 60 + x + 0.8 * y + 20 * c + 12 * random());
const result = put((x, y, c) => photo[(y * W + x) * 4 + c] * (x < 45 ? 1 : 0.85 + 0.1 * random()));
const left = put((x) => (x < 45 ? 255 : 0));
const right = put((x) => (x < 45 ? 0 : 255));

function run(change: Partial<UnchangedOrder> = {}) {
  const size = W * H * 4;
  [photo, result, left, right].forEach((bytes, i) => machine.bytes.set(bytes, AT + i * size));
  const order: UnchangedOrder = {
    photo: AT,
    result: AT + size,
    masks: [AT + 2 * size, AT + 3 * size],
    width: W,
    height: H,
    top: 0,
    bottom: H,
    ...change,
  };
  return tallyUnchanged(machine, order, AT + 4 * size + 64);
}

it('keeps within its working memory', () => expect(unchangedScratch(W, H)).toBeLessThan(machine.memory.buffer.byteLength));

it('finds an untouched half untouched and measures the other as the plain comparison does', () => {
  const [a, b] = run().map((t) => unchangedOf(t)!);
  const rgba = (data: Uint8Array) => ({ data, width: W, height: H });
  const want = compare(
    rgba(photo),
    rgba(result),
    Uint8Array.from({ length: W * H }, (_, i) => right[4 * i]),
  );
  expect(verdictOf(a)).toBe('untouched');
  expect(a.mean).toBe(0);
  expect(a.p95).toBe(0);
  expect(b.mean).toBeCloseTo(want.mean, 2);
  expect(Math.abs(b.p95 - want.p95)).toBeLessThan(0.06);
  // The plain one leaves a rim of five pixels out; this one extends the edges.
  expect(Math.abs(b.ssim - want.ssim)).toBeLessThan(0.01);
  expect(b.pixels).toBe(45 * H);
});

it('adds up over bands to what it is in one', () => {
  const [, whole] = run();
  const bands = [
    [0, 33],
    [33, H],
  ].map(([top, bottom]) => run({ top, bottom })[1]);
  const sum = addTallies(bands[0], bands[1]);
  expect(sum.weight).toBeCloseTo(whole.weight, 3);
  expect(sum.difference).toBeCloseTo(whole.difference, 3);
  expect(unchangedOf(sum)!.p95).toBe(unchangedOf(whole)!.p95);
});

it('says in words what came of a region, and how far to raise its guard', () => {
  const kept = (mean: number, p95: number) => ({ mean, p95, ssim: 1, pixels: 100 });
  expect([kept(0.2, 0.6), kept(0.6, 2), kept(3.1, 6), kept(7, 12), kept(15, 20)].map(verdictOf)).toEqual([
    'untouched',
    'hardly touched',
    'softened',
    'textured',
    'covered',
  ]);
  expect(amountToKeep(kept(0.2, 0.6), 0.3)).toBe(0.3);
  // What comes through at 65 % with a difference of 3.5 is 0.9 at 91 %, in steps of five: 95.
  expect(amountToKeep(kept(2, 3.5), 0.65)).toBe(0.95);
});
