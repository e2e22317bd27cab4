import type { DrawContext } from '../graph/context';
import { enlargeFrom, reducedRegion } from '../image/far';
import { flowField, sharpenAcross } from '../image/flow';
import { grow, type Tile } from '../image/tile';

/** Pixels around a pixel that a Gaussian is drawn with whose far ends nobody sees in the result: 97 % of it. */
export const nearReach = (sigma: number): number => Math.ceil(2.2 * sigma) + 1;

/** Pixels around what is wanted that the edges of an enlarged picture are sharpened with, at most. */
export const finishReach = (factor: number): number => (factor > 1 ? 3 * factor + 8 : 0);

/** The power of two by which a drawing is smaller on which a length is about `wanted` pixels, however large it is here. */
export const factorFor = (length: number, wanted: number): number => 2 ** Math.max(0, Math.round(Math.log2(length / wanted)));

/** Pixels to one u that are enough for paint: a long side of 840. */
const ENOUGH = 0.42;

/** The same for strokes and patches of a size in u: on a drawing as coarse as is enough for paint, but not so that one is under `least` pixels. */
export const paintFactor = (size: number, unit: number, least: number): number => factorFor(unit, Math.max(ENOUGH, least / size));

/**
 * Does the work of a treatment on a drawing that is smaller by a factor, and puts the enlarged colours into the tile, their edges made crisp again;
 * with a factor of 1 it works on the tile. The treatment says `worksSmaller` when that is all that it does.
 *
 * @param halo - Pixels around a pixel that the work reads on the smaller drawing. The tile has them around itself when the factor is 1.
 * @param work - Changes a tile's colours in place; `unit` pixels to one u there.
 */
export function onSmaller(context: DrawContext, tile: Tile, factor: number, halo: number, work: (small: Tile, unit: number) => void): void {
  const { machine, scratch, unit } = context;
  if (factor === 1) return work(tile, unit);
  const mark = scratch.mark();
  const region = reducedRegion(tile, factor);
  let small = context.worked(factor, region);
  if (!small) {
    small = context.smaller('own', factor, grow(region, halo));
    work(small, unit / factor);
  }
  enlargeFrom(machine, scratch, small, factor, tile, 4);
  scratch.release(mark);
  const flow = flowField(machine, scratch, tile, 0.6 * factor, 0);
  sharpenAcross(machine, scratch, tile, flow, { soften: 0.35 * factor, probe: 0.8 * factor, reach: 0.7 * factor, amount: 0.9 });
  scratch.release(mark);
}

/** The alpha of a smaller drawing, enlarged into a tile. */
export function enlargeAlpha({ machine, scratch }: DrawContext, small: Tile, factor: number, tile: Tile): void {
  enlargeFrom(machine, scratch, { ...small, ptr: small.ptr + 3 * small.stride }, factor, { ...tile, ptr: tile.ptr + 3 * tile.stride }, 1);
}

/** A plane of an input that is a region, such as a guard's, over a tile of the smaller drawing; null where it is left out. The caller releases it. */
export function regionOn(context: DrawContext, input: string, factor: number, small: Tile): number | null {
  if (context.isAbsent(input)) return null;
  return (factor === 1 ? context.read(input, small) : context.smaller(input, factor, small)).ptr;
}
