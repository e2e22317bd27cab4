import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';

const SIZE = 1024;

/** Puts a function of 0..1 on channels of a tile (red, green and blue when left out), by a table with straight lines between. */
export function applyCurve({ machine, scratch }: RenderContext, tile: Tile, curve: (v: number) => number, channels = [0, 1, 2]): void {
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  machine.floats.set(
    Float32Array.from({ length: SIZE }, (_, i) => curve(i / (SIZE - 1))),
    table / 4,
  );
  for (const c of channels) machine.kernels.applyTable(tile.ptr + c * tile.stride, tile.count, table, SIZE);
  scratch.release(mark);
}
