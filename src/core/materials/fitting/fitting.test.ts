import { readdirSync } from 'node:fs';
import path from 'node:path';
import sharp from 'sharp';
import { numbers, testBench } from '@/testing/machine';
import { pictureAt, pictureBytes, buildLevels, smallCopy } from '../../image/picture';
import { sampleAffine } from '../../image/sample';
import { findBorder } from './border';
import { borderOf, fitPicture, fitScratch } from './fit';
import { fittedSize, fittingSchema, neutralFitting, trimmed } from './schema';
import { leastCut } from './seam';

const bench = testBench(256);
const { machine, scratch, take } = bench;
const random = numbers(3);

/** Smooth noise of a given grain: bilinear between random values. */
function noise(grain: number, seed: number): (x: number, y: number) => number {
  const next = numbers(seed);
  const n = 64;
  const grid = Float32Array.from({ length: n * n }, () => next());
  const { floor } = Math;
  return (x, y) => {
    const [u, v] = [x / grain, y / grain];
    const [i, j] = [floor(u), floor(v)];
    const [f, g] = [u - i, v - j];
    const at = (a: number, b: number) => grid[(((j + b) % n) + n) % n * n + ((((i + a) % n) + n) % n)]; // prettier-ignore
    return (at(0, 0) * (1 - f) + at(1, 0) * f) * (1 - g) + (at(0, 1) * (1 - f) + at(1, 1) * f) * g;
  };
}
const coarse = noise(9, 1);
const fine = noise(2.3, 2);
const paper = (x: number, y: number) => 150 + 40 * (coarse(x, y) - 0.5) + 30 * (fine(x, y) - 0.5);

const W = 420;
const H = 300;
/** A scan of paper with a border of one tone, `depth` pixels on each side, turned by `askew` (a slope). */
const scan = (tone: number, depth: [number, number, number, number], askew = 0) =>
  bench.picture(W, H, (x, y) => {
    const s = askew * (y - H / 2);
    const t = askew * (x - W / 2);
    const inside = x + s >= depth[0] && y - t >= depth[1] && x + s < W - depth[2] && y - t < H - depth[3];
    const v = inside ? paper(x, y) : tone + 6 * (fine(x, y) - 0.5);
    return [v, v * 0.97, v * 0.9].map((c) => Math.round(Math.min(255, Math.max(0, c))));
  });

describe('the border of a scan', () => {
  it.each([
    ['dark', 12, [14, 9, 20, 6]],
    ['light', 250, [8, 12, 5, 16]],
  ] as const)('a %s one is found on all sides to a few pixels, and nothing of it is left', (tone, value, depth) => {
    const found = borderOf(machine, scan(value, [...depth]))!;
    expect(found.tone).toBe(tone);
    const got = [found.left * W, found.top * H, found.right * W, found.bottom * H];
    got.forEach((d, i) => {
      expect(d).toBeGreaterThanOrEqual(depth[i]);
      expect(d).toBeLessThan(depth[i] + 4);
    });
  });

  it('one that is a little askew is taken off with it', () => {
    const found = borderOf(machine, scan(10, [14, 14, 14, 14], 0.02))!;
    // The slope carries it 0.02 × half the other side further in.
    expect(found.left * W).toBeGreaterThan(14);
    expect(found.left * W).toBeLessThan(14 + 0.02 * H + 4);
  });

  it('on one side only is taken off that side only', () => {
    const found = borderOf(machine, scan(8, [0, 0, 22, 0]))!;
    expect([found.left, found.top, found.bottom]).toEqual([0, 0, 0]);
    expect(found.right * W).toBeGreaterThanOrEqual(22);
  });

  it.each([
    ['paper without one', (x: number, y: number) => paper(x, y)],
    ['a plain sheet', () => 200],
    [
      'a sheet that darkens towards its edges',
      (x: number, y: number) => paper(x, y) * (1 - 0.5 * (((x - W / 2) / W) ** 2 + ((y - H / 2) / H) ** 2) * 2),
    ],
    ['even noise', () => 90 + 60 * random()],
  ])('%s keeps its edges', (_name, value) => {
    const picture = bench.picture(W, H, (x, y) => Array(3).fill(Math.round(value(x, y))));
    expect(borderOf(machine, picture)).toBeNull();
  });
});

