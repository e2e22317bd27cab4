import type { Machine } from './machine';

/** A rectangle in whole pixels of the piece at some scale. */
export interface Region {
  x: number;
  y: number;
  width: number;
  height: number;
}

export const grow = (r: Region, by: number): Region => ({ x: r.x - by, y: r.y - by, width: r.width + 2 * by, height: r.height + 2 * by });

/** Planar f32 r, g, b, a of a region, not premultiplied, 0..1, in kernel memory. */
export interface Tile extends Region {
  ptr: number;
  /** Bytes from one plane to the next. */
  stride: number;
  /** Values a plane, padded to a multiple of 8. */
  count: number;
}

export const padded = (width: number, height: number) => Math.ceil((width * height) / 8) * 8;

/** Copies the part of a tile over a smaller tile's region into it. */
export function copyPart({ kernels }: Machine, from: Tile, into: Tile): void {
  const offset = ((into.y - from.y) * from.width + into.x - from.x) * 4;
  for (let c = 0; c < 4; c++) {
    kernels.copyWindow(from.ptr + c * from.stride + offset, from.width, into.ptr + c * into.stride, into.width, into.width, into.height);
  }
}

/** A tile cut down to a smaller region at its own place in memory, which it holds no longer otherwise. */
export function shrink(machine: Machine, tile: Tile, region: Region): Tile {
  const count = padded(region.width, region.height);
  const small = { ...region, ptr: tile.ptr, stride: count * 4, count };
  // Rows move only towards lower addresses, and in order, so none is overwritten before it has moved.
  copyPart(machine, tile, small);
  return small;
}

/** What a tile that does not fit says; whoever draws may try smaller tiles first. */
export const NO_ROOM = 'A step reaches too far for a picture of this size; ease its amount or make the picture smaller.';

/** Bump allocator over a worker's own stretch of memory; everything is given back at once after a tile. */
export class Scratch {
  private next: number;

  constructor(
    readonly machine: Machine,
    readonly start: number,
    readonly end: number,
  ) {
    this.next = start;
  }

  reset(): void {
    this.next = this.start;
  }

  /** Where the allocator stands; hand it to `release` to free all that was taken since. */
  mark(): number {
    return this.next;
  }

  release(mark: number): void {
    this.next = mark;
  }

  /** @throws RangeError when a tile with its halo does not fit; callers choose smaller tiles. */
  take(bytes: number): number {
    const at = this.next;
    this.next = at + Math.ceil(bytes / 16) * 16;
    if (this.next > this.end) throw new RangeError(NO_ROOM);
    return at;
  }

  plane(count: number, value?: number): number {
    const at = this.take(count * 4);
    if (value !== undefined) this.machine.kernels.fill(at, count, value);
    return at;
  }

  tile(region: Region): Tile {
    const count = padded(region.width, region.height);
    return { ...region, ptr: this.take(count * 16), stride: count * 4, count };
  }
}

/** The part of a tile over a smaller region, as a tile of its own. */
export function cutOut(scratch: Scratch, from: Tile, { x, y, width, height }: Region): Tile {
  const out = scratch.tile({ x, y, width, height });
  copyPart(scratch.machine, from, out);
  return out;
}

/** A tile as the kernels that draw strokes and spots take it: a sheet of its own, whose first pixel is at its left upper corner. */
export const asSheet = ({ width, height }: Tile) => ({ w: width, h: height, x0: 0, y0: 0, W: width, H: height, wrap: 0 });
