import { treat } from '@/testing/draw';
import { numbers, testBench } from '@/testing/machine';
import type { Need, Resource } from '../graph/needs';
import type { Tile } from '../image/tile';
import { treatmentByKind } from '.';

const bench = testBench(128);
const { machine, scratch } = bench;
const [W, H] = [96, 64];
const next = numbers(5);
const noise = Array.from({ length: W * H }, () => [next(), next(), next(), 1]);
const photo = bench.picture(W, H, (x, y) => [40 + 2 * x, 200 - x - y, 60 + 2 * y]);
/** A map with another value in each channel, level over the whole. */
const level = (r: number, g: number, b: number) => bench.picture(W, H, () => [r, g, b]);
const hill = (x: number, y: number) => 0.5 + 0.4 * Math.exp(-((x - 48) ** 2 + (y - 32) ** 2) / 150);
const hillPicture = bench.picture(W, H, (x, y) => Array.from({ length: 3 }, () => Math.round(255 * hill(x, y))));

type Values = (x: number, y: number) => number[];
const noisy: Values = (x, y) => noise[y * W + x];

/** A treatment of values over the picture, a pixel being a u; `picture` is what it reads as a map. */
function run(values: Values, own: Record<string, unknown>, picture = photo): Tile {
  scratch.reset();
  const tile = scratch.tile({ x: 0, y: 0, width: W, height: H });
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) values(x, y).forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + y * W + x] = v));
  const load = (need: Need): Resource | undefined => (need.need === 'picture' || need.need === 'material' ? { kind: 'picture', picture } : undefined);
  return treat(bench, photo, tile, [treatmentByKind(own.kind as string).schema.parse(own)], 1, load);
}
const read = (tile: Tile, x: number, y: number, c = 0) => machine.floats[(tile.ptr + c * tile.stride) / 4 + (y - tile.y) * tile.width + x - tile.x];
function most(tile: Tile, want: (x: number, y: number, c: number) => number, inset = 0): number {
  let off = 0;
  // What is read around a pixel has been cut off already.
  for (let y = Math.max(inset, tile.y); y < Math.min(H - inset, tile.y + tile.height); y++)
    for (let x = Math.max(inset, tile.x); x < Math.min(W - inset, tile.x + tile.width); x++)
      for (let c = 0; c < 3; c++) off = Math.max(off, Math.abs(read(tile, x, y, c) - want(x, y, c)));
  return off;
}
const byMap = (values: object) => ({ kind: 'drape', map: 'picture', file: 'map', fit: 'stretch', blur: 0, amountX: 20, amountY: 10, ...values });

describe('drape by another picture', () => {
  it('mid grey moves nothing, and what stays in place can be another level', () => {
    // 127.5 lies between two levels.
    expect(most(run(noisy, byMap({ level: 128 / 255 }), level(128, 128, 128)), (x, y, c) => noisy(x, y)[c])).toBeLessThan(1e-4);
    expect(most(run(noisy, byMap({ level: 0.2 }), level(51, 51, 51)), (x, y, c) => noisy(x, y)[c])).toBeLessThan(1e-4);
  });
  it('a constant map translates exactly', () => {
    const moved = run(noisy, byMap({ amountX: 10, amountY: -6, level: 0 }), level(255, 255, 255));
    expect(most(moved, (x, y, c) => noisy(Math.min(W - 1, x + 10), Math.max(0, y - 6))[c], 12)).toBeLessThan(1e-5);
  });
  it('reads the channel that it is told to', () => {
    const by = (channel: string) => run(noisy, byMap({ channel, amountX: 10, amountY: 0, level: 0 }), level(255, 0, 51));
    expect(most(by('red'), (x, y, c) => noisy(Math.min(W - 1, x + 10), y)[c], 12)).toBeLessThan(1e-5);
    expect(most(by('green'), (x, y, c) => noisy(x, y)[c])).toBeLessThan(1e-5);
    expect(most(by('blue'), (x, y, c) => noisy(Math.min(W - 1, x + 2), y)[c], 12)).toBeLessThan(1e-5);
  });
  it('does nothing until a material or a picture is chosen, and shows the map when asked', () => {
    const { neutral, schema } = treatmentByKind('drape');
    expect(neutral(schema.parse({ kind: 'drape', map: 'picture' }))).toBe(true);
    expect(neutral(schema.parse(byMap({})))).toBe(false);
    const shown = run(noisy, byMap({ showsMap: true }), hillPicture);
    expect(most(shown, (x, y) => Math.round(255 * hill(x, y)) / 255)).toBeLessThan(1e-5);
  });
});

