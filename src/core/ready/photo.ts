import { toEncoded, toLinear } from '../color/srgb';
import type { Picture } from '../image/picture';
import { levelSize } from '../image/picture';
import { sampleAffine, samplePhoto } from '../image/sample';
import { grow, shrink, window, type Region, type Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import { treatmentByKind } from '../treatments';
import { reachOf, treat } from '../treatments/run';
import { readiedMap, readiedSize, type Size } from './geometry';
import { bent, planLens, type PlannedLens } from './lens';
import { apply, isAffine, slope, type Point, type Projection } from '../image/projection';
import type { Ready } from './schema';

/** All that drawing needs to know of a piece's readying: plain data. */
export interface PlannedReady extends Size {
  /** From pixels of the readied photo to pixels of the file. */
  map: Projection;
  /** What the lens did, between the map and the file. */
  lens?: PlannedLens;
  treatments: Record<string, unknown>[];
  /** The spot that is to become grey, in pixels of the file, and its side. */
  neutral?: { x: number; y: number; side: number };
  /** Nothing beyond the file's edge instead of the edge extended: for showing where a frame may lie. */
  clear?: boolean;
}

/** Side of the spot that is averaged when a neutral is picked, in u. */
export const SPOT = 5;

/** Fields of a readying and the treatments that they are, in the order in which they run. */
const beforeHues = [
  ['tone', 'exposure'],
  ['even', 'even'],
  ['localTone', 'local-tone'],
  ['localContrast', 'local-contrast'],
  ['levels', 'levels'],
  ['curves', 'curves'],
  ['colour', 'colour'],
  ['ranges', 'ranges'],
] as const;
const afterHues = [
  ['monochrome', 'monochrome'],
  ['noise', 'noise'],
] as const;

export function planReady(photo: Size, ready: Ready): PlannedReady {
  const size = readiedSize(photo, ready);
  const map = readiedMap(photo, ready);
  const lens = planLens(photo, ready.lens);
  const treatments: Record<string, unknown>[] = [];
  // What is left out, or set to undefined, takes its neutral value.
  const add = (kind: string, values: object) => treatments.push(treatmentByKind(kind).schema.parse({ ...values, kind }));
  const { whiteBalance } = ready;
  let neutral: PlannedReady['neutral'];
  if (ready.fringe) add('fringe', ready.fringe);
  if (whiteBalance) {
    const { neutral: picked, ...values } = whiteBalance;
    const spot = picked as Point | undefined;
    add('balance', values);
    if (spot) {
      const [x, y] = bent(lens, apply(map, [spot[0] * size.width, spot[1] * size.height]));
      neutral = { x, y, side: Math.max(1, (SPOT * Math.max(size.width, size.height)) / 2000) };
    }
  }
  for (const [field, kind] of beforeHues) if (ready[field]) add(kind, ready[field]);
  for (const range of ready.hues ?? []) add('hues', range);
  for (const [field, kind] of afterHues) if (ready[field]) add(kind, ready[field]);
  return { ...size, map, lens, treatments, neutral };
}

/** Pixels around a tile that the treatments from the `count`-th on read, with `unit` pixels to one u. */
export const marginOf = ({ treatments }: PlannedReady, count: number, unit: number): number =>
  treatments.slice(count).reduce((sum, p) => sum + reachOf(p, unit), 0);

const sameRegion = (a: Region, b: Region) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;

/** Fills a tile with the readied photo: framed, then treated. Lengths and places are those of the readied photo at the context's scale. */
export function fillPhoto(context: RenderContext, tile: Tile): void {
  const { machine, ready, scratch, unit, kept } = context;
  if (!ready) return samplePhoto(machine, context.photo, context.scale, tile);
  const list = preparedTreatments(context, ready);
  const run = (on: Tile, from: number, to: number) => treat(context, on, list.slice(from, to));
  const whole = ready.treatments.length;
  // Kept half way, for this tile's own region only: one with a halo for coats is drawn anew.
  const half = kept && sameRegion(kept.region, tile) && kept.margin === marginOf(ready, kept.count, unit) ? kept : undefined;
  const margin = marginOf(ready, 0, unit);
  if (margin === 0 && !half) {
    framed(context, tile);
    return void run(tile, 0, whole);
  }
  const mark = scratch.mark();
  let on: Tile;
  if (half?.holds) {
    on = scratch.tile(grow(tile, half.margin));
    machine.kernels.unpack16(half.at, on.ptr, on.stride, on.count, 4);
  } else {
    on = scratch.tile(grow(tile, margin));
    framed(context, on);
    on = run(on, 0, half?.count ?? 0);
    if (half) {
      const wanted = grow(tile, half.margin);
      if (on.width !== wanted.width) on = shrink(machine, on, wanted);
      machine.kernels.pack16(on.ptr, on.stride, half.at, on.count, 4);
      half.stamp();
    }
  }
  on = run(on, half?.count ?? 0, whole);
  window(machine, on, tile);
  scratch.release(mark);
}

/** Scratch memory of the kernels that read between pixels, in bytes. */
const TAPS = 16400;

/** The photo in its frame, without treatments. */
function framed(context: RenderContext, tile: Tile): void {
  const { machine, photo, scale, ready } = context;
  const { map, lens, width, height, clear } = ready as PlannedReady;
  const upright = map[0] === 1 && map[1] === 0 && map[3] === 0 && map[4] === 1 && map[6] === 0 && map[7] === 0;
  if (upright && scale <= 1 && !clear && !lens) return samplePhoto(machine, photo, scale, tile, map[2], map[5]);
  const [ux, vx, uy, vy] = slope(map, [width / 2, height / 2]);
  const reduction = Math.sqrt(Math.abs(ux * vy - vx * uy)) / scale;
  // Close to its own size the photo is read by a cubic: a level frame must not cost sharpness.
  if (reduction > 1.05 && isAffine(map) && !clear && !lens) {
    const k = 1 / scale;
    const affine = { a: map[0] * k, b: map[3] * k, c: map[1] * k, d: map[4] * k, e: map[2], f: map[5] };
    return sampleAffine(machine, photo, affine, 'extend', tile);
  }
  const wanted = reduction > 1.05 ? Math.max(0, Math.min(photo.levels.length - 1, Math.log2(reduction) - 0.25)) : 0;
  const level = Math.floor(wanted);
  projected(context, photo, ready as PlannedReady, scale, tile, level, reduction <= 1.05, 1);
  const mix = wanted - level;
  if (mix > 0.01 && level + 1 < photo.levels.length) projected(context, photo, ready as PlannedReady, scale, tile, level + 1, false, mix);
  if (!lens || (lens.f1 === 0 && lens.f2 === 0)) return;
  const { cx, cy, radius, zoom, k1, k2, f1, f2 } = lens;
  machine.kernels.cornerLight(tile.ptr, tile.stride, tile.width, tile.height, ...placed(map, tile, scale, 1), cx, cy, radius, zoom, k1, k2, f1, f2);
}

/**
 * Fills a tile with a picture that belongs to the file, whatever its size: through the same frame, perspective and lens as the photo, without
 * its treatments.
 */
export function fillOfFile(context: RenderContext, picture: Picture, tile: Tile): void {
  const { photo, ready, scale, machine } = context;
  const [kx, ky] = [picture.width / photo.width, picture.height / photo.height];
  if (!ready) return sampleAffine(machine, picture, { a: kx / scale, b: 0, c: 0, d: ky / scale, e: 0, f: 0 }, 'extend', tile);
  const map = ready.map.map((v, i) => (i < 3 ? v * kx : i < 6 ? v * ky : v)) as unknown as Projection;
  const lens = ready.lens && {
    ...ready.lens,
    cx: ready.lens.cx * kx,
    cy: ready.lens.cy * ky,
    radius: ready.lens.radius * kx,
    red: 1,
    blue: 1,
    f1: 0,
    f2: 0,
  };
  framed({ ...context, photo: picture, ready: { ...ready, map, lens, treatments: [], neutral: undefined, clear: false } }, tile);
}

/** The map from pixels of a tile to those of a level of the photo, `k` times smaller. */
function placed(map: Projection, tile: Tile, scale: number, k: number): number[] {
  const s = 1 / scale;
  const rows = [0, 3, 6].map((r) => [map[r] * s, map[r + 1] * s, map[r + 2] + (map[r] * tile.x + map[r + 1] * tile.y) * s]);
  return rows.flatMap((row, r) => (r < 2 ? row.map((v) => v * k) : row));
}

function projected(
  { machine: { kernels }, scratch }: RenderContext,
  photo: Picture,
  { map, lens, clear }: PlannedReady,
  scale: number,
  tile: Tile,
  level: number,
  smooth: boolean,
  mix: number,
): void {
  const [w, h] = levelSize(photo, level);
  const k = 1 / (1 << level);
  const m = placed(map, tile, scale, k);
  const common = [photo.levels[level], w, h, tile.ptr, tile.stride, tile.width, tile.height, ...m, +smooth, +!!clear, mix];
  const mark = scratch.mark();
  const taps = scratch.take(TAPS);
  if (lens) {
    const { cx, cy, radius, zoom, k1, k2, red, blue } = lens;
    kernels.sampleLens(...common, cx * k, cy * k, radius * k, zoom, k1, k2, red, blue, taps);
  } else kernels.sampleProjected(...common, taps);
  scratch.release(mark);
}

/** Treatments of a plan's readying with the picked grey found: the same for all its tiles. */
const prepared = new WeakMap<object, Record<string, unknown>[]>();
function preparedTreatments(context: RenderContext, ready: NonNullable<RenderContext['ready']>): Record<string, unknown>[] {
  let list = prepared.get(ready);
  if (!list) prepared.set(ready, (list = ready.treatments.map((p) => withNeutral(context, p))));
  return list;
}

/** Gains that make the picked spot grey with its luma kept: its mean, in linear light, is read from the file itself. */
function withNeutral({ machine, photo, ready }: RenderContext, p: Record<string, unknown>): Record<string, unknown> {
  const spot = ready?.neutral;
  if (p.kind !== 'balance' || !spot) return p;
  const half = spot.side / 2;
  const x0 = Math.min(photo.width - 1, Math.max(0, Math.round(spot.x - half)));
  const y0 = Math.min(photo.height - 1, Math.max(0, Math.round(spot.y - half)));
  const x1 = Math.min(photo.width, Math.max(x0 + 1, Math.round(spot.x + half)));
  const y1 = Math.min(photo.height, Math.max(y0 + 1, Math.round(spot.y + half)));
  const sum = [0, 0, 0];
  for (let y = y0; y < y1; y++)
    for (let x = x0; x < x1; x++)
      for (let c = 0; c < 3; c++) sum[c] += toLinear(machine.bytes[photo.levels[0] + (y * photo.width + x) * 4 + c] / 255);
  const mean = sum.map((v) => Math.max(1e-4, v / ((x1 - x0) * (y1 - y0))));
  const luma = 0.2126 * toEncoded(mean[0]) + 0.7152 * toEncoded(mean[1]) + 0.0722 * toEncoded(mean[2]);
  return { ...p, gains: mean.map((v) => toLinear(luma) / v) };
}
