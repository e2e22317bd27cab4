import { drawPiece, planOf } from '@/testing/draw';
import { openCv } from '@/testing/opencv';
import { numbers, testBench } from '@/testing/machine';
import { coatSchema, type Coat } from '../piece/schema';
import { isFar, reducedRegion } from '../image/far';
import { compile } from './compile';
import { unitOfPlan } from './plan';
import { drawsSmaller, reachesOf } from './reach';

const bench = testBench(256);
const { machine } = bench;
const [W, H] = [400, 300];
const random = numbers(41);
const noise = Array.from({ length: W * H }, () => random());
// A hard edge, a slope, and noise; a u is a fifth of a pixel.
const photo = bench.picture(W, H, (x, y) => [x > 160 ? 230 : 30, 255 * (y / H), 255 * noise[y * W + x]].map((v) => Math.round(v)));
const grey = (c: number) => Array.from({ length: W * H }, (_, i) => machine.bytes[photo.levels[0] + i * 4 + c]);

const coat = (id: string, more: object): Coat => coatSchema.parse({ id, source: { kind: 'below' }, ...more });

const draw = (coats: Coat[], tile = 128) => drawPiece(bench, { photo, coats, tile });

/** OpenCV's Gaussian of a plane of values, its edge extended. */
function gaussian(values: number[], sigma: number): Float32Array {
  const from = openCv.matFromArray(H, W, openCv.CV_32FC1, values);
  const to = new openCv.Mat();
  openCv.GaussianBlur(from, to, new openCv.Size(0, 0), sigma, sigma, openCv.BORDER_REPLICATE);
  return Float32Array.from(to.data32F);
}

function apart(got: Uint8Array, c: number, want: (i: number) => number, rim = 0): { most: number; mean: number } {
  let [most, sum] = [0, 0];
  for (let i = 0; i < W * H; i++) {
    const [x, y] = [i % W, Math.floor(i / W)];
    if (Math.min(x, y, W - 1 - x, H - 1 - y) < rim) continue;
    const off = Math.abs(got[i * 4 + c] - Math.max(0, Math.min(255, want(i))));
    [most, sum] = [Math.max(most, off), sum + off];
  }
  return { most, mean: sum / (W * H) };
}

it.each([17, 30, 60])('a blur of %d pixels, wider than a tile can have around it, is OpenCV’s to the picture’s edges', (sigma) => {
  expect(isFar(sigma)).toBe(true);
  const coats = [coat('a', { treatments: [{ kind: 'blur', radius: 5 * sigma }] })];
  const plan = planOf({ photo, coats });
  expect(reachesOf(plan.graph, unitOfPlan(plan)).deepest).toBe(0);
  const got = draw(coats);
  for (let c = 0; c < 3; c++) {
    const want = gaussian(grey(c), sigma);
    // The picture is extended by means of some pixels instead of by single ones: noise differs at the edges, a slope by a level or two.
    const { most, mean } = apart(got, c, (i) => want[i], c === 2 ? Math.min(100, 2 * sigma) : 0);
    // Half a level is the rounding to bytes.
    expect(most).toBeLessThan(c === 1 ? 3 : 1.1);
    expect(mean).toBeLessThan(c === 1 ? 1 : 0.3);
  }
});

it('tiles of different sizes meet', () => {
  const coats = [
    coat('a', { blend: 'soft-light', strength: 0.7, treatments: [{ kind: 'blur', radius: 130 }] }),
    coat('b', { blend: 'multiply', strength: 0.5, treatments: [{ kind: 'tone', contrast: 0.3 }, { kind: 'blur', radius: 250 }, { kind: 'invert' }] }),
  ];
  const [whole, ...others] = [W, 128, 64].map((tile) => draw(coats, tile));
  for (const other of others) for (let c = 0; c < 3; c++) expect(apart(other, c, (i) => whole[i * 4 + c]).most).toBeLessThanOrEqual(1);
});

it('a wide blur at half its strength keeps the finest detail at half', () => {
  const sigma = 16.5;
  const got = draw([coat('a', { treatments: [{ kind: 'blur', radius: 5 * sigma, strength: 0.5 }] })]);
  const soft = gaussian(grey(2), sigma);
  const fine = grey(2);
  expect(apart(got, 2, (i) => 0.5 * fine[i] + 0.5 * soft[i], 33).mean).toBeLessThan(0.4);
});

it('a wide feather of a mask that reads what lies below is the mask’s Gaussian', () => {
  const feather = 450;
  const mask = { start: 'none', parts: [{ kind: 'tones', of: 'below', op: 'add', range: [0.3, 0.3, 1, 1] }], feather };
  const source = { kind: 'colour', colour: '#000000' };
  // Below the mask lies a coat that turns light and dark about: the mask must see that, not the photo.
  const turned = coat('t', { treatments: [{ kind: 'invert' }] });
  const got = draw([turned, coat('a', { source, mask })]);
  const luma = grey(0).map((_, i) => {
    const [r, g, b] = [0, 1, 2].map((c) => 1 - machine.bytes[photo.levels[0] + i * 4 + c] / 255);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  });
  const covers = luma.map((v) => (v >= 0.3 ? 1 : 0));
  const want = gaussian(covers, (feather * 0.2) / 3);
  const red = grey(0);
  const { mean } = apart(got, 0, (i) => (255 - red[i]) * (1 - want[i]));
  expect(mean).toBeLessThan(3);
});

it('says what is drawn smaller', () => {
  const smaller = (of: Coat, unit: number) => drawsSmaller(compile({ photo, coats: [of], strength: 1 }), unit);
  const drape = coat('a', { treatments: [{ kind: 'drape', map: 'below', amountX: 60, amountY: -60, blur: 40 }] });
  expect(smaller(drape, 0.2)).toBe(false);
  expect(smaller(drape, 3)).toBe(true);
  expect(smaller(coat('b', { treatments: [{ kind: 'blur', radius: 60, active: false }] }), 3)).toBe(false);
  expect(smaller(coat('c', { mask: { start: 'all', parts: [], feather: 300 } }), 1)).toBe(true);
  expect(smaller(coat('d', { treatments: [{ kind: 'even', amount: 1 }] }), 1)).toBe(true);
});

it('a region’s smaller pixels lie around it on every side', () => {
  for (const [x, width, factor] of [
    [-7, 20, 4],
    [0, 128, 8],
    [131, 5, 2],
  ]) {
    const small = reducedRegion({ x, y: x, width, height: width }, factor);
    expect(small.x * factor).toBeLessThanOrEqual(x - factor);
    expect((small.x + small.width) * factor).toBeGreaterThanOrEqual(x + width + factor);
    expect(small.height).toBe(small.width);
  }
});
