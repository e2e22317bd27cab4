import type { Tile } from '../image/tile';
import type { DrawContext } from '../graph/context';

const SIZE = 1024;

export type Curve = (v: number) => number;
/** A function of 0..1 for all three channels, or one for each. */
export type Curves = Curve | [Curve, Curve, Curve];

/** Tables already made, by the first of the parameters they come from: those of a drawing stay the same from tile to tile. */
const made = new WeakMap<object, { of: object[]; tables: Float32Array[] }>();

const tableOf = (curve: Curve) => Float32Array.from({ length: SIZE }, (_, i) => curve(i / (SIZE - 1)));

function tablesOf(params: object[], curves: (params: object) => Curves): Float32Array[] {
  const known = made.get(params[0]);
  if (known && known.of.length === params.length && known.of.every((p, i) => p === params[i])) return known.tables;
  const steps = params.map(curves);
  // What one leaves beyond 0..1 the next is not asked for.
  const kept = (v: number) => Math.min(1, Math.max(0, v));
  const chain = (c: number) => tableOf((v) => steps.reduce((x, step) => (Array.isArray(step) ? step[c] : step)(kept(x)), v));
  const tables = steps.some(Array.isArray) ? [0, 1, 2].map(chain) : [chain(0)];
  made.set(params[0], { of: params, tables });
  return tables;
}

/**
 * Puts functions of 0..1 on red, green and blue of a tile, one after another, by a table with straight lines between. `curves` is asked for the
 * functions of some parameters when they have not been seen before.
 */
export function applyCurves({ machine, scratch }: DrawContext, tile: Tile, params: object[], curves: (params: object) => Curves): void {
  const tables = tablesOf(params, curves);
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  for (let c = 0; c < 3; c++) {
    if (c === 0 || tables.length > 1) machine.floats.set(tables[c], table / 4);
    machine.kernels.applyTable(tile.ptr + c * tile.stride, tile.count, table, SIZE);
  }
  scratch.release(mark);
}
