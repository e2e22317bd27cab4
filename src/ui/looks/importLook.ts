import { pickFiles } from '@/store/files';
import { useLooks } from '@/store/looks';
import { say } from '@/store/notices';
import { readLookFile } from '@/store/recipes';
import type { Recipe } from '@/core/piece/schema';
import { words } from '../words';

/** Files that hold a look: its recipe, or a zip of it with its pictures. */
export const LOOK_FILES = '.json,.zip,application/json,application/zip';

/**
 * Asks for a look's file and keeps what is in it.
 * @param draw - Makes its picture, where there is a photo to make it on.
 */
export async function importLook(draw?: (recipe: Recipe) => Promise<string | null>): Promise<void> {
  const [file] = await pickFiles(LOOK_FILES);
  if (!file) return;
  const recipe = await readLookFile(file);
  await useLooks.getState().take(recipe, await draw?.(recipe));
  say(words.ownLooks.savedAsALook(recipe.name));
}
