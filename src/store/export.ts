import { captureData, tagged } from '../core/files/capture';
import { pieceSize } from '../core/ready/geometry';
import type { Piece } from '../core/piece/schema';
import type { Encoding } from '../engine/protocol';
import { Cancelled } from '../engine/stopping';
import { getEngine } from './engine';
import { download, endingOf, fileName } from './files';
import { create } from 'zustand';
import { loadPicture } from './pictures';
import { useSettings, type ExportChoice } from './settings';
import { words } from './words';

export type { Encoding };

interface ExportState {
  /** 0..1 while a picture is made. */
  progress: number | null;
  stop(): void;
}

export const useExport = create<ExportState>(() => ({ progress: null, stop: () => undefined }));

/** How a picture is written that was chosen to be exported so. */
export const encodingOf = ({ type, quality, bits }: ExportChoice): Encoding =>
  type === 'image/jpeg' || type === 'image/webp' ? { type, quality } : { type, deep: bits === '16' };

/** Size of the result for a wanted long side in pixels; never larger than the photo. */
export function sizeFor(piece: Piece, long: number): { width: number; height: number; scale: number } {
  const { width, height } = pieceSize(piece);
  const scale = Math.min(1, long / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * scale)), height: Math.max(1, Math.round(height * scale)), scale };
}

/** About how many seconds full detail adds to an export; nothing where no material is seen larger than it is made without. */
export async function detailSeconds(piece: Piece, long: number): Promise<number> {
  const engine = await getEngine();
  return engine.detailSeconds({ piece, ...sizeFor(piece, long) });
}

/** A picture that says it is in sRGB, with the photo's capture data where that is wanted. */
export async function taggedPicture(made: Blob, photo: Blob | null, size: { width: number; height: number }): Promise<Blob> {
  const type = made.type as Encoding['type'];
  const exif = photo && captureData(new Uint8Array(await photo.arrayBuffer()));
  return new Blob([tagged(new Uint8Array(await made.arrayBuffer()), type, { ...size, exif })], { type });
}

/** Makes the picture in workers. Null when it was stopped. @throws Error when another is being made. */
export async function makePicture(piece: Piece, long: number, encoding: Encoding): Promise<Blob | null> {
  if (useExport.getState().progress !== null) throw new Error(words.export.aPictureIsBeingMade);
  const stop = new AbortController();
  useExport.setState({ progress: 0, stop: () => stop.abort() });
  try {
    const engine = await getEngine();
    const onProgress = (done: number, total: number) => useExport.setState({ progress: done / total });
    const size = sizeFor(piece, long);
    const full = useSettings.getState().exportAs.detail;
    const made = await engine.export({ piece, ...size, full }, encoding, { signal: stop.signal, onProgress });
    const photo = useSettings.getState().exportAs.capture ? await loadPicture(piece.photo.key).catch(() => null) : null;
    return await taggedPicture(made, photo, size);
  } catch (error) {
    if (error instanceof Cancelled) return null;
    throw error;
  } finally {
    useExport.setState({ progress: null, stop: () => undefined });
  }
}

/** Saves the picture under a name without its ending. */
export async function savePictureFile(piece: Piece, long: number, encoding: Encoding, name: string): Promise<boolean> {
  const blob = await makePicture(piece, long, encoding);
  if (blob) download(blob, `${fileName(name)}.${endingOf(encoding)}`);
  return blob !== null;
}

/** Whether the device can hand a picture to another application. */
export const canShare = (): boolean =>
  typeof navigator !== 'undefined' && (navigator.canShare?.({ files: [new File([], 'picture.jpg', { type: 'image/jpeg' })] }) ?? false);

/** Hands the picture to another application by the system's own sheet; leaving that is no error. */
export async function sharePicture(piece: Piece, long: number, encoding: Encoding, name: string): Promise<boolean> {
  const blob = await makePicture(piece, long, encoding);
  if (!blob) return false;
  const file = new File([blob], `${fileName(name)}.${endingOf(encoding)}`, { type: encoding.type });
  try {
    await navigator.share({ files: [file], title: piece.name });
  } catch (error) {
    if ((error as Error).name === 'AbortError') return false;
    throw new Error(words.export.theDeviceDidNotShare);
  }
  return true;
}

export async function copyPicture(piece: Piece, long: number): Promise<boolean> {
  const blob = await makePicture(piece, long, { type: 'image/png' });
  if (!blob) return false;
  try {
    await navigator.clipboard.write([new ClipboardItem({ 'image/png': blob })]);
  } catch {
    throw new Error(words.export.theBrowserDidNotLet);
  }
  return true;
}
