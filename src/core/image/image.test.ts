import sharp from 'sharp';
import { numbers, testBench } from '@/testing/machine';
import { given, testSheets } from '@/testing/sheet';
import { Heap } from './heap';
import { levelSizes, pictureAt, pictureBytes } from './picture';
import { sampleAffine, samplePhoto } from './sample';
import { padded, Scratch, type Region } from './tile';

const bench = testBench(160);
const { machine, scratch } = bench;
const read = (tile: { ptr: number; stride: number; width: number; height: number }, c: number) =>
  Array.from({ length: tile.width * tile.height }, (_, i) => machine.floats[tile.ptr / 4 + (c * tile.stride) / 4 + i]);

/** A picture with soft and sharp parts. */
const scene = (x: number, y: number) => [128 + 90 * Math.sin(x / 9) * Math.cos(y / 13), 255 * Math.min(1, x / 300), x > 150 && y > 60 ? 220 : 40];
const W = 320;
const H = 200;
const photo = bench.picture(W, H, (x, y) => scene(x, y).map(Math.round));
const raw = Buffer.from(Array.from({ length: W * H }, (_, i) => scene(i % W, Math.floor(i / W)).map(Math.round)).flat());

function whole(scale: number, region?: Region) {
  scratch.reset();
  const tile = scratch.tile(region ?? { x: 0, y: 0, width: Math.round(W * scale), height: Math.round(H * scale) });
  samplePhoto(machine, photo, scale, tile);
  return tile;
}

describe('reducing a photo', () => {
  it.each([0.5, 0.25, 0.4])('to %f agrees with libvips (sharp, linear kernel) within 1.5 levels mean', async (scale) => {
    const tile = whole(scale);
    const { data } = await sharp(raw, { raw: { width: W, height: H, channels: 3 } })
      .resize(tile.width, tile.height, { kernel: 'linear', fit: 'fill' })
      .raw()
      .toBuffer({ resolveWithObject: true });
    let sum = 0;
    for (let c = 0; c < 3; c++) read(tile, c).forEach((v, i) => (sum += Math.abs(v * 255 - data[i * 3 + c])));
    expect(sum / data.length).toBeLessThan(1.5);
  });

  it('is the exact area mean at a half', () => {
    const tile = whole(0.5);
    const want = (x: number, y: number) =>
      [0, 1].flatMap((j) => [0, 1].map((i) => Math.round(scene(2 * x + i, 2 * y + j)[0]))).reduce((a, b) => a + b) / 4 / 255;
    for (const [x, y] of [
      [3, 5],
      [80, 40],
      [159, 99],
    ])
      expect(machine.floats[tile.ptr / 4 + y * tile.width + x]).toBeCloseTo(want(x, y), 2);
  });

  it('is the photo itself at full size', () => {
    const tile = whole(1);
    expect(Math.round(machine.floats[tile.ptr / 4 + 77 * W + 41] * 255)).toBe(Math.round(scene(41, 77)[0]));
  });

  it('at full size has the nearest pixel beyond its edges, on every side', () => {
    for (const region of [
      { x: -9, y: -5, width: 23, height: 11 },
      { x: W - 7, y: H - 4, width: 18, height: 9 },
      { x: -3, y: 40, width: W + 6, height: 2 },
      { x: W + 5, y: 12, width: 6, height: 3 },
      { x: -20, y: H + 2, width: 9, height: 3 },
    ]) {
      const tile = whole(1, region);
      for (let c = 0; c < 4; c++)
        read(tile, c).forEach((v, i) => {
          const x = Math.max(0, Math.min(W - 1, region.x + (i % region.width)));
          const y = Math.max(0, Math.min(H - 1, region.y + Math.floor(i / region.width)));
          expect(Math.round(v * 255)).toBe(c === 3 ? 255 : Math.round(scene(x, y)[c]));
        });
    }
  });

  it('does not depend on how it is cut', () => {
    const all = whole(0.37);
    const part = { x: 31, y: 17, width: 40, height: 21 };
    const values = read(all, 0);
    const wide = all.width;
    const cut = read(whole(0.37, part), 0);
    cut.forEach((v, i) => expect(v).toBe(values[(part.y + Math.floor(i / part.width)) * wide + part.x + (i % part.width)]));
  });
});

