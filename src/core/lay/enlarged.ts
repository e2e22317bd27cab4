import type { DrawContext } from '../graph/context';
import type { LoadedPicture } from '../graph/needs';
import { multiply } from '../image/projection';
import type { Tile } from '../image/tile';
import { CELL } from '../measure/grain';
import { fillLaid } from './laid';
import { enlargement, layProjection, type Lay } from './lay';

/** From how many times its own pixels on a picture lacks what a sharp photo has beside it. */
export const LACKING = 1.3;

const SEED = 90;

/** `fillLaid`; a picture that is drawn larger than its pixels is read by a cubic, and grain like its own goes on where it has none. */
export function fillPicture(
  context: Pick<DrawContext, 'machine' | 'scratch' | 'scale' | 'width' | 'height' | 'unit'>,
  tile: Tile,
  loaded: Omit<LoadedPicture, 'kind'>,
  lay: Lay,
): void {
  const { picture, goesOn } = loaded;
  const nominal = loaded.nominal ?? picture;
  const { machine, scratch, scale } = context;
  if (!goesOn || enlargement(lay, nominal, { width: context.width / scale, height: context.height / scale }) <= LACKING)
    return fillLaid(context, tile, loaded, lay);
  fillLaid(context, tile, loaded, lay, true);
  const { amount, map } = goesOn;
  if (!map || amount === 0) return;
  const mark = scratch.mark();
  const grain = scratch.tile(tile);
  fillLaid(context, grain, { picture: map, nominal, held: { width: picture.width / CELL, height: picture.height / CELL } }, lay);
  machine.kernels.addGrain({
    dst: tile.ptr,
    stride: tile.stride,
    tw: tile.width,
    th: tile.height,
    grain: grain.ptr,
    grainStride: grain.stride,
    m: multiply(layProjection(lay, nominal, context, picture), [1, 0, tile.x, 0, 1, tile.y, 0, 0, 1]),
    amount,
    seed: SEED,
  });
  scratch.release(mark);
}
