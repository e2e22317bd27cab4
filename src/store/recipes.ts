import type { Fitting } from '../core/materials/fitting/schema';
import { filesOf, withFiles } from '../core/piece/pictures';
import { coatsOf, goesAround, layRecipe, parseRecipe, recipeOf, withoutPainting } from '../core/piece/recipe';
import type { Edit } from '../core/piece/edits';
import type { Coat, Piece, Recipe } from '../core/piece/schema';
import { useBench } from './bench';
import { getEngine } from './engine';
import { download, fileName } from './files';
import { newId } from './newId';
import { sourceOf, useOwn } from './own';
import { listOwn } from './storage';
import { words } from './words';

/** The recipe as a file; pictures it uses are named by the file they came from and must lie beside it. */
export function saveRecipe(piece: Piece, withPainting: boolean): void {
  const { list } = useOwn.getState();
  const recipe = recipeOf(withPainting ? piece : withoutPainting(piece), (key) => list.find((o) => o.key === key)?.name ?? key);
  download(new Blob([JSON.stringify(recipe, null, 2)], { type: 'application/json' }), `${fileName(piece.name)}.recipe.json`);
}

/** Coats of a recipe, with its pictures found on the shelf. @throws RangeError with one sentence when one is not there. */
async function coatsWithPictures(recipe: Recipe): Promise<Coat[]> {
  const coats = coatsOf(recipe, newId);
  if (coats.every((coat) => filesOf(coat).length === 0)) return coats;
  const own = await listOwn();
  return coats.map((coat) => {
    const { fitting } = coat.source as { fitting?: Fitting };
    return withFiles(coat, (named) => {
      const found = own.find((o) => o.key === named || o.name === named);
      if (!found) throw new RangeError(words.recipes.theLookUsesThePicture(named));
      // Its size once it is made to fit.
      const { width, height } = coat.source.kind === 'cutout' ? found : (sourceOf({ ...found, fitting }) as { width?: number; height?: number });
      return { file: found.key, width, height };
    });
  });
}

/**
 * What lays a recipe on a piece. Faces and people are looked for where its masks go about them; where that fails they stay where the recipe has them.
 *
 * @throws RangeError with one sentence when a picture that it uses is not on the shelf.
 */
export async function layingOf(recipe: Recipe, { photo }: Pick<Piece, 'photo'>): Promise<{ edit: Edit; coats: readonly Coat[] }> {
  const coats = await coatsWithPictures(recipe);
  const finding = goesAround(recipe) ? await (await getEngine()).guards.find(photo).catch(() => null) : null;
  return { edit: layRecipe(recipe, coats, finding), coats };
}

/** Lays a recipe on the open piece: its coats above what is there, and its readying. One step of undo. @throws RangeError with one sentence. */
export async function openRecipe(text: string): Promise<number> {
  const recipe = parseRecipe(text);
  const { piece } = useBench.getState();
  if (!piece) return 0;
  const { edit, coats } = await layingOf(recipe, piece);
  useBench.getState().change(words.looks.look(recipe.name), edit);
  return coats.length;
}
