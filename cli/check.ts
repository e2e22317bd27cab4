import path from 'node:path';
import { inspect } from '../src/core/files/inspect';
import { holdsLook, isZip } from '../src/core/files/lookFile';
import { readPack } from '../src/core/files/pack';
import { explain } from '../src/core/piece/explain';
import { pieceSchema } from '../src/core/piece/schema';
import { readBytes, Refused } from './files';
import { checkMaterials, readRecipe } from './recipe';

/** Validates a recipe, a look, a piece or a material pack, and that what it names is there. */
export async function check(file: string | undefined): Promise<void> {
  if (!file) throw new Refused('check needs a file.');
  const bytes = await readBytes(file);
  if (isZip(bytes) && !holdsLook(bytes)) return checkPack(bytes, path.basename(file));
  if (isZip(bytes)) return said(file, 'look', (await readRecipe(file)).recipe.coats.length);
  const text = bytes.toString('utf8');
  let isPiece = false;
  try {
    isPiece = 'photo' in (JSON.parse(text) as object);
  } catch {
    throw new Refused(`${path.basename(file)} does not hold JSON.`);
  }
  const kind = isPiece ? 'piece' : 'recipe';
  const coats = isPiece ? readPiece(text) : (await readRecipe(file)).recipe.coats;
  said(file, kind, coats.length);
}

const said = (file: string, kind: string, coats: number) =>
  console.log(`${path.basename(file)} is a valid ${kind} with ${coats} ${coats === 1 ? 'coat' : 'coats'}.`);

function checkPack(bytes: Uint8Array, name: string): void {
  try {
    const { pack, pictures } = readPack(bytes, name);
    for (const [file, picture] of pictures) inspect(picture, file);
    console.log(`${name} is a valid pack with ${pictures.size} ${pictures.size === 1 ? 'picture' : 'pictures'} (${pack.name}).`);
  } catch (error) {
    throw new Refused((error as Error).message);
  }
}

function readPiece(text: string) {
  const data: unknown = JSON.parse(text);
  const result = pieceSchema.safeParse(data);
  if (!result.success) throw new Refused(explain(result.error, 'piece', data));
  checkMaterials(result.data.coats, 'piece');
  return result.data.coats;
}
