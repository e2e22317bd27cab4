import { blurAndCut, blurReach } from './blur';
import type { Machine } from './machine';
import { grow, type Region, type Scratch, type Tile } from './tile';

/** A Gaussian of a greater standard deviation, in pixels, is taken on a smaller drawing: no tile could have so wide a halo. */
const WIDEST = 16;
/** Most that the deviation is on the smaller drawing. */
const WIDEST_THERE = 8;

/** True when a Gaussian of that standard deviation, in pixels, is taken on a smaller drawing. */
export const isFar = (sigma: number): boolean => sigma > WIDEST;

/** The pixels of a drawing smaller by a whole factor that are needed to enlarge it again over a region: two around it. */
export function reducedRegion(region: Region, factor: number): Region {
  const [x, y] = [Math.floor(region.x / factor) - 2, Math.floor(region.y / factor) - 2];
  return { x, y, width: Math.ceil((region.x + region.width) / factor) + 2 - x, height: Math.ceil((region.y + region.height) / factor) + 2 - y };
}

/** Enlarges planes of a smaller drawing over a region that `reducedRegion` was asked for. */
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
    kernels.spreadCells({
      src: from,
      columns: small.width,
      rows: small.height,
      cell: factor,
      dst: to,
      pitch: into.width,
      x0: x,
      x1: x + into.width,
      y0: y,
      y1: y + into.height,
      work,
    });
  }
  scratch.release(mark);
}

/**
 * A wide Gaussian of a picture over a region: drawn and blurred at a part of the size. The part follows from the deviation alone, so that tiles meet.
 *
 * @param sigma - Standard deviation in pixels.
 * @param draw - Draws the picture over a region at a scale smaller by a whole factor.
 */
export function farGaussian(
  machine: Machine,
  scratch: Scratch,
  { x, y, width, height }: Region,
  sigma: number,
  draw: (factor: number, region: Region) => Tile,
): Tile {
  const out = scratch.tile({ x, y, width, height });
  const mark = scratch.mark();
  const factor = 2 ** Math.ceil(Math.log2(sigma / WIDEST_THERE));
  // A pixel of the smaller drawing is the mean of factor × factor of these, a blur of variance (factor² − 1) / 12.
  const there = Math.sqrt(sigma * sigma - (factor * factor - 1) / 12) / factor;
  const reach = blurReach(there);
  const small = draw(factor, grow(reducedRegion(out, factor), reach));
  enlargeFrom(machine, scratch, blurAndCut(machine, scratch, small, there, reach), factor, out, 4);
  scratch.release(mark);
  return out;
}
