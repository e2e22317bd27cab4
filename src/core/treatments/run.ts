import { grow, shrink, type Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import { treatmentByKind } from '.';
import { applyCurves } from './curve';

type Params = Record<string, unknown>;

/** Pixels around a tile that a treatment reads, with `unit` pixels to one u. */
export function reachOf(params: Params, unit: number): number {
  const treatment = treatmentByKind(params.kind as string);
  return treatment.neutral(params) ? 0 : Math.ceil(treatment.reach(params, unit));
}

/** Pixels of a strip: what several operations in a row work on stays in the processor's cache. */
const STRIP = 8192;

/**
 * Puts treatments on a tile, one after another. Those that look at nothing around a pixel run strip by strip, and functions of each channel
 * that follow each other as one. What a treatment has spoiled at the tile's edges is left away before the next: the tile that is returned
 * lies at the same place in memory and may be smaller than the one that was given, by no more than the treatments' reach.
 */
export function treat(context: RenderContext, given: Tile, list: readonly Params[]): Tile {
  const todo = list.filter((p) => !treatmentByKind(p.kind as string).neutral(p));
  let tile = given;
  let spoiled = 0;
  for (let i = 0; i < todo.length;) {
    if (spoiled > 0) tile = shrink(context.machine, tile, grow(tile, -spoiled));
    spoiled = reachOf(todo[i], context.unit);
    let end = i + 1;
    if (spoiled > 0) {
      treatmentByKind(todo[i].kind as string).apply(context, tile, todo[i]);
    } else {
      while (end < todo.length && reachOf(todo[end], context.unit) === 0) end++;
      inStrips(context, tile, todo.slice(i, end));
    }
    i = end;
  }
  return tile;
}

function inStrips(context: RenderContext, tile: Tile, list: Params[]): void {
  const steps = joined(list);
  // Four rows at a time hold a multiple of four pixels, so that no strip reaches into the next.
  const rows = steps.length > 1 ? Math.max(4, Math.floor(STRIP / tile.width / 4) * 4) : tile.height;
  for (let y = 0; y < tile.height; y += rows) {
    const height = Math.min(rows, tile.height - y);
    const before = y * tile.width;
    const count = y + height < tile.height ? height * tile.width : tile.count - before;
    const strip = { ...tile, y: tile.y + y, height, ptr: tile.ptr + before * 4, count };
    for (const params of steps) {
      const treatment = treatmentByKind(params[0].kind as string);
      if (params.length === 1) treatment.apply(context, strip, params[0]);
      else applyCurves(context, strip, params, (p) => curvesOf(p as Params));
    }
  }
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
    const isCurves = (q: Params) => treatmentByKind(q.kind as string).curves !== undefined;
    if (last && isCurves(p) && isCurves(last[0])) last.push(p);
    else steps.push([p]);
  }
  known.set(list[0], { of: list, steps });
  return steps;
}
