import type { DrawContext } from '../graph/context';
import type { LoadedPicture } from '../graph/needs';
import { chain, isAffine, moved } from '../image/projection';
import { sampleAffine, sampleCubic, sampleInPerspective, sampleWithoutRepeats, type Edge } from '../image/sample';
import type { Tile } from '../image/tile';
import { layMap, layProjection, type Lay } from './lay';
import { continues, readingOf, readOn } from './reading';

type Laid = Pick<DrawContext, 'machine' | 'width' | 'height' | 'unit'>;

const edgeOf = ({ fit, mirror }: Lay): Edge => (fit !== 'tile' ? 'clear' : mirror ? 'mirror' : 'wrap');

/** Fills a tile from the part of a large sheet that was drawn for it; false when the tile reads more than that. */
function fillFromPart({ machine, ...frame }: Laid, tile: Tile, { part, nominal }: Omit<LoadedPicture, 'kind'>, lay: Lay): boolean {
  if (!part || !nominal) return false;
  const reading = readingOf(lay, nominal, frame, part.held);
  const read = reading && readOn(reading, tile);
  if (!read) return false;
  const { width, height } = part.picture;
  // Beyond the end of a sheet that is not repeated there is nothing to read.
  const [right, bottom] = continues(lay) ? [Infinity, Infinity] : [part.held.width, part.held.height];
  const [left, top] = continues(lay) ? [-Infinity, -Infinity] : [0, 0];
  const holds =
    Math.max(left, read.x) >= part.x &&
    Math.max(top, read.y) >= part.y &&
    Math.min(right, read.x + read.width) <= part.x + width &&
    Math.min(bottom, read.y + read.height) <= part.y + height;
  if (!holds) return false;
  const map = chain(moved(-part.x, -part.y), reading.map);
  if (isAffine(map)) sampleAffine(machine, part.picture, { a: map[0], b: map[3], c: map[1], d: map[4], e: map[2], f: map[5] }, 'extend', tile);
  else sampleInPerspective(machine, part.picture, map, 'extend', tile);
  return true;
}

/** Fills a tile with a picture or material where a lay puts it; where it is enlarged, by a cubic if that is asked for. */
export function fillLaid(context: Laid, tile: Tile, loaded: Omit<LoadedPicture, 'kind'>, lay: Lay, cubic = false): void {
  if (fillFromPart(context, tile, loaded, lay)) return;
  const { picture, nominal, held } = loaded;
  const sizes = [nominal ?? picture, context, held ?? picture] as const;
  if (lay.mix && lay.fit === 'tile' && !lay.corners) sampleWithoutRepeats(context.machine, picture, layMap(lay, ...sizes), tile);
  else if (lay.corners) sampleInPerspective(context.machine, picture, layProjection(lay, ...sizes), edgeOf(lay), tile);
  else (cubic ? sampleCubic : sampleAffine)(context.machine, picture, layMap(lay, ...sizes), edgeOf(lay), tile);
}
