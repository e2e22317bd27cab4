import type { Fitting } from '../core/materials/fitting/schema';
import { withFiles } from '../core/piece/pictures';
import { coatsOf, layRecipe, parseRecipe, recipeOf } from '../core/piece/recipe';
import { pieceSize } from '../core/ready/geometry';
import type { Piece } from '../core/piece/schema';
import type { Encoding } from '../engine/protocol';
import { Cancelled } from '../engine/stopping';
import { getEngine } from './engine';
import { download, fileName } from './files';
import { useBench } from './bench';
import { newId } from './newId';
import { sourceOf, useOwn } from './own';
import * as storage from './storage';
import { create } from 'zustand';

interface ExportState {
  /** 0..1 while a picture is made. */
  progress: number | null;
  stop(): void;
}

export const useExport = create<ExportState>(() => ({ progress: null, stop: () => undefined }));

/** Size of the result for a wanted long side in pixels; never larger than the photo. */
export function sizeFor(piece: Piece, long: number): { width: number; height: number; scale: number } {
  const { width, height } = pieceSize(piece);
  const scale = Math.min(1, long / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)), scale };
}

/** Makes the picture in workers. Null when it was stopped. @throws Error when another is being made. */
export async function makePicture(piece: Piece, long: number, encoding: Encoding): Promise<Blob | null> {
  if (useExport.getState().progress !== null) throw new Error('A picture is being made already; wait for it or stop it.');
  const stop = new AbortController();
  useExport.setState({ progress: 0, stop: () => stop.abort() });
  try {
    const engine = await getEngine();
    const onProgress = (done: number, total: number) => useExport.setState({ progress: done / total });
    return await engine.export({ piece, ...sizeFor(piece, long) }, encoding, { signal: stop.signal, onProgress });
  } catch (error) {
    if (error instanceof Cancelled) return null;
    throw error;
  } finally {
    useExport.setState({ progress: null, stop: () => undefined });
  }
}

export async function savePictureFile(piece: Piece, long: number, encoding: Encoding): Promise<boolean> {
  const blob = await makePicture(piece, long, encoding);
  if (blob) download(blob, `${fileName(piece.name)}.${encoding.type === 'image/png' ? 'png' : 'jpg'}`);
  return blob !== null;
}

export async function copyPicture(piece: Piece, long: number): Promise<boolean> {
  const blob = await makePicture(piece, long, { type: 'image/png' });
  if (!blob) return false;
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
  } catch {
    throw new Error('The browser did not let Dermatex write to the clipboard; save the file instead.');
  }
  return true;
}

/** The recipe as a file; pictures it uses are named by the file they came from and must lie beside it. */
export function saveRecipe(piece: Piece): void {
  const { list } = useOwn.getState();
  const recipe = recipeOf(piece, (key) => list.find((o) => o.key === key)?.name ?? key);
  download(new Blob([JSON.stringify(recipe, null, 2)], { type: 'application/json' }), `${fileName(piece.name)}.recipe.json`);
}

/** Lays a recipe on the open piece: its coats above what is there, and its readying. One step of undo. @throws RangeError with one sentence. */
export async function openRecipe(text: string): Promise<number> {
  const recipe = parseRecipe(text);
  const own = await storage.listOwn();
  const coats = coatsOf(recipe, newId).map((coat) => {
    const { fitting } = coat.source as { fitting?: Fitting };
    return withFiles(coat, (named) => {
      const found = own.find((o) => o.key === named || o.name === named);
      if (!found) throw new RangeError(`The recipe uses the picture "${named}", which is not on your shelf; bring it in and open the recipe again.`);
      // Its size once it is made to fit.
      const { width, height } = coat.source.kind === 'cutout' ? found : (sourceOf({ ...found, fitting }) as { width?: number; height?: number });
      return { file: found.key, width, height };
    });
  });
  useBench.getState().change(`Recipe ${recipe.name}`, layRecipe(recipe, coats));
  useBench.getState().choose(coats[coats.length - 1]?.id ?? null);
  return coats.length;
}
