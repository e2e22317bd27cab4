import { numbers, testBench } from '@/testing/machine';
import { buildLevels, levelSizes, pictureAt, pictureBytes, type Picture } from './picture';

const bench = testBench(64);
const { machine } = bench;
const next = numbers(31);

const bytesOf = (p: Picture, level: number): Uint8Array => {
  const [w, h] = levelSizes(p.width, p.height)[level];
  return machine.bytes.slice(p.levels[level], p.levels[level] + w * h * 4);
};

/** The 2 × 2 mean of the level before, written pixel by pixel: the last row or column counts twice where the size is odd. */
function halved(from: Uint8Array, w: number, h: number): number[] {
  const out: number[] = [];
  const at = (x: number, y: number, c: number) => from[(Math.min(h - 1, y) * w + Math.min(w - 1, x)) * 4 + c];
  for (let y = 0; y < (h + 1) >> 1; y++)
    for (let x = 0; x < (w + 1) >> 1; x++)
      for (let c = 0; c < 4; c++)
        out.push((at(2 * x, 2 * y, c) + at(2 * x + 1, 2 * y, c) + at(2 * x, 2 * y + 1, c) + at(2 * x + 1, 2 * y + 1, c) + 2) >> 2);
  return out;
}

describe('mip levels', () => {
  it.each([
    [64, 48],
    [37, 29],
    [9, 51],
    [8, 1],
  ])('of %d × %d are means of two by two pixels of the level before', (w, h) => {
    const picture = bench.picture(w, h, () => [next() * 255, next() * 255, next() * 255, next() * 255].map(Math.round));
    levelSizes(w, h)
      .slice(0, -1)
      .forEach(([lw, lh], l) => expect([...bytesOf(picture, l + 1)]).toEqual(halved(bytesOf(picture, l), lw, lh)));
  });

  it.each([
    [0, 3],
    [10, 11],
    [17, 40],
    [44, 45],
    [0, 45],
  ])('are the same when only rows %d to %d have changed and only those are made anew', (top, bottom) => {
    const [w, h] = [53, 45];
    const one = bench.picture(w, h, (x, y) => [x * 4, y * 5, (x * y) % 255, 255]);
    const two = bench.picture(w, h, (x, y) => [x * 4, y * 5, (x * y) % 255, 255]);
    for (let y = top; y < bottom; y++)
      for (let x = 0; x < w; x++) {
        const pixel = [next() * 255, next() * 255, next() * 255, 255].map(Math.round);
        for (const p of [one, two]) machine.bytes.set(pixel, p.levels[0] + (y * w + x) * 4);
      }
    buildLevels(machine, one);
    buildLevels(machine, two, top, bottom);
    one.levels.forEach((_, l) => expect(Buffer.compare(Buffer.from(bytesOf(one, l)), Buffer.from(bytesOf(two, l)))).toBe(0));
  });

  it('lie behind the picture without overlapping, each at a multiple of 16', () => {
    const at = 4096;
    const picture = pictureAt(at, 301, 199);
    const sizes = levelSizes(301, 199);
    picture.levels.forEach((start, l) => {
      expect(start % 16).toBe(0);
      const [w, h] = sizes[l];
      expect(start + w * h * 4).toBeLessThanOrEqual(picture.levels[l + 1] ?? at + pictureBytes(301, 199));
    });
    expect(pictureAt(at, 301, 199, 1).levels).toHaveLength(1);
    expect(Math.max(...sizes[sizes.length - 1])).toBeLessThanOrEqual(4);
  });
});
