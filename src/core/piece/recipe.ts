import { explain } from './explain';
import { coatSchema, recipeSchema, type Coat, type Piece, type Recipe } from './schema';

/** The look of a piece without its photo. `fileOf` turns keys of kept pictures into file names. */
export function recipeOf(piece: Piece, fileOf: (key: string) => string = (key) => key): Recipe {
  return recipeSchema.parse({
    dermatex: 1,
    name: piece.name,
    strength: piece.strength,
    ...(piece.ready ? { ready: piece.ready } : {}),
    coats: piece.coats.map(({ id: _id, ...coat }) => {
      const source = coat.source as { kind: string; file?: string };
      return { ...coat, source: source.kind === 'picture' ? { ...source, file: fileOf(source.file ?? '') } : source };
    }),
  });
}

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
  return recipe.coats.map((coat) => coatSchema.parse({ ...coat, id: newId() }));
}