// Photographs with plain grounds, skies and dark corners: none of them is a scan.
const photos = path.join(process.env.DERMATEX_ROOT ?? process.cwd(), 'demo/photos');
it.each(readdirSync(photos))('the photograph %s has no border', async (name) => {
  const image = sharp(path.join(photos, name)).resize(640, 640, { fit: 'inside' }).ensureAlpha().raw();
  const { data, info } = await image.toBuffer({ resolveWithObject: true });
  expect(findBorder({ width: info.width, height: info.height, pixels: Float32Array.from(data, (v) => v / 255) })).toBeNull();
});

/** Makes a picture fit; values of the result as 0..1. */
function fitted(value: (x: number, y: number) => number[], values: object, deep = false) {
  scratch.reset();
  const fitting = fittingSchema.parse(values);
  const size = W * H * (deep ? 8 : 4);
  const raw = take(size);
  const store = deep ? new Uint16Array(machine.bytes.buffer, raw, W * H * 4) : new Uint8Array(machine.bytes.buffer, raw, W * H * 4);
  const most = deep ? 65535 : 255;
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) {
      const v = value(x, y);
      for (let c = 0; c < 4; c++) store[(y * W + x) * 4 + c] = c === 3 ? most : Math.round(Math.min(1, Math.max(0, v[c])) * most);
    }
  const part = trimmed(W, H, fitting);
  const target = take(pictureBytes(part.width, part.height, undefined, deep));
  const picture = fitPicture(machine, { at: raw, width: W, height: H, deep }, fitting, target, take(fitScratch(W, H)));
  buildLevels(machine, picture);
  return { picture, ...smallCopy(machine, picture, Infinity) };
}

const grey = (v: number) => [v, v, v];
const textured = (x: number, y: number) => grey(paper(x, y) / 255);

