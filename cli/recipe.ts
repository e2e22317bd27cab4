import path from 'node:path';
import { inspect } from '../src/core/files/inspect';
import { materialById } from '../src/core/materials';
import { explain } from '../src/core/piece/explain';
import { filesOf } from '../src/core/piece/pictures';
import { parseRecipe } from '../src/core/piece/recipe';
import type { Coat, Recipe } from '../src/core/piece/schema';
import { besideRecipe, readBytes, Refused } from './files';

/**
 * Reads a recipe, and makes sure that what it names is there: `check` and `render` accept the same.
 * @returns the recipe, and where each picture lies that it names
 * @throws Refused, RangeError with one sentence
 */
export async function readRecipe(file: string): Promise<{ recipe: Recipe; pictures: Map<string, string> }> {
  const recipe = parseRecipe((await readBytes(file)).toString('utf8'));
  checkMaterials(recipe.coats, 'recipe');
  const pictures = new Map<string, string>();
  for (const named of new Set(recipe.coats.flatMap(filesOf))) {
    const picture = await besideRecipe(file, named);
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
  for (const { source } of coats) {
    if (source.kind !== 'material') continue;
    const { id, params = {} } = source as { id?: string; params?: Record<string, unknown> };
    const result = materialById(id ?? '')
      .params.strict()
      .safeParse(params);
    if (!result.success) throw new Refused(explain(result.error, `${thing} with parameters of ${id}`, params));
  }
}
