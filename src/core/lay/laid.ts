import type { DrawContext } from '../graph/context';
import type { LoadedPicture } from '../graph/needs';
import { sampleAffine, sampleInPerspective, sampleWithoutRepeats, type Edge } from '../image/sample';
import type { Tile } from '../image/tile';
import { layMap, layProjection, type Lay } from './lay';

const edgeOf = ({ fit, mirror }: Lay): Edge => (fit !== 'tile' ? 'clear' : mirror ? 'mirror' : 'wrap');

/** Fills a tile with a picture or material where a lay puts it. */
export function fillLaid(
  context: Pick<DrawContext, 'machine' | 'width' | 'height' | 'unit'>,
  tile: Tile,
  { picture, nominal, held }: Omit<LoadedPicture, 'kind'>,
  lay: Lay,
): void {
  const sizes = [nominal ?? picture, context, held ?? picture] as const;
  if (lay.mix && lay.fit === 'tile' && !lay.corners) sampleWithoutRepeats(context.machine, picture, layMap(lay, ...sizes), tile);
  else if (lay.corners) sampleInPerspective(context.machine, picture, layProjection(lay, ...sizes), edgeOf(lay), tile);
  else sampleAffine(context.machine, picture, layMap(lay, ...sizes), edgeOf(lay), tile);
}
