import { parseHex } from '../color/srgb';
import type { DrawContext } from '../graph/context';
import { enlargeFrom, reducedRegion } from '../image/far';
import { grow, type Tile } from '../image/tile';
import { enlargeAlpha } from './small';

/**
 * A plane that is found on a drawing smaller by a factor and enlarged, or on the tile itself where that is 1: in memory that the caller releases.
 *
 * @param halo - Pixels around a pixel that `find` reads, on the smaller drawing.
 * @param find - Returns a plane of the tile that it is given.
 */
export function foundSmaller(context: DrawContext, tile: Tile, factor: number, halo: number, find: (small: Tile) => number): number {
  const { machine, scratch } = context;
  const out = scratch.plane(tile.count + 8);
  const mark = scratch.mark();
  if (factor === 1) machine.kernels.copyWindow(find(tile), tile.width, out, tile.width, tile.width, tile.height);
  else {
    const small = context.smaller('own', factor, grow(reducedRegion(tile, factor), halo));
    enlargeAlpha(context, small, factor, tile);
    enlargeFrom(machine, scratch, { ...small, ptr: find(small) }, factor, { ...tile, ptr: out }, 1);
  }
  scratch.release(mark);
  return out;
}

/** Lines of a colour on white: `paper` is 1 where there is none. */
export function layLines({ machine }: DrawContext, { ptr, stride, count }: Tile, paper: number, colour: string): void {
  parseHex(colour).forEach((ink, c) => {
    machine.kernels.fill(ptr + c * stride, count, ink);
    machine.kernels.mixIn(ptr + c * stride, paper, count, 1, 1 - ink, 0);
  });
}
