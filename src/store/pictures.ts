import { LRUCache } from 'lru-cache';
import { fromBase64 } from '../core/guards/bytes';
import { allKeys, readText, removeKeys, writeTexts } from './database';
import { withLock } from './locks';
import { listOwn } from './storage';
import { words } from './words';

const pictureKey = (key: string) => `picture:${key}`;

/** Files of the pictures that were used last, so that a store that was cleared can be filled again. */
const atHand = new LRUCache<string, Blob>({ max: 64, maxSize: 128 * 2 ** 20, sizeCalculation: (blob) => Math.max(1, blob.size) });

/** Nobody frees pictures while a new one waits for the piece that will name it. */
const PICTURES = 'pictures';
export const whilePicturesStay = <T>(work: () => Promise<T>): Promise<T> => withLock(PICTURES, work, 'shared');

/** A file as a data URL. */
export const toBase64 = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error(words.pictures.theFileCouldNotBe));
    reader.readAsDataURL(blob);
  });

export async function savePicture(key: string, file: Blob): Promise<void> {
  atHand.set(key, file);
  if ((await allKeys()).includes(pictureKey(key))) return;
  await writeTexts({ [pictureKey(key)]: await toBase64(file) });
}

/** Holds a picture in memory only, for as long as it is worked with. */
export const holdPicture = (key: string, file: Blob): void => void atHand.set(key, file);

/** @throws RangeError when the picture is not kept any more. */
export async function loadPicture(key: string): Promise<Blob> {
  const held = atHand.get(key);
  if (held) return held;
  const data = await readText(pictureKey(key));
  if (!data) throw new RangeError(words.pictures.thePictureOfThisPiece);
  const [head, body] = [data.slice(0, data.indexOf(',')), data.slice(data.indexOf(',') + 1)];
  const blob = new Blob([fromBase64(body)], { type: /data:([^;]*)/.exec(head)?.[1] ?? '' });
  atHand.set(key, blob);
  return blob;
}

/** Records of those of the pictures whose files are still in memory. */
export async function picturesAtHand(keys: string[]): Promise<Record<string, string>> {
  const records: Record<string, string> = {};
  for (const key of keys) {
    const blob = atHand.get(key);
    if (blob) records[pictureKey(key)] = await toBase64(blob);
  }
  return records;
}

/**
 * Frees pictures and findings that nothing names.
 * @param usedByPieces keys that pieces name; null when that cannot be known, and nothing is freed
 */
export function sweep(usedByPieces: () => Promise<string[] | null>): Promise<void> {
  return withLock(PICTURES, async () => {
    const pieces = await usedByPieces();
    if (!pieces) return;
    const used = new Set([...pieces, ...(await listOwn()).map((o) => o.key)]);
    const stale = (await allKeys()).filter((key) => /^(picture|finding):/.test(key) && !used.has(key.slice(key.indexOf(':') + 1)));
    if (stale.length > 0) await removeKeys(stale);
    stale.forEach((key) => atHand.delete(key.slice(key.indexOf(':') + 1)));
  });
}
