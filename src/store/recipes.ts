import type { Fitting } from '../core/materials/fitting/schema';
import { asGroup } from '../core/looks/asGroup';
import { filesOf, withFiles } from '../core/piece/pictures';
import { readLook, writeLook } from '../core/files/lookFile';
import { coatsOf, goesAround, layRecipe, recipeOf, withoutPainting, type LookPlace } from '../core/piece/recipe';
import type { Edit } from '../core/piece/edits';
import type { Coat, Piece, Recipe } from '../core/piece/schema';
import { useBench } from './bench';
import { getEngine } from './engine';
import { download, endingOf, fileName } from './files';
import { newId } from './newId';
import { sourceOf, useOwn } from './own';
import { loadPicture } from './pictures';
import { listOwn } from './storage';
import { words } from './words';

/** The recipe of a piece as a file. */
export const saveRecipe = (piece: Piece, withPainting: boolean): Promise<void> => saveLook(recipeOf(withPainting ? piece : withoutPainting(piece)));

/** A look as a file: its recipe, or a zip of it with its pictures where it has some. @throws RangeError when one is not kept any more */
export async function saveLook(recipe: Recipe): Promise<void> {
  const keys = [...new Set(recipe.coats.flatMap(filesOf))];
  if (keys.length === 0)
    return download(new Blob([JSON.stringify(recipe, null, 2)], { type: 'application/json' }), `${fileName(recipe.name)}.recipe.json`);
  const { list } = useOwn.getState();
  const names = new Map<string, string>();
  const pictures = new Map<string, Uint8Array>();
  for (const key of keys) {
    const own = list.find((o) => o.key === key || o.name === key);
    const blob = await loadPicture(own?.key ?? key);
    const plain = fileName((own?.name ?? key).replace(/\.[a-z]+$/i, ''));
    let file = `${plain}.${endingOf(blob)}`;
    for (let n = 2; pictures.has(file); n++) file = `${plain}-${n}.${endingOf(blob)}`;
    names.set(key, file);
    pictures.set(file, new Uint8Array(await blob.arrayBuffer()));
  }
  const named = { ...recipe, coats: recipe.coats.map((coat) => withFiles(coat, (key) => ({ file: names.get(key) as string }))) };
  download(new Blob([writeLook({ recipe: named, pictures })], { type: 'application/zip' }), `${fileName(recipe.name)}.look.zip`);
}

/** Reads a look's file; its pictures go onto the shelf, and its recipe names them by their keys. @throws BadFile, RangeError with one sentence */
export async function readLookFile(file: File): Promise<Recipe> {
  const { recipe, pictures } = readLook(new Uint8Array(await file.arrayBuffer()), file.name);
  if (pictures.size === 0) return recipe;
  const keys = new Map<string, string>();
  for (const [name, bytes] of pictures) {
    const own = await useOwn.getState().add(new Blob([bytes as Uint8Array<ArrayBuffer>]), name);
    keys.set(name, own.key);
  }
  return { ...recipe, coats: recipe.coats.map((coat) => withFiles(coat, (name) => ({ file: keys.get(name) ?? name }))) };
}

/** Coats of a recipe, with its pictures found on the shelf. @throws RangeError with one sentence when one is not there. */
async function coatsWithPictures(recipe: Recipe): Promise<Coat[]> {
  const coats = coatsOf(recipe, newId);
  if (coats.every((coat) => filesOf(coat).length === 0)) return coats;
  const own = await listOwn();
  return coats.map((coat) =>
    withFiles(coat, (named, { source }) => {
      const { fitting } = source as { fitting?: Fitting };
      const found = own.find((o) => o.key === named || o.name === named);
      if (!found) throw new RangeError(words.recipes.theLookUsesThePicture(named));
      // Its size once it is made to fit.
      const { width, height } = source.kind === 'cutout' ? found : (sourceOf({ ...found, fitting }) as { width?: number; height?: number });
      return { file: found.key, width, height };
    }),
  );
}

/**
 * What lays a recipe on a piece. Faces and people are looked for where its masks go about them; where that fails they stay where the recipe has them.
 * Beside coats that are there already, several coats are laid as a group, so that the look keeps a strength of its own.
 *
 * @throws RangeError with one sentence when a picture that it uses is not on the shelf.
 */
export async function layingOf(
  recipe: Recipe,
  { photo, coats: own }: Pick<Piece, 'photo' | 'coats'>,
  place: LookPlace = 'top',
): Promise<{ edit: Edit; coats: readonly Coat[] }> {
  const plain = await coatsWithPictures(recipe);
  const isBeside = own.length > 0 && place !== 'instead';
  const { coats, strength } = isBeside ? asGroup(recipe, plain, newId()) : { coats: plain, strength: recipe.strength };
  const finding = goesAround(recipe) ? await (await getEngine()).guards.find(photo).catch(() => null) : null;
  return { edit: layRecipe({ ...recipe, strength }, coats, finding, place), coats };
}

/** Lays a recipe on the open piece: its coats above what is there, and its readying. One step of undo. @throws RangeError with one sentence. */
export async function openRecipe(file: File): Promise<number> {
  const recipe = await readLookFile(file);
  const { piece } = useBench.getState();
  if (!piece) return 0;
  const { edit } = await layingOf(recipe, piece);
  useBench.getState().change(words.looks.look(recipe.name), edit);
  return recipe.coats.length;
}
