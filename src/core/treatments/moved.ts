import type { DrawContext } from '../graph/context';
import { shrink, type Region, type Tile } from '../image/tile';

/** Pixels around a place that the cubic reads. */
const TAPS = 3;

/**
 * What a treatment starts from, read elsewhere: a tile over a region, in the caller's scratch memory.
 *
 * @param own - Draws what it starts from over a region.
 * @param offsets - Fills two planes over the region with how far away each pixel is read, in pixels.
 */
export function moved(
  { machine, scratch }: DrawContext,
  { x, y, width, height }: Region,
  own: (region: Region) => Tile,
  offsets: (into: Tile & { dx: number; dy: number }) => void,
): Tile {
  const mark = scratch.mark();
  const out = scratch.tile({ x, y, width, height });
  const after = scratch.mark();
  const [dx, dy] = [scratch.plane(out.count + 8, 0), scratch.plane(out.count + 8, 0)];
  offsets({ ...out, dx, dy });
  const range = scratch.take(16);
  const rangeOf = (plane: number) => {
    machine.kernels.rangeOf(plane, width * height, range);
    return [machine.floats[range / 4], machine.floats[range / 4 + 1]];
  };
  const [[left, right], [top, bottom]] = [rangeOf(dx), rangeOf(dy)];
  if (left === 0 && right === 0 && top === 0 && bottom === 0) {
    scratch.release(mark);
    // With the pixel around it that such a treatment says that it reads: so it may have been kept.
    const same = own({ x: x - 1, y: y - 1, width: width + 2, height: height + 2 });
    return shrink(machine, same, { x, y, width, height });
  }
  const [x0, y0] = [x + Math.floor(left) - TAPS, y + Math.floor(top) - TAPS];
  const from = own({ x: x0, y: y0, width: x + width + Math.ceil(right) + TAPS - x0, height: y + height + Math.ceil(bottom) + TAPS - y0 });
  const woven = scratch.take(from.width * from.height * 16 + 64);
  machine.kernels.interleave(from.ptr, from.stride, from.width * from.height, woven, 4);
  machine.kernels.displacedCubic({
    src: woven,
    sw: from.width,
    sh: from.height,
    dx,
    dy,
    dst: out.ptr,
    stride: out.stride,
    w: width,
    h: height,
    ox: x - x0,
    oy: y - y0,
  });
  scratch.release(after);
  return out;
}
