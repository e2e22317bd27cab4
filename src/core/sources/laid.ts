import type { LoadedPicture, Need } from '../graph/needs';
import type { Tile } from '../image/tile';
import { fillPicture } from '../lay/enlarged';
import type { Lay } from '../lay/lay';
import { fillOnFaces } from '../lay/onFaces';
import type { SourceContext } from './source';

/** What has to be loaded for a lay: where faces are, when it goes by them. */
export const facesNeed = ({ faces }: Lay): Record<string, Need> => (faces ? { faces: { need: 'faces' } } : {});

/** Fills a tile with a loaded picture where the coat's lay puts it; `goesOn` says how, where it is enlarged. */
export function fillWhere(context: SourceContext, tile: Tile, name: string, goesOn?: LoadedPicture['goesOn']): void {
  const loaded = { ...context.needed(name, 'picture'), goesOn };
  const { lay } = context;
  if (lay.faces) fillOnFaces(context, tile, loaded, lay, context.needed('faces', 'faces').faces);
  else fillPicture(context, tile, loaded, lay);
}
