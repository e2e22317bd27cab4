import type { DrawContext } from '../graph/context';
import { blurPlane, blurReach } from '../image/blur';
import { enlargeFrom, reducedRegion } from '../image/far';
import { grow, type Tile } from '../image/tile';

/** Standard deviation, in pixels, at which a wide Gaussian of luma is taken. */
const WORKED = 6;

/**
 * Luma of what an operation starts from, blurred by a wide Gaussian, over a tile of a drawing smaller by `factor`: a plane in memory that the caller
 * releases. It is taken on a drawing smaller still.
 *
 * @param sigma - Standard deviation in pixels of the tile.
 */
export function wideLuma(context: DrawContext, tile: Tile, factor: number, sigma: number): number {
  const { machine, scratch } = context;
  const out = scratch.plane(tile.count + 8);
  const mark = scratch.mark();
  const further = 2 ** Math.max(0, Math.round(Math.log2(sigma / WORKED)));
  const there = Math.sqrt(Math.max(0.04, sigma * sigma - (further * further - 1) / 12)) / further;
  const small = further === 1 && factor === 1 ? tile : context.smaller('own', factor * further, grow(reducedRegion(tile, further), blurReach(there)));
  const luma = scratch.plane(small.count + 8);
  machine.kernels.lumaPlane(small.ptr, small.stride, luma, small.count);
  blurPlane(machine, scratch, luma, small.width, small.height, there);
  if (further === 1) {
    const offset = ((tile.y - small.y) * small.width + tile.x - small.x) * 4;
    machine.kernels.copyWindow(luma + offset, small.width, out, tile.width, tile.width, tile.height);
  } else enlargeFrom(machine, scratch, { ...small, ptr: luma }, further, { ...tile, ptr: out }, 1);
  scratch.release(mark);
  return out;
}

/** How far around the tile `wideLuma` reads it, where it does not pull anything smaller. */
export const wideReach = (sigma: number, factor: number): number =>
  factor === 1 && Math.round(Math.log2(sigma / WORKED)) <= 0 ? blurReach(sigma) : 0;
