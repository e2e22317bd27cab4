import { contextOn } from '@/testing/draw';
import { testBench } from '@/testing/machine';
import type { Tile } from '../image/tile';
import { soften, softened, softLuma } from './soften';

const bench = testBench(64);
const { machine, scratch } = bench;
const [W, H] = [48, 32];
const photo = bench.picture(W, H, (x) => [5 * x, 5 * x, 5 * x]);
const luma = (r: number, g: number, b: number) => 0.2126 * r + 0.7152 * g + 0.0722 * b;

function tileOf(values: number[], region = { x: 0, y: 0, width: W, height: H }): Tile {
  const tile = scratch.tile(region);
  values.forEach((v, c) => machine.kernels.fill(tile.ptr + c * tile.stride, tile.count, v));
  return tile;
}
const at = (plane: number, width: number, x: number, y: number) => machine.floats[plane / 4 + y * width + x];
const channels = (t: Tile, x: number, y: number) => [0, 1, 2, 3].map((c) => at(t.ptr + c * t.stride, t.width, x, y));
const near = (got: number[], want: number[]) => got.forEach((v, i) => expect(v).toBeCloseTo(want[i], 5));

beforeEach(() => scratch.reset());
const context = () => contextOn(bench, photo);

it('takes colours from the smaller drawing where there is one, and keeps its own alpha', () => {
  const tile = tileOf([0.1, 0.2, 0.3, 0.5]);
  const asked: [string, number][] = [];
  const far = (of: string, sigma: number) => (asked.push([of, sigma]), tileOf([0.6, 0.7, 0.8, 1]));
  const mark = scratch.mark();
  soften({ ...context(), far }, tile, 40);
  near(channels(tile, 20, 10), [0.6, 0.7, 0.8, 0.5]);
  expect(asked).toEqual([['own', 40]]);
  expect(scratch.mark()).toBe(mark);
});

it('blurs by itself where there is none, and leaves what it was given alone when a tile of its own is asked for', () => {
  const tile = tileOf([0, 0, 0, 1]);
  machine.floats[tile.ptr / 4 + 10 * W + 20] = 1;
  const soft = softened({ ...context(), far: () => undefined }, tile, 1.5);
  near(channels(tile, 20, 10), [1, 0, 0, 1]);
  // The middle of a Gaussian of that deviation (3 deviations of taps).
  expect(channels(soft, 20, 10)[0]).toBeCloseTo(1 / (2 * Math.PI * 1.5 ** 2), 2);
  soften(context(), tile, 1.5);
  near(channels(tile, 21, 12), channels(soft, 21, 12));
});

it('knows the luma of itself, of an input, and of the photo', () => {
  const part = { x: 8, y: 6, width: 16, height: 8 };
  const tile = tileOf([0.1, 0.2, 0.3, 1], part);
  const own = softLuma(context(), 'own', tile, 0);
  expect(at(own, 16, 3, 3)).toBeCloseTo(luma(0.1, 0.2, 0.3), 5);
  const asked: unknown[] = [];
  const below = tileOf([0.9, 0.5, 0.1, 1], part);
  for (let y = 0; y < 8; y++) machine.floats[(below.ptr + below.stride) / 4 + y * 16 + 2] = 1;
  const read = (name: string, { x, y, width, height }: typeof part) => (asked.push([name, { x, y, width, height }]), below);
  const under = softLuma({ ...context(), read }, 'below', tile, 0);
  expect(at(under, 16, 2, 3)).toBeCloseTo(luma(0.9, 1, 0.1), 5);
  expect(at(under, 16, 3, 3)).toBeCloseTo(luma(0.9, 0.5, 0.1), 5);
  expect(asked).toEqual([['below', part]]);
  const bare = softLuma(context(), 'photo', tile, 0);
  expect(at(bare, 16, 4, 2)).toBeCloseTo((5 * 12) / 255, 5);
  const far = (of: string) => tileOf(of === 'photo' ? [0.4, 0.4, 0.4, 1] : [0, 0, 0, 1], part);
  expect(at(softLuma({ ...context(), far }, 'photo', tile, 40), 16, 4, 2)).toBeCloseTo(0.4, 5);
});
