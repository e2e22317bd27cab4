import { partsOf, withParts } from '../ready/parts';
import { neutralReady } from '../ready/schema';
import type { Finding } from '../guards/finding';
import { guardsSchema, type Guards } from '../guards/schema';
import { aroundSitter } from '../looks/around';
import { explain } from './explain';
import { withFiles } from './pictures';
import { changeLevel, everyCoat, filterCoats, groupOf, innerCoats, levelOf, mapCoats, withInner } from './groups';
import { setReady } from './rebase';
import { renewed } from './stacking';
import { coatSchema, recipeSchema, type Coat, type Piece, type Recipe } from './schema';

/** The look of a piece without its photo. `fileOf` turns keys of kept pictures into file names. */
export function recipeOf(piece: Piece, fileOf: (key: string) => string = (key) => key): Recipe {
  const named = new Set(everyCoat(piece.coats).flatMap((c) => c.mask.parts.map((p) => p.coat)));
  const bare = (coats: readonly Coat[]): object[] =>
    coats.map(({ id, ...coat }) => {
      const own = groupOf(coat) ? withInner(coat, bare(innerCoats(coat as Coat)) as Coat[]) : coat;
      return { ...(named.has(id) ? { id } : {}), ...own };
    });
  return recipeSchema.parse({
    dermatex: 1,
    name: piece.name,
    strength: piece.strength,
    ...(piece.ready ? { ready: piece.ready } : {}),
    ...(piece.guards ? { guards: portable(piece.guards) } : {}),
    coats: bare(piece.coats.map((coat) => withFiles(coat, (key) => ({ file: fileOf(key) })))),
  });
}

/** What of the guards can serve on another photo: how regions are kept, not what was painted on this one. */
export const portable = ({ regions }: Guards): Guards =>
  guardsSchema.parse({ regions: Object.fromEntries(Object.entries(regions).map(([id, { strokes: _strokes, ...rest }]) => [id, rest])) });

/** Parses and validates a recipe. @throws RangeError with one sentence for a person. */
export function parseRecipe(text: string): Recipe {
  let data: unknown;
  try {
    data = JSON.parse(text);
  } catch {
    throw new RangeError('This file is not a recipe: it does not hold JSON.');
  }
  const result = recipeSchema.safeParse(data);
  if (!result.success) throw new RangeError(explain(result.error, 'recipe', data));
  return result.data;
}

/** Where the coats of a recipe go: above all others, in place of them, or directly above one. */
export type LookPlace = 'top' | 'instead' | { above: string };

/**
 * Lays a recipe on a piece: its coats above what is there, its readying in place of the parts that it sets, its guards and its strength. On a photo that
 * nothing has been done to, this is the recipe's whole look.
 *
 * @param coats - The recipe's coats, as `coatsOf` makes them, with their pictures found.
 * @param finding - Faces and people of the photo, for masks that go about them.
 * @param place - Where its coats go.
 */
export const layRecipe =
  (recipe: Recipe, coats: readonly Coat[], finding: Finding | null = null, place: LookPlace = 'top') =>
  <P extends Piece>(piece: P): P => {
    const { ready, guards, strength } = recipe;
    const before = piece.ready ?? neutralReady;
    const spots = ready && ready.spots.length > 0 ? ready.spots : before.spots;
    const next = ready && { ...withParts(before, ready, partsOf(ready), true), spots };
    // The piece's own coats stay on the same points of the photo; places that the recipe names are those of its own frame.
    const own = next ? setReady(piece, next).coats : piece.coats;
    const regions = { ...piece.guards?.regions, ...guards?.regions };
    return {
      ...piece,
      ...(next ? { ready: next } : {}),
      ...(guards ? { guards: piece.guards ? { ...piece.guards, regions } : guards } : {}),
      // With coats of its own, a piece keeps its strength unless the recipe asks for another.
      strength: strength < 1 || place === 'instead' || piece.coats.length === 0 ? strength : piece.strength,
      coats: placed(own, aroundSitter(coats, finding, piece.photo, next ?? before), place),
    };
  };

function placed(own: readonly Coat[], added: readonly Coat[], place: LookPlace): Coat[] {
  if (place === 'instead') return [...added];
  if (place === 'top' || !levelOf(own, place.above)) return [...own, ...added];
  return [...changeLevel(own, place.above, (coats, at) => [...coats.slice(0, at + 1), ...added, ...coats.slice(at + 1)])];
}

/** Coats of a recipe as coats of a piece, each with a new id. */
export function coatsOf(recipe: Recipe, newId: () => string): Coat[] {
  return renewed(recipe.coats, newId, () => '').map((coat) => coatSchema.parse(coat));
}

/** True when masks of the recipe go about the person on the photo, so that one has to be looked for. */
export const goesAround = ({ coats }: Pick<Recipe, 'coats'>): boolean =>
  everyCoat(coats).some(({ mask }) => mask.parts.some((part) => part.around !== undefined));

/** True when something was painted by hand on the piece's own photo. */
export const hasPainting = ({ coats }: Pick<Piece, 'coats'>): boolean =>
  everyCoat(coats).some(({ source, mask }) => isPainted(source) || mask.parts.some(isPainted));

const isPainted = ({ kind }: { kind?: unknown }) => kind === 'strokes';

/** The piece without what was painted on its own photo, marks and masks: masks that held nothing else show all of their coat. */
export const withoutPainting = <P extends Pick<Piece, 'coats'>>(piece: P): P => ({
  ...piece,
  coats: mapCoats(
    filterCoats(piece.coats, ({ source }) => !isPainted(source)),
    (coat) => {
      const parts = coat.mask.parts.filter((part) => !isPainted(part));
      if (parts.length === coat.mask.parts.length) return coat;
      return { ...coat, mask: { ...coat.mask, parts, start: parts.length === 0 ? ('all' as const) : coat.mask.start } };
    },
  ),
});
