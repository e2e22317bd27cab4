import { drawPiece, treat } from '@/testing/draw';
import { openCv } from '@/testing/opencv';
import { numbers, testBench } from '@/testing/machine';
import type { Tile } from '../image/tile';
import { coatSchema } from '../piece/schema';
import { treatmentByKind } from '.';
import { remapped } from './remap';

const bench = testBench(128);
const { machine, scratch } = bench;
const [W, H] = [96, 64];
const next = numbers(17);
const random = Array.from({ length: W * H }, () => [next(), next(), next(), 1]);
const photo = bench.picture(W, H, (x, y) => [40 + 2 * x, 200 - x - y, 60 + 2 * y]);

type Values = (x: number, y: number) => number[];
const noisy: Values = (x, y) => random[y * W + x];

/** A tile over the whole picture; with a halo where the test needs one. */
function tileOf(values: Values): Tile {
  const tile = scratch.tile({ x: 0, y: 0, width: W, height: H });
  for (let y = 0; y < H; y++)
    for (let x = 0; x < W; x++) values(x, y).forEach((v, c) => (machine.floats[(tile.ptr + c * tile.stride) / 4 + y * W + x] = v));
  return tile;
}
const read = (tile: Tile, x: number, y: number, c: number) =>
  machine.floats[(tile.ptr + c * tile.stride) / 4 + (y - tile.y) * tile.width + x - tile.x];

function run(values: Values, ...list: Record<string, unknown>[]): Tile {
  scratch.reset();
  const tile = tileOf(values);
  // Lengths are easier to follow when a u is a pixel.
  return treat(
    bench,
    photo,
    tile,
    list.map(({ active, strength, mode, ...own }) => ({
      ...treatmentByKind(own.kind as string).schema.parse(own),
      ...(active === undefined ? {} : { active }),
      ...(strength === undefined ? {} : { strength }),
      ...(mode === undefined ? {} : { mode }),
    })),
    1,
  );
}
function most(tile: Tile, want: (x: number, y: number, c: number) => number, inset = 0): number {
  let off = 0;
  for (let y = tile.y + inset; y < tile.y + tile.height - inset; y++)
    for (let x = tile.x + inset; x < tile.x + tile.width - inset; x++)
      for (let c = 0; c < 3; c++) off = Math.max(off, Math.abs(read(tile, x, y, c) - want(x, y, c)));
  return off;
}

describe('detail and colour', () => {
  it('put together again are the material, to less than a level of 16 bits', () => {
    const both = run(noisy, { kind: 'split', radius: 4, detail: 1, colour: 0.99999 });
    expect(most(both, (x, y, c) => noisy(x, y)[c])).toBeLessThan(0.5 / 65535 + 1e-5);
  });
  it('detail alone stands on mid grey, and a flat material has none', () => {
    expect(
      most(
        run(() => [0.7, 0.3, 0.2, 1], { kind: 'split', radius: 4 }),
        () => 0.5,
      ),
    ).toBeLessThan(1e-5);
  });
});

describe('relief', () => {
  it('leaves level ground exactly mid grey, whatever its tone and light', () => {
    for (const direction of [0, 100, 315])
      expect(
        most(
          run(() => [0.9, 0.2, 0.4, 1], { kind: 'relief', depth: 0.8, direction, soften: 0 }),
          () => 0.5,
        ),
      ).toBeLessThan(1e-6);
  });
  it('is lighter on the side that faces the light, and the other way round when pressed in', () => {
    const hill: Values = (x, y) => Array.from({ length: 3 }, () => Math.exp(-((x - 48) ** 2 + (y - 32) ** 2) / 200)).concat(1);
    const raised = run(hill, { kind: 'relief', depth: 0.8, direction: 270, soften: 0 });
    const [left, right] = [read(raised, 38, 32, 0), read(raised, 58, 32, 0)];
    expect(left).toBeGreaterThan(0.55);
    expect(right).toBeLessThan(0.45);
    const pressed = run(hill, { kind: 'relief', depth: -0.8, direction: 270, soften: 0 });
    expect(read(pressed, 38, 32, 0)).toBeCloseTo(right, 2);
  });
});

