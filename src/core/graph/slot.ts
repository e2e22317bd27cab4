import type { Machine } from '../image/machine';
import type { Region } from '../image/tile';

/** A place for tiles kept in 16 bit. A tile of it is valid when its stamp equals the slot's. */
export interface CacheSlot {
  /** Address of one u32 stamp a tile. */
  stamps: number;
  /** Address of the tiles, and bytes from one to the next. */
  tiles: number;
  pitch: number;
  stamp: number;
}

export function tilesOf(region: Region, tile: number): { columns: number; rows: number; count: number } {
  const columns = Math.ceil(region.width / tile);
  const rows = Math.ceil(region.height / tile);
  return { columns, rows, count: columns * rows };
}

export function tileRegion(region: Region, tile: number, index: number): Region {
  const { columns } = tilesOf(region, tile);
  const x = (index % columns) * tile;
  const y = Math.floor(index / columns) * tile;
  return { x: region.x + x, y: region.y + y, width: Math.min(tile, region.width - x), height: Math.min(tile, region.height - y) };
}

/** Bytes of the stamps of so many tiles. */
export const stampBytes = (count: number): number => Math.ceil((count * 4) / 128) * 128;

/** Bytes of one kept tile of `side` pixels: so many values of 16 bits a pixel, and eight bytes for a count. */
const tileBytes = (side: number, values: number) => Math.ceil((side * side) / 8) * 8 * values * 2 + 16;

/** Bytes that a slot takes for a region in tiles of a side with a margin; `values` of 16 bits a pixel. */
export function slotBytes(region: Region, tile: number, margin: number, values: number): number {
  const { count } = tilesOf(region, tile);
  return stampBytes(count) + count * tileBytes(tile + 2 * margin, values);
}

export function slotAt(at: number, region: Region, tile: number, margin: number, values: number, stamp: number): CacheSlot & { margin: number } {
  const { count } = tilesOf(region, tile);
  return { stamps: at, tiles: at + stampBytes(count), pitch: tileBytes(tile + 2 * margin, values), stamp, margin };
}

export const isStamped = (machine: Machine, slot: CacheSlot, index: number): boolean => machine.words[slot.stamps / 4 + index] === slot.stamp;
export const setStamp = (machine: Machine, slot: CacheSlot, index: number): void => void (machine.words[slot.stamps / 4 + index] = slot.stamp);
