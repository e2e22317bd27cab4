import type { RegionId } from '../guards/schema';
import type { Picture } from '../image/picture';
import type { Region } from '../image/tile';
import type { PlannedMask } from '../mask/draw';
import type { Coat } from '../piece/schema';
import type { PlannedReady } from '../ready/photo';

/** A coat with its picture in memory. */
export type PlannedCoat = Omit<Coat, 'id' | 'mask'> & {
  id: string;
  mask: PlannedMask;
  name?: string;
  picture?: Picture;
  /** The source's own size when `picture` is a smaller or larger rendering of it. */
  nominal?: { width: number; height: number };
  /** How much of `picture`, from its left upper corner, is the source; all of it when left out. */
  held?: { width: number; height: number };
  /** A cut-out's alpha, and how the colour of its edge differs from what lies behind it: pictures of the file that it is cut from. */
  cut?: { alpha: Picture; edge: Picture };
  /** Where the guards hold this coat back, as a grey picture of the file. */
  guard?: Picture;
};

/** What is drawn instead of the whole piece. */
export type View =
  | { kind: 'piece' }
  | { kind: 'photo' }
  | { kind: 'without'; coat: string }
  | { kind: 'alone'; coat: string }
  | { kind: 'upTo'; coat: string | null }
  | { kind: 'mask'; coat: string }
  | { kind: 'maskOver'; coat: string; colour: [number, number, number] }
  /** One region, or all by their amounts, in colour over the piece; as grey when `bare`. */
  | { kind: 'guards'; region: RegionId | null; colour: [number, number, number]; bare?: boolean }
  /** Where the piece differs from the photo. */
  | { kind: 'heat' };

/** A slot of tiles kept in 16 bit. A tile of it holds when its stamp equals the slot's. */
export interface CacheSlot {
  /** Address of one u32 stamp a tile, then of the tiles. */
  stamps: number;
  tiles: number;
  stamp: number;
}

/** All a worker needs to draw any tile: plain data, addresses into kernel memory. */
export interface Plan {
  photo: Picture;
  ready?: PlannedReady;
  /** Pixels drawn to one pixel of the photo. */
  scale: number;
  coats: PlannedCoat[];
  strength: number;
  view: View;
  /** What a view of the guards shows. */
  shownGuard?: Picture;
  region: Region;
  tile: number;
  /** What is clipped is painted over. */
  clipping?: boolean;
  /** The readied photo up to so many of its treatments, with `margin` pixels around each tile for those that follow. */
  readied?: { count: number; margin: number; slot: CacheSlot };
  /** Everything under coat `index`, and that coat's treated source. */
  below?: { index: number; slot: CacheSlot };
  /** The mask of coat `index` but for its last stroke, and that stroke's cover, while it is painted. */
  stroked?: { index: number; mask: CacheSlot; cover: CacheSlot };
  treated?: { index: number; slot: CacheSlot };
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

/** Bytes of one cached tile: four planes of u16. */
export const cachedTileBytes = (tile: number) => Math.ceil((tile * tile) / 8) * 8 * 4 * 2;
export const slotBytes = (region: Region, tile: number, margin = 0) => {
  const { count } = tilesOf(region, tile);
  return Math.ceil((count * 4) / 128) * 128 + count * cachedTileBytes(tile + 2 * margin);
};
export const slotAt = (at: number, region: Region, tile: number, stamp: number): CacheSlot => ({
  stamps: at,
  tiles: at + Math.ceil((tilesOf(region, tile).count * 4) / 128) * 128,
  stamp,
});
