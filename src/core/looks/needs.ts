import { everyCoat, mapCoats } from '../piece/groups';
import { filesOf } from '../piece/pictures';
import type { Piece, Recipe } from '../piece/schema';

/** What a look uses that a photo, or the shelf, may lack. */
export interface LookNeeds {
  /** Names of pictures. */
  pictures: string[];
  /** It lies on faces, follows their form, or goes about a person. */
  people: boolean;
}

export function needsOf({ coats }: Pick<Recipe, 'coats'>): LookNeeds {
  const people = everyCoat(coats).some(
    ({ source, lay, mask, treatments }) =>
      lay.faces ||
      (source.kind === 'cutout' && !('file' in source && source.file)) ||
      mask.parts.some((part) => part.kind === 'guard' || part.kind === 'contour' || part.around !== undefined) ||
      treatments.some((step) => (step as { map?: unknown }).map === 'form'),
  );
  return { pictures: [...new Set(coats.flatMap(filesOf))], people };
}

/** What of a piece goes into a look. */
export interface LookParts {
  /** Ids of its coats. */
  coats: readonly string[];
  ready: boolean;
  guards: boolean;
}

/** The piece with only what goes into a look. Parts of masks that go by a coat which stays behind stay behind too. */
export function partsOfLook<P extends Piece>(piece: P, { coats, ready, guards }: LookParts): P {
  const { ready: _ready, guards: _guards, ...rest } = piece;
  const kept = piece.coats.filter(({ id }) => coats.includes(id));
  const there = new Set(everyCoat(kept).map(({ id }) => id));
  return {
    ...rest,
    ...(ready && piece.ready ? { ready: piece.ready } : {}),
    ...(guards && piece.guards ? { guards: piece.guards } : {}),
    coats: mapCoats(kept, (coat) => {
      const parts = coat.mask.parts.filter((part) => part.kind !== 'coat' || there.has(String(part.coat)));
      return parts.length === coat.mask.parts.length ? coat : { ...coat, mask: { ...coat.mask, parts } };
    }),
  } as P;
}