describe('sampling under a map', () => {
  it('at the identity returns the pixels, clear outside', () => {
    scratch.reset();
    const tile = scratch.tile({ x: -4, y: 0, width: 16, height: 8 });
    sampleAffine(machine, photo, { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, 'clear', tile);
    expect(read(tile, 3)[0]).toBe(0);
    expect(read(tile, 3)[8]).toBe(1);
    expect(Math.round(read(tile, 0)[10] * 255)).toBe(Math.round(scene(6, 0)[0]));
  });
  it('wraps without a seam', () => {
    scratch.reset();
    const tile = scratch.tile({ x: W - 2, y: 0, width: 4, height: 1 });
    sampleAffine(machine, photo, { a: 1, b: 0, c: 0, d: 1, e: 0, f: 0 }, 'wrap', tile);
    expect(Math.round(read(tile, 0)[2] * 255)).toBe(Math.round(scene(0, 0)[0]));
  });
});

it('blurs as libvips does (sharp’s Gaussian), away from the edge within 0.7 levels mean', async () => {
  const N = 256;
  const random = numbers(2);
  const grey = Uint8Array.from({ length: N * N }, (_, i) => 255 * (Math.floor(i / N / 32) % 2 === Math.floor((i % N) / 32) % 2 ? 0.9 * random() : 1));
  for (const sigma of [1.3, 3, 9]) {
    const sheets = testSheets(machine, bench.take(64), 40 * 2 ** 20);
    const plane = sheets.values(given(sheets.sheet(), grey).blur(sigma / N), N);
    const { data } = await sharp(grey, { raw: { width: N, height: N, channels: 1 } })
      .blur({ sigma, precision: 'float', minAmplitude: 0.001 })
      .raw()
      .toBuffer({ resolveWithObject: true });
    const step = data.length / (N * N);
    let sum = 0;
    let count = 0;
    const rim = Math.ceil(4 * sigma);
    for (let y = rim; y < N - rim; y++) for (let x = rim; x < N - rim; x++, count++) sum += Math.abs(plane[y * N + x] - data[(y * N + x) * step]);
    expect(sum / count).toBeLessThan(0.8);
  }
});

it('packs to bytes by rounding and keeps 16 bit caches within half a step', () => {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: 8, height: 1 });
  const back = scratch.tile({ x: 0, y: 0, width: 8, height: 1 });
  const cache = scratch.take(padded(8, 1) * 8);
  for (let i = 0; i < 32; i++) machine.floats[tile.ptr / 4 + i] = i / 31;
  machine.kernels.pack16(tile.ptr, tile.stride, cache, 8, 4);
  machine.kernels.unpack16(cache, back.ptr, back.stride, 8, 4);
  for (let i = 0; i < 32; i++) expect(Math.abs(machine.floats[back.ptr / 4 + i] - i / 31)).toBeLessThan(0.51 / 65535);
  const out = scratch.take(32);
  machine.kernels.packBytes(tile.ptr, tile.stride, 8, 1, out, 8);
  expect(machine.bytes[out + 4]).toBe(Math.round((1 / 31) * 255));
});

describe('memory', () => {
  it('hands out aligned places, takes them back and joins the gaps', () => {
    let pages = 0;
    const heap = new Heap((p) => (pages = Math.max(pages, p)));
    const a = heap.take(1000);
    const b = heap.take(70000);
    const c = heap.take(10);
    expect([a, b, c].every((p) => p % 128 === 0 && p >= 65536)).toBe(true);
    expect(pages * 65536).toBeGreaterThanOrEqual(c + 10);
    heap.give(a);
    heap.give(b);
    expect(heap.take(70900)).toBe(a);
    expect(heap.used).toBe(Math.ceil(70900 / 128) * 128 + 128);
    expect(() => heap.take(3 * 2 ** 30)).toThrow(/not enough memory/);
  });
  it('lays the levels of a picture one behind the other', () => {
    expect(levelSizes(300, 200).slice(0, 3)).toEqual([
      [300, 200],
      [150, 100],
      [75, 50],
    ]);
    const p = pictureAt(1024, 300, 200);
    expect(p.levels[1] - p.levels[0]).toBe(300 * 200 * 4);
    expect(pictureBytes(300, 200, 1)).toBe(240000);
  });
  it('refuses a tile that does not fit', () => {
    expect(() => new Scratch(machine, 65536, 66000).tile({ x: 0, y: 0, width: 64, height: 64 })).toThrow(RangeError);
  });
});
