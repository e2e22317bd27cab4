import { modeById } from '../blend';
import { blurReach } from '../image/blur';
import { grow, shrink, type Region, type Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import { farGaussian, isFar } from '../render/far';
import { treatmentByKind } from '.';
import { applyCurves } from './curve';

type Params = Record<string, unknown>;

/** Whether a treatment changes nothing, by its own values or because it is switched off. */
const idle = (p: Params): boolean => p.active === false || p.strength === 0 || treatmentByKind(p.kind as string).neutral(p);

/** Whether its result simply takes the place of what was there. */
const plain = ({ strength = 1, mode = 'normal' }: Params): boolean => strength === 1 && mode === 'normal';

/**
 * Pixels around a tile that a treatment reads, with `unit` pixels to one u. With `apart`, what a Gaussian reads that is taken on a smaller drawing
 * is not counted.
 */
export function reachOf(params: Params, unit: number, apart = false): number {
  if (idle(params)) return 0;
  const { reach, softens } = treatmentByKind(params.kind as string);
  const sigma = softens?.(params, unit) ?? 0;
  return Math.ceil(reach(params, unit)) + (apart && isFar(sigma) ? 0 : blurReach(sigma));
}

/** Whether a treatment takes a Gaussian so wide that it is drawn smaller. */
export const softensFar = (params: Params, unit: number): boolean =>
  !idle(params) && isFar(treatmentByKind(params.kind as string).softens?.(params, unit) ?? 0);

/** Draws, in another context, what treatments start from over a region: with the treatments `done` put on, what lies below, or the photo. */
export type Again = (small: RenderContext, of: 'own' | 'below' | 'photo', region: Region, done: Params[]) => Tile;

/** Pixels of a strip: what several operations in a row work on stays in the processor's cache. */
const STRIP = 8192;

/**
 * Puts treatments on a tile, one after another. Those that look at nothing around a pixel run strip by strip, and functions of each channel
 * that follow each other as one. What a treatment has spoiled at the tile's edges is left away before the next: the tile that is returned
 * lies at the same place in memory and may be smaller than the one that was given, by no more than the treatments' reach. `below` is what lies
 * under the coat, over the given tile's region or a larger one. With `again`, Gaussians too wide for a tile are taken on smaller drawings.
 */
export function treat(context: RenderContext, given: Tile, list: readonly Params[], below?: Tile, again?: Again): Tile {
  const todo = list.filter((p) => !idle(p));
  let tile = given;
  let spoiled = 0;
  for (let i = 0; i < todo.length;) {
    if (spoiled > 0) tile = shrink(context.machine, tile, grow(tile, -spoiled));
    spoiled = reachOf(todo[i], context.unit, again !== undefined);
    let end = i + 1;
    const { applyAndCut } = treatmentByKind(todo[i].kind as string);
    if (again && softensFar(todo[i], context.unit)) {
      const [on, done] = [tile, todo.slice(0, i)];
      const far: RenderContext['far'] = (of, s) =>
        isFar(s) ? farGaussian(context, on, s, (small, region) => again(small, of, region, done)) : undefined;
      applyOne({ ...context, far }, tile, todo[i], below);
    } else if (spoiled > 0 && applyAndCut && plain(todo[i])) {
      tile = applyAndCut(context, tile, todo[i]);
      spoiled = 0;
    } else if (spoiled > 0) {
      applyOne(context, tile, todo[i], below);
    } else {
      while (end < todo.length && reachOf(todo[end], context.unit) === 0) end++;
      inStrips(context, tile, todo.slice(i, end), below);
    }
    i = end;
  }
  return tile;
}

function inStrips(context: RenderContext, tile: Tile, list: Params[], below?: Tile): void {
  const steps = joined(list);
  // Four rows at a time hold a multiple of four pixels, so that no strip reaches into the next.
  const rows = steps.length > 1 ? Math.max(4, Math.floor(STRIP / tile.width / 4) * 4) : tile.height;
  for (let y = 0; y < tile.height; y += rows) {
    const height = Math.min(rows, tile.height - y);
    const before = y * tile.width;
    const count = y + height < tile.height ? height * tile.width : tile.count - before;
    const strip = { ...tile, y: tile.y + y, height, ptr: tile.ptr + before * 4, count };
    for (const params of steps) {
      if (params.length === 1) applyOne(context, strip, params[0], below);
      else applyCurves(context, strip, params, (p) => curvesOf(p as Params));
    }
  }
}

/** One treatment with its own strength and mode: laid over what it started from. */
function applyOne(context: RenderContext, tile: Tile, p: Params, below?: Tile): void {
  const treatment = treatmentByKind(p.kind as string);
  if (plain(p)) return treatment.apply(context, tile, p, below);
  const { machine, scratch } = context;
  const { kernels } = machine;
  const { ptr, stride, count } = tile;
  const { strength = 1, mode = 'normal' } = p as { strength?: number; mode?: string };
  const mark = scratch.mark();
  const before = scratch.take(4 * stride);
  const alpha = scratch.plane(count);
  const ones = scratch.plane(count, 1);
  const bytes = count * 4;
  // A strip's planes lie further apart than it is long.
  for (let c = 0; c < 4; c++) machine.bytes.copyWithin(before + c * bytes, ptr + c * stride, ptr + c * stride + bytes);
  treatment.apply(context, tile, p, below);
  // Colours are mixed as if both were opaque; alpha follows by itself.
  machine.bytes.copyWithin(alpha, before + 3 * bytes, before + 4 * bytes);
  kernels.mixIn(alpha, ptr + 3 * stride, count, 1 - strength, strength, 0);
  const after = scratch.take(4 * bytes);
  for (let c = 0; c < 3; c++) machine.bytes.copyWithin(after + c * bytes, ptr + c * stride, ptr + c * stride + bytes);
  for (const at of [after, before]) kernels.fill(at + 3 * bytes, count, 1);
  kernels.blend(modeById(mode).kernel, before, after, ones, bytes, count, strength);
  for (let c = 0; c < 3; c++) machine.bytes.copyWithin(ptr + c * stride, before + c * bytes, before + (c + 1) * bytes);
  machine.bytes.copyWithin(ptr + 3 * stride, alpha, alpha + bytes);
  scratch.release(mark);
}

function curvesOf(params: Params) {
  const { curves, kind } = treatmentByKind(params.kind as string);
  if (!curves) throw new Error(`${kind} is not a function of each channel.`);
  return curves(params);
}

/** Lists already joined, by their first member: a drawing asks for the same ones tile after tile. */
const known = new WeakMap<Params, { of: Params[]; steps: Params[][] }>();

/** Neighbours that are functions of each channel, together. */
function joined(list: Params[]): Params[][] {
  const before = known.get(list[0]);
  if (before && before.of.length === list.length && before.of.every((p, i) => p === list[i])) return before.steps;
  const steps: Params[][] = [];
  for (const p of list) {
    const last = steps.at(-1);
    const isCurves = (q: Params) => plain(q) && treatmentByKind(q.kind as string).curves !== undefined;
    if (last && isCurves(p) && isCurves(last[0])) last.push(p);
    else steps.push([p]);
  }
  known.set(list[0], { of: list, steps });
  return steps;
}
