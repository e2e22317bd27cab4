import { blurAndCut, blurReach } from '../image/blur';
import { grow, type Region, type Scratch, type Tile } from '../image/tile';
import type { Machine } from '../image/machine';
import type { RenderContext } from './context';

/** A Gaussian of a greater deviation, in pixels, is taken on a smaller drawing: no tile could have so wide a halo. */
const WIDEST = 16;
/** Most that the deviation is on the smaller drawing. */
const THERE = 8;

/** Whether a Gaussian of that deviation, in pixels, is taken on a smaller drawing where there can be one. */
export const isFar = (sigma: number): boolean => sigma > WIDEST;

/** The same drawing at a whole part of its scale. */
export function reducedContext(context: RenderContext, factor: number): RenderContext {
  const small: RenderContext = {
    ...context,
    scale: context.scale / factor,
    width: context.width / factor,
    height: context.height / factor,
    unit: context.unit / factor,
    kept: undefined,
    far: undefined,
    drawPhoto: (tile) => context.drawPhoto(tile, small),
  };
  return small;
}

/** The pixels of the smaller drawing that reading a region larger again needs: two around it. */
export function reducedRegion(region: Region, factor: number): Region {
  const [x, y] = [Math.floor(region.x / factor) - 2, Math.floor(region.y / factor) - 2];
  return { x, y, width: Math.ceil((region.x + region.width) / factor) + 2 - x, height: Math.ceil((region.y + region.height) / factor) + 2 - y };
}

/** Reads planes of the smaller drawing larger again, over a region that `reducedRegion` was asked for. */
export function enlargeFrom(
  { kernels }: Machine,
  scratch: Scratch,
  small: Tile,
  factor: number,
  into: Region & { ptr: number; stride: number },
  planes: number,
): void {
  const mark = scratch.mark();
  const work = scratch.take((small.width + 6 * Math.max(4, factor) + 40) * 4);
  const [x, y] = [into.x - small.x * factor, into.y - small.y * factor];
  for (let c = 0; c < planes; c++) {
    const [from, to] = [small.ptr + c * small.stride, into.ptr + c * into.stride];
    kernels.spreadCells(from, small.width, small.height, factor, to, into.width, x, x + into.width, y, y + into.height, work);
  }
  scratch.release(mark);
}

/** A wide Gaussian of what `draw` draws, over a region: drawn and blurred at a part of the size that hangs on the deviation only. */
export function farGaussian(context: RenderContext, region: Region, sigma: number, draw: (small: RenderContext, region: Region) => Tile): Tile {
  const { machine, scratch } = context;
  const { x, y, width, height } = region;
  const out = scratch.tile({ x, y, width, height });
  const mark = scratch.mark();
  const factor = 2 ** Math.ceil(Math.log2(sigma / THERE));
  // A pixel of the smaller drawing is the mean of factor × factor of these, a blur of variance (factor² − 1) / 12.
  const there = Math.sqrt(sigma * sigma - (factor * factor - 1) / 12) / factor;
  const reach = blurReach(there);
  const small = draw(reducedContext(context, factor), grow(reducedRegion(region, factor), reach));
  enlargeFrom(machine, scratch, blurAndCut(machine, scratch, small, there, reach), factor, out, 4);
  scratch.release(mark);
  return out;
}
