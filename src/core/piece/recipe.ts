import { fileOfSource } from '../sources';
import { guardsSchema, type Guards } from '../guards/schema';
import { explain } from './explain';
import { coatSchema, recipeSchema, type Coat, type Piece, type Recipe } from './schema';

/** The look of a piece without its photo. `fileOf` turns keys of kept pictures into file names. */
export function recipeOf(piece: Piece, fileOf: (key: string) => string = (key) => key): Recipe {
  const named = new Set(piece.coats.flatMap((c) => c.mask.parts.map((p) => p.coat)));
  return recipeSchema.parse({
    dermatex: 1,
    name: piece.name,
    strength: piece.strength,
    ...(piece.ready ? { ready: piece.ready } : {}),
    ...(piece.guards ? { guards: portable(piece.guards) } : {}),
    coats: piece.coats.map(({ id, ...coat }) => {
      const source = coat.source as { kind: string; file?: string };
      return {
        ...(named.has(id) ? { id } : {}),
        ...coat,
        source: fileOfSource(source) ? { ...source, file: fileOf(source.file ?? '') } : source,
      };
    }),
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
  if (!result.success) throw new RangeError(explain(result.error, 'recipe'));
  return result.data;
}

/** Coats of a recipe as coats of a piece, each with a new id. */
export function coatsOf(recipe: Recipe, newId: () => string): Coat[] {
  const ids = recipe.coats.map(newId);
  const renamed = new Map(recipe.coats.flatMap((coat, i) => (coat.id === undefined ? [] : [[coat.id, ids[i]] as const])));
  const parts = (list: Coat['mask']['parts']) => list.map((p) => (p.kind === 'coat' ? { ...p, coat: renamed.get(String(p.coat)) ?? '' } : p));
  return recipe.coats.map((coat, i) => coatSchema.parse({ ...coat, mask: { ...coat.mask, parts: parts(coat.mask.parts) }, id: ids[i] }));
}
