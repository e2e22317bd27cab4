import type { DrawContext } from '../graph/context';
import type { LoadedPicture } from '../graph/needs';
import { sampleAffine, sampleCubic, sampleInPerspective, sampleWithoutRepeats, type Affine, type Edge } from '../image/sample';
import type { Region, Tile } from '../image/tile';
import { layMap, layProjection, type Lay } from './lay';

type Laid = Pick<DrawContext, 'machine' | 'width' | 'height' | 'unit'>;

/** Pixels read around a place: the nearest ones, and those of a smaller level. */
const MARGIN = 4;

const edgeOf = ({ fit, mirror }: Lay): Edge => (fit !== 'tile' ? 'clear' : mirror ? 'mirror' : 'wrap');

/** A part of a sheet is read where the drawing takes about as many pixels of it as the sheet has; smaller drawings read the whole picture. */
const MOST_REDUCTION = 1.8;

/** Whether the sheet that a lay lies on is repeated on all sides. */
export const continues = ({ fit }: Lay): boolean => fit === 'tile';

/** Whether a drawing under a map reads a part of a sheet, rather than the whole picture. */
export const readsPart = ({ a, b, c, d }: Affine): boolean => Math.max(Math.hypot(a, b), Math.hypot(c, d)) <= MOST_REDUCTION;

/** What a region reads of a sheet under a map: the box around it, with the pixels between which values are interpolated. */
export function readOn({ a, b, c, d, e, f }: Affine, { x, y, width, height }: Region): Region {
  const corners = [
    [x, y],
    [x + width, y],
    [x, y + height],
    [x + width, y + height],
  ];
  const xs = corners.map(([px, py]) => a * px + c * py + e);
  const ys = corners.map(([px, py]) => b * px + d * py + f);
  const [left, top] = [Math.floor(Math.min(...xs)) - MARGIN, Math.floor(Math.min(...ys)) - MARGIN];
  return { x: left, y: top, width: Math.ceil(Math.max(...xs)) + MARGIN - left, height: Math.ceil(Math.max(...ys)) + MARGIN - top };
}

/** Fills a tile from the part of a large sheet that was drawn for it; false when the tile reads more than that. */
function fillFromPart({ machine, ...frame }: Laid, tile: Tile, { fine, part, nominal }: Omit<LoadedPicture, 'kind'>, lay: Lay): boolean {
  if (!fine || !part || !nominal) return false;
  const map = layMap(lay, nominal, frame, fine.held);
  if (!readsPart(map)) return false;
  const read = readOn(map, tile);
  const { width, height } = part.picture;
  // Beyond the end of a sheet that is not repeated there is nothing to read.
  const [right, bottom] = continues(lay) ? [Infinity, Infinity] : [fine.held.width, fine.held.height];
  const [left, top] = continues(lay) ? [-Infinity, -Infinity] : [0, 0];
  const holds =
    Math.max(left, read.x) >= part.x &&
    Math.max(top, read.y) >= part.y &&
    Math.min(right, read.x + read.width) <= part.x + width &&
    Math.min(bottom, read.y + read.height) <= part.y + height;
  if (!holds) return false;
  sampleAffine(machine, part.picture, { ...map, e: map.e - part.x, f: map.f - part.y }, 'extend', tile);
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
