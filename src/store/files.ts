import { BadFile, inspect, type Inspected } from '../core/files/inspect';
import type { Size } from '../core/image/motion';
import type { PictureRef } from '../core/piece/schema';
import { getEngine } from './engine';
import { savePicture } from './pictures';
import { words } from './words';

export async function keyOf(bytes: ArrayBuffer): Promise<string> {
  const digest = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return [...digest].map((b) => b.toString(16).padStart(2, '0')).join('');
}

/** A picture of which a part is missing: decoders fill it with grey, so the person decides. */
export class Incomplete extends BadFile {
  constructor(name: string) {
    super(words.files.isDamagedAPartOf(name));
  }
}

/** Whether data is missing in a JPEG; false when the engine cannot tell. */
const lacks = (blob: Blob): Promise<boolean> =>
  getEngine()
    .then((engine) => engine.lacksData(blob))
    .catch(() => false);

/**
 * Looks at a picture file: its header, and that it decodes.
 * @throws Incomplete, BadFile with one sentence
 */
export async function lookAtPicture(file: Blob, name: string, isAccepted = false): Promise<{ ref: PictureRef; blob: Blob }> {
  const buffer = await file.arrayBuffer();
  const stored = inspect(new Uint8Array(buffer), name);
  const blob = new Blob([buffer], { type: stored.type });
  // All of it is looked at in a worker while the browser decodes a small rendering.
  const isWhole = isAccepted || stored.type !== 'image/jpeg' ? Promise.resolve(true) : lacks(blob).then((is) => !is);
  const size = await decodedSize(blob, stored).catch(() => {
    throw new BadFile(words.files.cannotBeDecodedItsData(name));
  });
  const key = await keyOf(buffer);
  if (!(await isWhole)) throw new Incomplete(name);
  return { ref: { key, name, ...size }, blob };
}

/**
 * Takes a picture file: looks at its header, makes sure that it decodes, keeps it.
 * @param isAccepted the person wants it although data is missing in it
 * @throws Incomplete, BadFile with one sentence; StoreFull. Nothing is kept then.
 */
export async function takePicture(file: Blob, name: string, isAccepted = false): Promise<PictureRef> {
  const { ref, blob } = await lookAtPicture(file, name, isAccepted);
  await savePicture(ref.key, blob);
  return ref;
}

/** Long side of the rendering that proves that a file can be decoded. */
const PROOF = 256;
/** Narrower pictures, long side by short, are decoded whole. */
const NARROWEST = 16;

/** The size of a picture as the browser decodes it, turned as its orientation says. @throws Error when it cannot be decoded. */
async function decodedSize(blob: Blob, { type, width, height }: Inspected): Promise<Size> {
  if (type === 'image/tiff') return (await getEngine()).sizeOf(blob);
  const short = Math.min(width, height) / Math.max(width, height);
  // Where a small rendering would not tell the sides apart, all of it is decoded.
  const isClear = width === height || (short * PROOF < PROOF - 2 && short * NARROWEST >= 1);
  const bitmap = await createImageBitmap(blob, isClear ? { resizeWidth: PROOF, resizeQuality: 'pixelated' } : {});
  const isTall = bitmap.height > bitmap.width;
  bitmap.close();
  return isTall === height > width ? { width, height } : { width: height, height: width };
}

/** Hands a file to the person. */
export function download(blob: Blob, name: string): void {
  const url = URL.createObjectURL(blob);
  const link = document.createElement('a');
  link.href = url;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 60000);
}

/** Asks for files with the system's picker. */
export function pickFiles(accept: string, multiple = false): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input');
    input.type = 'file';
    input.accept = accept;
    input.multiple = multiple;
    input.hidden = true;
    const take = (files: File[]) => {
      input.remove();
      resolve(files);
    };
    input.onchange = () => take([...(input.files ?? [])]);
    input.oncancel = () => take([]);
    // Outside the document the browser may drop the input while its dialog is open, and what is chosen never arrives.
    document.body.append(input);
    input.click();
  });
}

export const PICTURES = 'image/png,image/jpeg,image/webp,image/avif,image/tiff,.tif,.tiff,.avif';

const ENDINGS: Record<string, string> = { 'image/png': 'png', 'image/jpeg': 'jpg', 'image/webp': 'webp', 'image/avif': 'avif', 'image/tiff': 'tif' };

/** How the name of a picture's file ends. */
export const endingOf = ({ type }: { type: string }): string => ENDINGS[type] ?? 'png';

/** A name for a file: letters, digits and hyphens of the piece's name. */
export const fileName = (name: string) =>
  name
    .trim()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '') || 'piece';
