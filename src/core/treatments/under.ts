import type { DrawContext } from '../graph/context';
import type { Tile } from '../image/tile';

/** Lays a colour under a tile where a plane covers: the plane's values are lost. Source-over with the tile on top (W3C Compositing, Level 1). */
export function layUnder({ machine: { kernels } }: Pick<DrawContext, 'machine'>, tile: Tile, cover: number, rgb: readonly number[]): void {
  const { ptr, stride, count } = tile;
  const alpha = ptr + 3 * stride;
  kernels.premultiply(ptr, stride, count, 0);
  // What shows of it: 1 − α of the tile.
  kernels.times(cover, alpha, count, -1, 1);
  rgb.forEach((v, c) => kernels.mixIn(ptr + c * stride, cover, count, 1, v, 0));
  kernels.mixIn(alpha, cover, count, 1, 1, 0);
  kernels.premultiply(ptr, stride, count, 1);
}
