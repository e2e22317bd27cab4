import { fileOfSource } from '../core/sources';
import type { Fitting } from '../core/materials/fitting/schema';
import { recipeOf, parseRecipe, coatsOf } from '../core/piece/recipe';
import { pieceSize } from '../core/ready/geometry';
import type { Piece, Recipe } from '../core/piece/schema';
import type { Encoding } from '../engine/protocol';
import { Cancelled } from '../engine/stopping';
import { getEngine } from './engine';
import { download, fileName } from './files';
import { useBench } from './bench';
import { newId } from './pieces';
import { sourceOf, useOwn } from './own';
import { changeReady } from './ready';
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

/** The piece's guards with what a recipe says of regions. */
const withGuards = (piece: Piece, { guards }: Recipe): Pick<Piece, 'guards'> =>
  guards ? { guards: piece.guards ? { ...piece.guards, regions: { ...piece.guards.regions, ...guards.regions } } : guards } : {};

/** Lays the coats of a recipe on the open piece, above what is there, with its light and colour. One step of undo. @throws RangeError with one sentence. */
export async function openRecipe(text: string): Promise<number> {
  const recipe = parseRecipe(text);
  const own = await storage.listOwn();
  const coats = coatsOf(recipe, newId).map((coat) => {
    const source = coat.source as { kind: string; file?: string; fitting?: Fitting };
    if (!fileOfSource(source)) return coat;
    const found = own.find((o) => o.key === source.file || o.name === source.file);
    if (!found)
      throw new RangeError(`The recipe uses the picture "${source.file}", which is not on your shelf; bring it in and open the recipe again.`);
    if (source.kind === 'cutout') return { ...coat, source: { ...coat.source, file: found.key, width: found.width, height: found.height } };
    return { ...coat, source: sourceOf({ ...found, fitting: source.fitting }) as typeof coat.source };
  });
  // Of its readying what another photo can use: not the frame, and not the spot that was grey.
  const { whiteBalance, tone, curves, colour, monochrome } = recipe.ready ?? {};
  const balance = whiteBalance && { ...whiteBalance, neutral: undefined, gains: undefined };
  const steps = Object.fromEntries(Object.entries({ whiteBalance: balance, tone, curves, colour, monochrome }).filter(([, v]) => v !== undefined));
  const readied = Object.keys(steps).length > 0 ? changeReady((r) => ({ ...r, ...steps })) : (piece: Piece) => piece;
  useBench
    .getState()
    .change(`Recipe ${recipe.name}`, (piece) => readied({ ...piece, ...withGuards(piece, recipe), coats: [...piece.coats, ...coats] }));
  useBench.getState().choose(coats[coats.length - 1]?.id ?? null);
  return coats.length;
}