describe('made to fit', () => {
  it('trimming leaves exactly what lies inside', () => {
    const { width, height, pixels } = fitted((x, y) => [x / W, y / H, 0.5], { left: 0.1, top: 0.2, right: 0.05, bottom: 0 });
    expect([width, height]).toEqual([W - 42 - 21, H - 60]);
    expect(pixels[0]).toBeCloseTo(42 / W, 2);
    expect(pixels[1]).toBeCloseTo(60 / H, 2);
  });

  it('without colour every channel is the Rec. 709 luma', () => {
    const { pixels } = fitted(() => [0.9, 0.4, 0.1], { grey: true });
    const luma = 0.2126 * 0.9 + 0.7152 * 0.4 + 0.0722 * 0.1;
    for (let c = 0; c < 3; c++) expect(pixels[c]).toBeCloseTo(luma, 2);
  });

  it('a seam is no greater than the differences inside, at the 99th percentile', () => {
    // Alone its two ends have nothing to do with one another.
    const { width, height, pixels, picture } = fitted(textured, { seamless: true });
    expect({ width, height }).toEqual(fittedSize(W, H, fittingSchema.parse({ seamless: true })));
    expect(picture.width).toBe(width);
    const at = (x: number, y: number) => pixels[(((y + height) % height) * width + ((x + width) % width)) * 4];
    const step = (x: number, y: number, down: boolean) => Math.abs(at(x, y) - (down ? at(x, y - 1) : at(x - 1, y)));
    const p99 = (values: number[]) => values.sort((a, b) => a - b)[Math.floor(values.length * 0.99)];
    for (const down of [false, true]) {
      const [lines, side] = down ? [width, height] : [height, width];
      const edge = Array.from({ length: lines }, (_, i) => (down ? step(i, 0, true) : step(0, i, false)));
      const inside: number[] = [];
      for (let k = Math.floor(side / 2); k < side - 1; k += 3)
        for (let i = 0; i < lines; i += 2) inside.push(down ? step(i, k, true) : step(k, i, false));
      expect(p99(edge)).toBeLessThanOrEqual(p99(inside) * 1.05);
      // Within the overlap, where the cut runs, too.
      const cut: number[] = [];
      for (let k = 1; k < side * 0.12; k++) for (let i = 0; i < lines; i++) cut.push(down ? step(i, k, true) : step(k, i, false));
      expect(p99(cut)).toBeLessThanOrEqual(p99(inside) * 1.1);
    }
  });

  it('uneven light is taken out: a bowl and a slope of one and a half stops go to a tenth of it, texture stays', () => {
    const light = (x: number, y: number) => 2 ** (-0.9 * (((x - W / 2) / W) ** 2 + ((y - H / 2) / H) ** 2) * 2 - 0.6 * (x / W));
    const lit = (x: number, y: number) => grey((0.75 + 0.1 * (fine(x, y) - 0.5)) * light(x, y) ** (1 / 2.2));
    const spread = (even: number) => {
      const { width, height, pixels } = fitted(lit, { even });
      const means: number[] = [];
      for (let by = 0; by < 5; by++)
        for (let bx = 0; bx < 7; bx++) {
          let sum = 0;
          for (let y = 0; y < height / 5; y++)
            for (let x = 0; x < width / 7; x++) sum += pixels[((by * Math.floor(height / 5) + y) * width + bx * 60 + x) * 4];
          means.push(sum / (Math.floor(height / 5) * 60));
        }
      return Math.max(...means) - Math.min(...means);
    };
    expect(spread(0)).toBeGreaterThan(0.15);
    expect(spread(1)).toBeLessThan(spread(0) * 0.1);
    expect(spread(0.5)).toBeGreaterThan(spread(0) * 0.3);
  });

  it('16 bits stay 16 bits through everything, and down to what a coat reads', () => {
    const slow = (x: number) => grey(0.5 + 0.01 * (x / W));
    const { pixels, width } = fitted(slow, { left: 0.02, even: 0 }, true);
    const row = new Set(Array.from({ length: width }, (_, x) => pixels[x * 4]));
    // In 8 bits a hundredth is three steps.
    expect(row.size).toBeGreaterThan(350);
    const { picture } = fitted(slow, { grey: true }, true);
    const tile = scratch.tile({ x: 0, y: 0, width: 64, height: 4 });
    sampleAffine(machine, picture, { a: 1, b: 0, c: 0, d: 1, e: 100.5, f: 20 }, 'clear', tile);
    for (let i = 0; i < 64; i++) expect(machine.floats[tile.ptr / 4 + i]).toBeCloseTo(0.5 + (0.01 * (100.5 + i)) / W, 4);
    const half = pictureAt(picture.levels[0], picture.width, picture.height, undefined, true);
    sampleAffine(machine, half, { a: 4, b: 0, c: 0, d: 4, e: 40, f: 20 }, 'wrap', tile);
    for (let i = 0; i < 64; i++) expect(machine.floats[tile.ptr / 4 + i]).toBeCloseTo(0.5 + (0.01 * (41.5 + 4 * i)) / W, 4);
  });

  it('left alone, a picture is itself to the byte', () => {
    const { width, height, pixels } = fitted((x, y) => [x / W, y / H, 0.25], neutralFitting);
    expect([width, height]).toEqual([W, H]);
    expect(Math.round(pixels[(10 * W + 20) * 4] * 255)).toBe(Math.round((20 / W) * 255));
  });
});

describe('the least cut (Efros & Freeman 2001)', () => {
  // The cheapest way through a small table, written out: 1 0 9 / 9 9 0 / 1 9 0.
  const table = [
    [1, 0, 9],
    [9, 9, 0],
    [1, 9, 0],
  ];
  it('goes along the smallest sum', () => {
    expect([...leastCut(3, 3, (l, k) => table[l][k], false)]).toEqual([1.5, 2.5, 2.5]);
  });
  it('comes back to where it began when it is closed', () => {
    const wavy = leastCut(40, 12, (l, k) => Math.abs(k - 6 - 4 * Math.sin(l / 6)), true);
    expect(wavy[0]).toBe(wavy[39]);
  });
});