/** Filter Effects Level 1, feDiffuseLighting and feSpecularLighting with a distant light: the standard's own formulas, scalar. */
function published(x: number, y: number, scale: number, way: number[], exponent: number): { diffuse: number; specular: number } {
  const h = (i: number, j: number) => Math.round(255 * hill(Math.min(W - 1, Math.max(0, i)), Math.min(H - 1, Math.max(0, j)))) / 255;
  const gx = h(x + 1, y - 1) + 2 * h(x + 1, y) + h(x + 1, y + 1) - h(x - 1, y - 1) - 2 * h(x - 1, y) - h(x - 1, y + 1);
  const gy = h(x - 1, y + 1) + 2 * h(x, y + 1) + h(x + 1, y + 1) - h(x - 1, y - 1) - 2 * h(x, y - 1) - h(x + 1, y - 1);
  const n = [(-scale * gx) / 4, (-scale * gy) / 4, 1];
  const length = Math.hypot(...n);
  const half = [way[0], way[1], way[2] + 1];
  const dot = (v: number[]) => n.reduce((sum, c, i) => sum + (c / length) * v[i], 0);
  return { diffuse: dot(way), specular: Math.max(0, dot(half) / Math.hypot(...half)) ** exponent };
}

describe('light', () => {
  const [direction, elevation] = [300, 40];
  const [a, e] = [(direction * Math.PI) / 180, (elevation * Math.PI) / 180];
  const way = [Math.sin(a) * Math.cos(e), -Math.cos(a) * Math.cos(e), Math.sin(e)];
  const lit = (values: object) => ({
    kind: 'light',
    map: 'picture',
    file: 'map',
    fit: 'stretch',
    soften: 0,
    direction,
    elevation,
    depth: 0.5,
    ...values,
  });
  const grey: Values = () => [0.4, 0.3, 0.2, 1];

  it('multiplies the coat by the diffuse light of the standard, scaled so that flat areas do not change', () => {
    const out = run(grey, lit({ amount: 0.7 }), hillPicture);
    expect(most(out, (x, y, c) => Math.min(1, grey(x, y)[c] * (1 + 0.7 * (published(x, y, 6, way, 1).diffuse / way[2] - 1))), 1)).toBeLessThan(2e-3);
  });
  it('adds the specular light of the standard, less that of flat areas', () => {
    const half = Math.hypot(way[0], way[1], way[2] + 1);
    const flat = ((way[2] + 1) / half) ** 33;
    const out = run(grey, lit({ amount: 0, gloss: 0.8, polish: 0.5 }), hillPicture);
    const want = (x: number, y: number, c: number) => Math.min(1, Math.max(0, grey(x, y)[c] + 0.8 * (published(x, y, 6, way, 33).specular - flat)));
    expect(most(out, want, 1)).toBeLessThan(3e-3);
    expect(most(run(grey, lit({ gloss: 1 }), level(90, 90, 90)), (x, y, c) => grey(x, y)[c])).toBeLessThan(1e-5);
  });
  it('swaps light and dark when it is pressed in instead of raised', () => {
    const at = (depth: number) => read(run(grey, lit({ amount: 1, depth }), hillPicture), 42, 28) - 0.4;
    expect(at(0.5)).toBeGreaterThan(0.02);
    expect(at(-0.5)).toBeLessThan(-0.02);
  });
});

it('relief reads the height of another material, and is level grey over a level one', () => {
  const relief = { kind: 'relief', map: 'picture', file: 'map', fit: 'stretch', soften: 0, depth: 0.8 };
  expect(most(run(noisy, relief, level(30, 30, 30)), () => 0.5)).toBeLessThan(1e-6);
  expect(Math.abs(read(run(noisy, relief, hillPicture), 42, 28) - 0.5)).toBeGreaterThan(0.05);
});
