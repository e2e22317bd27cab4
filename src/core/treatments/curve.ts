import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';

const SIZE = 1024;

type Curve = (v: number) => number;

/** Tables already made, by the parameters they come from: those of a drawing stay the same from tile to tile. */
const made = new WeakMap<object, Float32Array[]>();

const tableOf = (curve: Curve) => Float32Array.from({ length: SIZE }, (_, i) => curve(i / (SIZE - 1)));

/**
 * Puts functions of 0..1 on red, green and blue of a tile by tables with straight lines between. `curves` is asked for one function, or one
 * a channel, when `params` has not been seen before.
 */
export function applyCurves({ machine, scratch }: RenderContext, tile: Tile, params: object, curves: () => Curve | [Curve, Curve, Curve]): void {
  let tables = made.get(params);
  if (!tables) {
    const all = curves();
    made.set(params, (tables = Array.isArray(all) ? all.map(tableOf) : [tableOf(all)]));
  }
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  for (let c = 0; c < 3; c++) {
    if (c === 0 || tables.length > 1) machine.floats.set(tables[c], table / 4);
    machine.kernels.applyTable(tile.ptr + c * tile.stride, tile.count, table, SIZE);
  }
  scratch.release(mark);
}