describe('drape', () => {
  it('moves nothing by mid grey', () => {
    // Its own light and dark as the map: half grey, with colour that has that luma.
    const level: Values = (x) => [0.5 + (x % 2) * 0.05, 0.5 - ((x % 2) * 0.05 * 0.2126) / 0.7152, 0.5, 1];
    const out = run(level, { kind: 'drape', map: 'own', amountX: 30, amountY: 30, blur: 0 });
    expect(most(out, (x, y, c) => level(x, y)[c], 20)).toBeLessThan(1e-3);
  });
  it('follows feDisplacementMap: x + amount · (map − ½), read between pixels', () => {
    const ramp: Values = (x, y) => [x / 200, y / 200, 0.3, 1];
    const luma = (x: number, y: number) => (0.2126 * x) / 200 + (0.7152 * y) / 200 + 0.0722 * 0.3;
    const out = run(ramp, { kind: 'drape', map: 'own', amountX: 12, amountY: -8, blur: 0 });
    expect(
      most(out, (x, y, c) => (c === 0 ? (x + 12 * (luma(x, y) - 0.5)) / 200 : c === 1 ? (y - 8 * (luma(x, y) - 0.5)) / 200 : 0.3), 8),
    ).toBeLessThan(1e-5);
  });
});

describe('blur', () => {
  it.each([1.4, 6, 11])('of deviation %d is OpenCV’s', (sigma) => {
    const [w, h] = [W, H];
    const from = openCv.matFromArray(
      h,
      w,
      openCv.CV_32FC1,
      random.map((p) => p[0]),
    );
    const to = new openCv.Mat();
    openCv.GaussianBlur(from, to, new openCv.Size(0, 0), sigma, sigma, openCv.BORDER_REPLICATE);
    const out = run(noisy, { kind: 'blur', radius: sigma });
    // The kernel of 3 σ leaves three thousandths out.
    expect(most(out, (x, y, c) => (c === 0 ? to.data32F[y * w + x] : read(out, x, y, c)), Math.ceil(2 * sigma))).toBeLessThan(0.004);
  });
  it.each([
    ['black', [0, 0, 0, 0]],
    ['a bright colour', [0, 1, 0.2, 0]],
  ])('draws in nothing of what is transparent, were it %s', (_name, clear) => {
    const half: Values = (x) => (x < 40 ? clear : [0.8, 0.6, 0.4, 1]);
    const out = run(half, { kind: 'blur', radius: 5 });
    expect(most(out, (x, y, c) => (x < 40 ? read(out, x, y, c) : [0.8, 0.6, 0.4][c]))).toBeLessThan(1e-3);
    expect(read(out, 39, 20, 3)).toBe(0);
  });
});

describe('a material that ends at the frame', () => {
  it('has no dark line there after relief, blur and drape', () => {
    const flat = bench.picture(32, 32, () => [180, 180, 180]);
    const coat = (treatments: object[]) => {
      const coats = [coatSchema.parse({ id: 'a', source: { kind: 'picture', file: 'f', grain: 0 }, lay: { fit: 'stretch' }, treatments })];
      return drawPiece(bench, { photo, coats, load: ({ need }) => (need === 'picture' ? { kind: 'picture', picture: flat } : undefined) });
    };
    const relief = coat([{ kind: 'relief', depth: 1 }]);
    const soft = coat([
      { kind: 'blur', radius: 400 },
      { kind: 'drape', amountX: 200, amountY: 200, map: 'photo' },
    ]);
    for (let i = 0; i < W * H; i++) {
      expect(Math.abs(relief[i * 4] - 127.5)).toBeLessThan(1);
      expect(Math.abs(soft[i * 4] - 180)).toBeLessThan(1.01);
    }
  });
});

