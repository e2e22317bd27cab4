import { blurPlane, blurTile } from '../image/blur';
import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';

/** A tile's colours blurred where they are; pixels nearer than `rim` to its edges need not be right. Alpha stays. */
export function soften({ machine, scratch, far }: RenderContext, tile: Tile, sigma: number, rim = 0): void {
  const mark = scratch.mark();
  const soft = far?.('own', sigma);
  if (!soft) blurTile(machine, scratch, tile, sigma, rim);
  else for (let c = 0; c < 3; c++) copyPlane(machine.bytes, soft, tile, c);
  scratch.release(mark);
}

/** The same as a tile of its own, in memory that the caller releases. */
export function softened(context: RenderContext, tile: Tile, sigma: number): Tile {
  const { machine, scratch, far } = context;
  const soft = far?.('own', sigma);
  if (soft) return soft;
  const copy = scratch.tile(tile);
  for (let c = 0; c < 4; c++) copyPlane(machine.bytes, tile, copy, c);
  blurTile(machine, scratch, copy, sigma);
  return copy;
}

/** The luma of a tile, or of what lies below it or of the photo under it, blurred: a plane that the caller releases. */
export function softLuma(context: RenderContext, of: 'own' | 'below' | 'photo', tile: Tile, sigma: number, below?: Tile): number {
  const { machine, scratch, far } = context;
  const { kernels } = machine;
  const { width, height, count } = tile;
  const map = scratch.plane(count + 8);
  const mark = scratch.mark();
  const soft = far?.(of, sigma);
  if (soft) kernels.lumaPlane(soft.ptr, soft.stride, map, count);
  else {
    if (of === 'own') kernels.lumaPlane(tile.ptr, tile.stride, map, count);
    else if (of === 'below' && below) {
      const whole = scratch.plane(below.count + 8);
      kernels.lumaPlane(below.ptr, below.stride, whole, below.count);
      const offset = ((tile.y - below.y) * below.width + tile.x - below.x) * 4;
      kernels.copyWindow(whole + offset, below.width, map, width, width, height);
    } else {
      const photo = scratch.tile({ x: tile.x, y: tile.y, width, height });
      context.drawPhoto(photo);
      kernels.lumaPlane(photo.ptr, photo.stride, map, count);
    }
    blurPlane(machine, scratch, map, width, height, sigma);
  }
  scratch.release(mark);
  return map;
}

const copyPlane = (bytes: Uint8Array, from: Tile, to: Tile, c: number) =>
  bytes.copyWithin(to.ptr + c * to.stride, from.ptr + c * from.stride, from.ptr + c * from.stride + from.count * 4);
