import type { DrawContext } from '../graph/context';
import { blurPlane, blurTile } from '../image/blur';
import type { Tile } from '../image/tile';

/** Blurs a tile's colours in place, by a standard deviation in pixels; pixels nearer than `rim` to its edges need not be right. Alpha stays. */
export function soften({ machine, scratch, far }: DrawContext, tile: Tile, sigma: number, rim = 0): void {
  const mark = scratch.mark();
  const soft = far('own', sigma);
  if (!soft) blurTile(machine, scratch, tile, sigma, rim);
  else for (let c = 0; c < 3; c++) copyPlane(machine.bytes, soft, tile, c);
  scratch.release(mark);
}

/** The same as a tile of its own, in memory that the caller releases. */
export function softened({ machine, scratch, far }: DrawContext, tile: Tile, sigma: number): Tile {
  const soft = far('own', sigma);
  if (soft) return soft;
  const copy = scratch.tile(tile);
  for (let c = 0; c < 4; c++) copyPlane(machine.bytes, tile, copy, c);
  blurTile(machine, scratch, copy, sigma);
  return copy;
}

const PLANE = { red: 0, green: 1, blue: 2 } as const;
/** What of a picture is read as a map. */
export type Channel = keyof typeof PLANE | 'luma';

/** One channel of a tile, or its luma, put into a plane. */
export function putChannel({ machine: { kernels } }: DrawContext, { ptr, stride, width, height, count }: Tile, into: number, channel: Channel): void {
  if (channel === 'luma') kernels.lumaPlane(ptr, stride, into, count);
  else kernels.copyWindow(ptr + PLANE[channel] * stride, width, into, width, width, height);
}

/** The luma, or one channel, of a tile itself (`own`), or of an input over it, blurred by a standard deviation in pixels: a plane that the caller releases. */
export function softLuma(
  context: DrawContext,
  of: 'own' | 'below' | 'photo' | 'height',
  tile: Tile,
  sigma: number,
  channel: Channel = 'luma',
): number {
  const { machine, scratch } = context;
  const { width, height, count } = tile;
  const map = scratch.plane(count + 8);
  const mark = scratch.mark();
  const soft = context.far(of, sigma);
  const from = soft ?? (of === 'own' ? tile : context.read(of, tile));
  putChannel(context, from, map, channel);
  if (!soft) blurPlane(machine, scratch, map, width, height, sigma);
  scratch.release(mark);
  return map;
}

const copyPlane = (bytes: Uint8Array, from: Tile, to: Tile, c: number) =>
  bytes.copyWithin(to.ptr + c * to.stride, from.ptr + c * from.stride, from.ptr + c * from.stride + from.count * 4);