describe('remap, tint, posterise, invert, sharpen', () => {
  it('a remap with its midpoint at a fifth leaves the darkest fifth and clears the rest (common practice, no source)', () => {
    const schema = treatmentByKind('remap').schema;
    const p = schema.parse({ kind: 'remap', middle: '#ffffff', midpoint: 0.2 }) as never;
    expect(remapped(p, 0.05)[0]).toBeLessThan(0.3);
    expect(remapped(p, 0.1)[0]).toBeCloseTo(0.5, 5);
    for (const v of [0.2, 0.4, 0.9]) expect(remapped(p, v)).toEqual([1, 1, 1]);
    const out = run((x) => [x / 95, x / 95, x / 95, 1], { kind: 'remap', middle: '#ffffff', midpoint: 0.2 });
    expect(most(out, (x, _y, c) => remapped(p, x / 95)[c])).toBeLessThan(0.01);
  });
  it('the neutral remap is black and white', () => {
    const out = run(noisy, { kind: 'remap' });
    expect(
      most(out, (x, y) =>
        noisy(x, y)
          .slice(0, 3)
          .reduce((s, v, c) => s + v * [0.2126, 0.7152, 0.0722][c], 0),
      ),
    ).toBeLessThan(0.003);
  });
  it('tint gives grey a hue and keeps its light and dark', () => {
    const out = run((x) => [x / 95, x / 95, x / 95, 1], { kind: 'tint', colour: '#c08040', amount: 1 });
    for (let x = 10; x < 90; x += 7) {
      const rgb = [0, 1, 2].map((c) => read(out, x, 5, c));
      expect(rgb[0]).toBeGreaterThan(rgb[2]);
      // The standard's own luminosity.
      expect(0.3 * rgb[0] + 0.59 * rgb[1] + 0.11 * rgb[2]).toBeCloseTo(x / 95, 2);
    }
  });
  it('posterise leaves so many levels a channel, evenly wide', () => {
    const out = run((x) => [(x + 0.5) / 96, 0, 0, 1], { kind: 'posterise', levels: 4, soften: 0 });
    const levels = Array.from({ length: 96 }, (_, x) => read(out, x, 3, 0));
    expect([...new Set(levels.map((v) => v.toFixed(3)))]).toEqual(['0.000', '0.333', '0.667', '1.000']);
    expect(levels.filter((v) => v === 0).length).toBe(24);
  });
  it('sharpen raises the step of an edge, and does nothing to a flat material', () => {
    const edge: Values = (x) => (x < 48 ? [0.4, 0.4, 0.4, 1] : [0.6, 0.6, 0.6, 1]);
    const out = run(edge, { kind: 'sharpen', amount: 1, radius: 2 });
    expect(read(out, 48, 30, 0) - read(out, 47, 30, 0)).toBeGreaterThan(0.3);
    expect(read(out, 48 + 20, 30, 0)).toBeCloseTo(0.6, 4);
  });
});

describe('every step has its own switch, strength and mode', () => {
  it('off or at strength 0 it changes nothing', () => {
    for (const off of [{ active: false }, { strength: 0 }])
      expect(most(run(noisy, { kind: 'invert', ...off }), (x, y, c) => noisy(x, y)[c])).toBeLessThan(1e-7);
  });
  it('at half strength it is half way, in a mode it is laid over what was there', () => {
    expect(most(run(noisy, { kind: 'invert', strength: 0.5 }), () => 0.5)).toBeLessThan(1e-3);
    expect(most(run(noisy, { kind: 'invert', mode: 'multiply' }), (x, y, c) => noisy(x, y)[c] * (1 - noisy(x, y)[c]))).toBeLessThan(2e-3);
  });
  it('keeps alpha as it is', () => {
    const thin: Values = (x, y) => [...noisy(x, y).slice(0, 3), 0.4];
    const out = run(thin, { kind: 'tint', amount: 1, strength: 0.5 });
    expect(read(out, 10, 10, 3)).toBeCloseTo(0.4, 6);
  });
});
