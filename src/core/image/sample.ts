import type { Machine } from './machine';
import { multiply3, type Matrix3 } from '../color/matrix3';
import { levelSize, smallCopy, type Picture } from './picture';
import type { Tile } from './tile';

/** Maps tile pixel coordinates to a picture's own: x' = a·x + c·y + e, y' = b·x + d·y + f. */
export interface Affine {
  a: number;
  b: number;
  c: number;
  d: number;
  e: number;
  f: number;
}

/** What lies beyond a picture: nothing, it once more, its last pixels, or it once more in the mirror. */
export type Edge = 'clear' | 'wrap' | 'extend' | 'mirror';
const edges: Record<Edge, number> = { clear: 0, wrap: 1, extend: 2, mirror: 3 };

/** The tile that a sampling kernel fills. */
export const into = ({ ptr, stride, width, height }: Tile) => ({ dst: ptr, stride, tw: width, th: height });

/**
 * Fills a tile with the picture reduced by `scale` (target pixels to a picture pixel). Reductions are area means over the exact
 * footprint, so that a reduced picture is the same whichever way it is cut into tiles; enlargements are bilinear. The tile's origin lies
 * at (left, top) of the picture.
 */
export function samplePhoto({ kernels }: Machine, picture: Picture, scale: number, tile: Tile, left = 0, top = 0): void {
  if (scale > 1) {
    sampleLevel(
      kernels,
      picture,
      0,
      { a: 1 / scale, b: 0, c: 0, d: 1 / scale, e: left + tile.x / scale, f: top + tile.y / scale },
      'extend',
      tile,
      1,
    );
    return;
  }
  let level = 0;
  let ratio = 1 / scale;
  while (ratio >= 2 && level + 1 < picture.levels.length) {
    ratio /= 2;
    level++;
  }
  const [w, h] = levelSize(picture, level);
  kernels.sampleArea({
    src: picture.levels[level],
    w,
    h,
    dst: tile.ptr,
    stride: tile.stride,
    tw: tile.width,
    th: tile.height,
    x: tile.x,
    y: tile.y,
    r: ratio,
    ox: left / (1 << level),
    oy: top / (1 << level),
  });
}

/** The map from a tile's own pixels, and the mip level that matches its reduction with the share of the next one. */
function placedOn(picture: Picture, map: Affine, tile: Tile) {
  const placed = { ...map, e: map.e + map.a * tile.x + map.c * tile.y, f: map.f + map.b * tile.x + map.d * tile.y };
  const reduction = Math.max(Math.hypot(map.a, map.b), Math.hypot(map.c, map.d));
  // A little sharper than the strict choice: the area mean of a level already softens.
  const wanted = Math.max(0, Math.min(picture.levels.length - 1, Math.log2(reduction) - 0.25));
  const level = Math.floor(wanted);
  const mix = wanted - level;
  return { placed, level, next: mix > 0.01 && level + 1 < picture.levels.length ? mix : 0 };
}

/** Samples under an affine map, from the two mip levels that match the map's reduction. `map` is in whole-piece pixels. */
export function sampleAffine({ kernels }: Machine, picture: Picture, map: Affine, edge: Edge, tile: Tile): void {
  const { placed, level, next } = placedOn(picture, map, tile);
  sampleLevel(kernels, picture, level, placed, edge, tile, 1);
  if (next > 0) sampleLevel(kernels, picture, level + 1, placed, edge, tile, next);
}

/** The same by a cubic where the picture is enlarged. */
export function sampleCubic(machine: Machine, picture: Picture, map: Affine, edge: Edge, tile: Tile): void {
  const { placed, level, next } = placedOn(picture, map, tile);
  if (level > 0 || next > 0) return sampleAffine(machine, picture, map, edge, tile);
  const { width: w, height: h, levels, deep } = picture;
  machine.kernels.sampleCubic({ src: levels[0], w, h, deep: deep ? 1 : 0, ...into(tile), ...placed, edge: edges[edge] });
}

/** Seeds the offsets by which copies of a picture are mixed. */
const MIXING_SEED = 71;

/** Samples a picture that repeats, mixed so that no repetition is seen; see the kernel. */
export function sampleWithoutRepeats(machine: Machine, picture: Picture, map: Affine, tile: Tile): void {
  const { placed, level, next } = placedOn(picture, map, tile);
  const { pixels } = smallCopy(machine, picture, 16);
  const [red, green, blue] = [0, 1, 2].map((c) => pixels.reduce((sum, v, i) => (i % 4 === c ? sum + v : sum), 0) / (pixels.length / 4));
  for (const [l, mix] of [
    [level, 1],
    [level + 1, next],
  ]) {
    if (mix === 0) continue;
    const [w, h] = levelSize(picture, l);
    const k = 1 / (1 << l);
    const scaled = { a: placed.a * k, b: placed.b * k, c: placed.c * k, d: placed.d * k, e: placed.e * k, f: placed.f * k };
    const deep = picture.deep ? 1 : 0;
    machine.kernels.sampleMixed({ src: picture.levels[l], w, h, deep, ...into(tile), ...scaled, red, green, blue, seed: MIXING_SEED, mix });
  }
}

/** Samples under a projective map of whole-piece pixels to the picture's own, row by row; clear behind the horizon. */
export function sampleInPerspective({ kernels }: Machine, picture: Picture, map: Matrix3, edge: Edge, tile: Tile): void {
  const placed = multiply3(map, [1, 0, tile.x, 0, 1, tile.y, 0, 0, 1]);
  const { width, height, levels } = picture;
  kernels.sampleInPerspective({
    src: levels[0],
    w: width,
    h: height,
    levels: levels.length,
    ...into(tile),
    m: placed,
    edge: edges[edge],
    deep: picture.deep ? 1 : 0,
  });
}

function sampleLevel(kernels: Machine['kernels'], picture: Picture, level: number, map: Affine, edge: Edge, tile: Tile, mix: number) {
  const k = 1 / (1 << level);
  const [w, h] = levelSize(picture, level);
  const sample = picture.deep ? kernels.sampleAffineDeep : kernels.sampleAffine;
  const placed = { a: map.a * k, b: map.b * k, c: map.c * k, d: map.d * k, e: map.e * k, f: map.f * k };
  sample({ src: picture.levels[level], w, h, ...into(tile), ...placed, edge: edges[edge], mix });
}
