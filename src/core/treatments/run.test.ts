import { contextOn, treat as treatOn } from '@/testing/draw';
import { numbers, testBench } from '@/testing/machine';
import { grow, type Region, type Tile } from '../image/tile';
import { controlsOf } from '../schema';
import { treatmentByKind, treatments } from '.';
import { treatmentReach as reachOf } from './run';

const bench = testBench(128);
const { machine, scratch } = bench;
const photo = bench.picture(400, 300, (x, y) => [x % 255, y % 255, (x + y) % 255]);
const parse = (values: { kind: string }): Record<string, unknown> => treatmentByKind(values.kind).schema.parse(values);
const next = numbers(3);
const noise = Array.from({ length: 400 * 300 * 3 }, () => next());
const pixel = (x: number, y: number, c: number) => (c === 3 ? 1 : noise[((((y % 300) + 300) % 300) * 400 + (((x % 400) + 400) % 400)) * 3 + c]);

// Lengths are easier to follow when a u is a pixel.
const context = (more = {}) => contextOn(bench, photo, 1, undefined, { unit: 1, ...more });
const treat = (tile: Tile, list: Record<string, unknown>[], load?: Parameters<typeof treatOn>[5]) => treatOn(bench, photo, tile, list, 1, load);
function tileOf(region: Region): Tile {
  const tile = scratch.tile(region);
  for (let y = 0; y < tile.height; y++)
    for (let x = 0; x < tile.width; x++)
      for (let c = 0; c < 4; c++) machine.floats[(tile.ptr + c * tile.stride) / 4 + y * tile.width + x] = pixel(tile.x + x, tile.y + y, c);
  return tile;
}
const read = (t: Tile, x: number, y: number, c: number) => machine.floats[(t.ptr + c * t.stride) / 4 + (y - t.y) * t.width + x - t.x];

/** Values over a region, copied out of scratch memory. */
function values(tile: Tile, region: Region): number[] {
  const out: number[] = [];
  for (let c = 0; c < 3; c++)
    for (let y = region.y; y < region.y + region.height; y++) for (let x = region.x; x < region.x + region.width; x++) out.push(read(tile, x, y, c));
  return out;
}
const furthest = (a: number[], b: number[]) => a.reduce((most, v, i) => Math.max(most, Math.abs(v - b[i])), 0);
beforeEach(() => scratch.reset());

const region = { x: 40, y: 30, width: 90, height: 70 };
const curves = [
  parse({ kind: 'exposure', exposure: 0.4, contrast: 0.3, shadows: 0.2 } as never),
  parse({ kind: 'levels', black: 0.05, white: 0.9, middle: 1.2 } as never),
  parse({
    kind: 'curves',
    blue: [
      [0, 0.1],
      [1, 0.9],
    ],
  } as never),
];

describe('treatments one after another', () => {
  it('curves that follow each other are put on as one, and give what each by itself gives', () => {
    const joined = values(treat(tileOf(region), curves), region);
    scratch.reset();
    const tile = tileOf(region);
    for (const p of curves) treatmentByKind(p.kind as string).apply(context(), tile, p);
    // Each is a table with straight lines between its values; joined there is one table instead of three.
    expect(furthest(joined, values(tile, region))).toBeLessThan(0.003);
  });

  it('strips are the whole: nothing of a pixel depends on the rows around it', () => {
    const list = [parse({ kind: 'colour', saturation: 0.5 } as never), ...curves, parse({ kind: 'balance', warmth: 0.4 } as never)];
    const tall = { x: 0, y: 0, width: 230, height: 190 };
    const strips = values(treat(tileOf(tall), list), tall);
    scratch.reset();
    const tile = tileOf(tall);
    for (const p of list) treatmentByKind(p.kind as string).apply(context(), tile, p);
    expect(furthest(strips, values(tile, tall))).toBeLessThan(0.003);
  });

  it.each(treatments.filter((t) => t.reach(parse({ kind: t.kind }), 1) === 0 && !t.softens && !t.shrinks).map((t) => t.kind))(
    'in strips with another it is what it is by itself: %s',
    (kind) => {
      const { schema, needs } = treatmentByKind(kind);
      const moved = controlsOf(schema).map(({ key, meta, neutral }) => {
        if (meta.control === 'slider') return [key, (Number(neutral) + (meta.max ?? 1)) / 2];
        return [key, meta.control === 'colour' ? '#a05020' : meta.control === 'toggle' ? true : neutral];
      });
      const changed = Object.fromEntries(moved.filter(([, v]) => v !== undefined)) as object;
      const survey = {
        slope: scratch.plane(40 * 30 + 8, 0.4),
        offset: scratch.plane(40 * 30 + 8, 0.2),
        width: 40,
        height: 30,
        low: 0.1,
        middle: 0.4,
        high: 0.9,
      };
      const mark = scratch.mark();
      const load = needs && (() => ({ kind: 'survey' as const, survey }));
      // Two of its kind: their strength and mode are looked after strip by strip too.
      const list = [
        { ...parse({ kind, ...changed } as never), strength: 0.7, mode: 'soft-light' },
        parse({ kind, ...changed } as never),
        parse({ kind: 'balance', warmth: 0.4 } as never),
      ] as Record<string, unknown>[];
      const tall = { x: 10, y: 0, width: 230, height: 190 };
      const strips = values(treat(tileOf(tall), list, load), tall);
      scratch.release(mark);
      let tile = tileOf(tall);
      for (const p of list) tile = treat(tile, [p], load);
      expect(furthest(strips, values(tile, tall))).toBeLessThan(0.003);
    },
  );

  it('gives up its halo step by step, and what is left is what a wider tile has there', () => {
    const list = [
      parse({ kind: 'blur', radius: 2 } as never),
      parse({ kind: 'colour', saturation: -0.3 } as never),
      parse({ kind: 'sharpen', amount: 1, radius: 3 } as never),
      parse({ kind: 'noise', luma: 0.4, colour: 0.6 } as never),
    ];
    const halo = list.reduce((sum, p) => sum + reachOf(p, 1), 0);
    const exact = treat(tileOf(grow(region, halo)), list);
    expect(exact.width).toBe(region.width);
    const small = values(exact, region);
    scratch.reset();
    const wide = treat(tileOf(grow(region, halo + 20)), list);
    // Box means are differences of running sums in f32, which depend on where a row begins.
    expect(furthest(small, values(wide, region))).toBeLessThan(1e-4);
  });

  it('what is off, at no strength or neutral is left out, and needs no halo', () => {
    const list = [
      { ...parse({ kind: 'blur', radius: 8 } as never), active: false },
      { ...parse({ kind: 'invert' }), strength: 0 },
      parse({ kind: 'colour' }),
    ];
    expect(list.map((p) => reachOf(p, 1))).toEqual([0, 0, 0]);
    const tile = tileOf(region);
    const before = values(tile, region);
    const after = treat(tile, list);
    expect(after).toMatchObject(region);
    expect(values(after, region)).toEqual(before);
  });

  it('a mode lays a step over what it started from', () => {
    const tile = tileOf(region);
    const before = values(tile, region);
    const after = values(treat(tile, [{ ...parse({ kind: 'invert' }), mode: 'screen', strength: 0.5 }]), region);
    // Screen of v and 1 − v is 1 − v·(1 − v); half of the way there.
    after.forEach((v, i) => expect(v).toBeCloseTo(before[i] + 0.5 * (1 - before[i] * (1 - before[i]) - before[i]), 2));
  });
});
