import type { Region } from '../core/image/tile';
import type { Piece } from '../core/piece/schema';
import type { View } from '../core/render/view';

/** What is drawn. */
export interface Drawing {
  piece: Pick<Piece, 'coats' | 'strength' | 'photo' | 'ready' | 'guards'>;
  /** Nothing beyond the photo's edges instead of the edges extended. */
  clear?: boolean;
  /** 16 bits a channel, of the photo too where its file has them. */
  deep?: boolean;
  /** Materials as fine as the drawing, however large that is. */
  full?: boolean;
  /** What is clipped is painted over. */
  clipping?: boolean;
  region: Region;
  /** Pixels drawn to one pixel of the photo. */
  scale: number;
  view?: View;
  /** The coat being worked on: all below it, and its own treated source, are kept between drawings. */
  chosen?: string;
  tile?: number;
}

export interface DrawOptions {
  signal?: AbortSignal;
  onProgress?(done: number, total: number): void;
  /** Take a coarser rendering of a material that is at hand rather than wait. */
  quick?: boolean;
}
