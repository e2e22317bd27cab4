import { strFromU8, strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { cut } from '../cut';
import { filesOf } from '../piece/pictures';
import { parseRecipe } from '../piece/recipe';
import type { Recipe } from '../piece/schema';
import { unpack } from './archive';
import { BadFile } from './inspect';
import { PICTURE } from './pack';

/** A look with the pictures that it names, by those names. */
export interface LookFile {
  recipe: Recipe;
  pictures: Map<string, Uint8Array>;
}

/** Where a look's recipe lies in its zip. */
const RECIPE = 'recipe.json';

/** A zip begins with the mark of its first file (APPNOTE 6.3.10, §4.3.7). */
export const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b && bytes[2] === 3 && bytes[3] === 4;

/** Whether a zip lists a recipe, by the names in it. */
export function holdsLook(bytes: Uint8Array): boolean {
  let holds = false;
  try {
    unzipSync(bytes, { filter: ({ name }) => ((holds ||= name === RECIPE), false) });
  } catch {
    // A damaged zip is told by whoever reads it.
  }
  return holds;
}

/** Reads a look from a recipe file, or from a zip with the recipe and its pictures. @throws BadFile, RangeError with one sentence */
export function readLook(bytes: Uint8Array, fileName: string): LookFile {
  if (!isZip(bytes)) return { recipe: parseRecipe(strFromU8(bytes)), pictures: new Map() };
  const called = `“${fileName}”`;
  const { [RECIPE]: text, ...files } = unpack(bytes, called, (name) => name === RECIPE || PICTURE.test(name));
  if (!text) throw new BadFile(`${called} holds no ${RECIPE}, so it is not a look; a pack of materials is imported on the shelf.`);
  const recipe = parseRecipe(strFromU8(text));
  const named = [...new Set(recipe.coats.flatMap(filesOf))];
  const missing = named.find((name) => !files[name]);
  if (missing) throw new BadFile(`${called} names a picture that is not in it (${cut(missing)}); ask its maker for a whole one.`);
  return { recipe, pictures: new Map(named.map((name) => [name, files[name]])) };
}

/** A look as the bytes of a zip. Pictures are stored as they are: they would not shrink. @throws RangeError when one is missing */
export function writeLook({ recipe, pictures }: LookFile): Uint8Array<ArrayBuffer> {
  const entries: Zippable = { [RECIPE]: [strToU8(JSON.stringify(recipe, null, 2)), { level: 6 }] };
  for (const name of new Set(recipe.coats.flatMap(filesOf))) {
    const bytes = pictures.get(name);
    if (!bytes) throw new RangeError(`The picture ${cut(name)} of the look is missing.`);
    entries[name] = [bytes, { level: 0 }];
  }
  return zipSync(entries) as Uint8Array<ArrayBuffer>;
}
