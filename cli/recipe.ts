import { rmSync } from 'node:fs';
import { mkdtemp, writeFile } from 'node:fs/promises';
import os from 'node:os';
import path from 'node:path';
import { BadFile, inspect } from '../src/core/files/inspect';
import { isZip, readLook } from '../src/core/files/lookFile';
import { materialById } from '../src/core/materials';
import { explain } from '../src/core/piece/explain';
import { everyCoat } from '../src/core/piece/groups';
import { filesOf } from '../src/core/piece/pictures';
import { parseRecipe } from '../src/core/piece/recipe';
import type { Coat, Recipe } from '../src/core/piece/schema';
import { besideRecipe, readBytes, Refused } from './files';

function unzipped(bytes: Uint8Array, name: string) {
  try {
    return readLook(bytes, name);
  } catch (error) {
    throw error instanceof BadFile ? new Refused(error.message) : error;
  }
}

/** A look in a zip with its pictures, which are put into a folder of their own until the process ends. */
async function readZip(bytes: Uint8Array, name: string): Promise<{ recipe: Recipe; pictures: Map<string, string> }> {
  const { recipe, pictures } = unzipped(bytes, name);
  const folder = await mkdtemp(path.join(os.tmpdir(), 'dermatex-look-'));
  process.on('exit', () => rmSync(folder, { recursive: true, force: true }));
  const places = new Map<string, string>();
  for (const [i, [named, picture]] of [...pictures].entries()) {
    const place = path.join(folder, `${i}${path.extname(named)}`);
    await writeFile(place, picture);
    places.set(named, place);
  }
  return { recipe, pictures: places };
}

/**
 * Reads a recipe, or a zip of one with its pictures, and makes sure that what it names is there: `check` and `render` accept the same.
 * @returns the recipe, and where each picture lies that it names
 * @throws Refused, RangeError with one sentence
 */
export async function readRecipe(file: string): Promise<{ recipe: Recipe; pictures: Map<string, string> }> {
  const bytes = await readBytes(file);
  const zipped = isZip(bytes) ? await readZip(bytes, path.basename(file)) : null;
  const recipe = zipped?.recipe ?? parseRecipe(bytes.toString('utf8'));
  checkMaterials(recipe.coats, 'recipe');
  const pictures = new Map<string, string>();
  for (const named of new Set(recipe.coats.flatMap(filesOf))) {
    const picture = zipped?.pictures.get(named) ?? (await besideRecipe(file, named));
    try {
      inspect(await readBytes(picture), path.basename(picture));
    } catch (error) {
      throw new Refused((error as Error).message);
    }
    pictures.set(named, picture);
  }
  return { recipe, pictures };
}

/** @throws Refused when a made material is given parameters that it does not have, RangeError when there is no such material. */
export function checkMaterials(coats: readonly Pick<Coat, 'source'>[], thing: string): void {
  for (const { source } of everyCoat(coats)) {
    if (source.kind !== 'material') continue;
    const { id, params = {} } = source as { id?: string; params?: Record<string, unknown> };
    const result = materialById(id ?? '')
      .params.strict()
      .safeParse(params);
    if (!result.success) throw new Refused(explain(result.error, `${thing} with parameters of ${id}`, params));
  }
}
