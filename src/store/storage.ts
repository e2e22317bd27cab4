import { createAsyncStorage } from '@react-native-async-storage/async-storage';
import { pieceSchema, type Piece, type PictureRef } from '../core/piece/schema';
import type { Fitting } from '../core/materials/fitting/schema';
import type { FamilyId } from '../core/materials/material';
import { filesOf } from '../core/piece/pictures';
import { explain } from '../core/piece/explain';

/** IndexedDB behind AsyncStorage: pieces as JSON, pictures as base64 of the file they came from. */
const storage = createAsyncStorage('dermatex');

export interface PieceCard {
  id: string;
  name: string;
  changed: number;
  /** JPEG data URL of the piece as it stands. */
  picture: string | null;
}

export interface OwnMaterial extends PictureRef {
  added: number;
  /** What it is called on the shelf; its file's name when left out. */
  label?: string;
  family?: FamilyId;
  /** How it is made to fit; as it is when left out. */
  fitting?: Fitting;
  /** JPEG data URL of it, small. */
  thumb?: string;
  maker?: string;
  licence?: string;
}

/** What the shelf remembers: ids of materials, or keys of own ones. */
export interface ShelfMemory {
  favourites: string[];
  recent: string[];
}

/** The store took no more. Nothing that was in it has changed. */
export class StoreFull extends Error {
  constructor() {
    super('This browser’s store is full, so the last change is not saved; delete pieces you no longer need, or export this one.');
    this.name = 'StoreFull';
  }
}

async function put(entries: Record<string, string>): Promise<void> {
  try {
    await storage.setMany(entries);
  } catch (error) {
    const text = `${(error as Error)?.name} ${(error as Error)?.message} ${String((error as { cause?: unknown })?.cause ?? '')}`;
    if (/quota|full|storage/i.test(text)) throw new StoreFull();
    throw error;
  }
}

const read = async <T>(key: string, otherwise: T): Promise<T> => {
  const text = await storage.getItem(key);
  return text === null || text === undefined ? otherwise : (JSON.parse(text) as T);
};

export const listCards = () => read<PieceCard[]>('cards', []);
export const listOwn = () => read<OwnMaterial[]>('own', []);
export const readShelf = () => read<ShelfMemory>('shelf', { favourites: [], recent: [] });
export const saveShelf = (shelf: ShelfMemory) => put({ shelf: JSON.stringify(shelf) });

/** Names of the pieces in which a material (by id) or a picture (by key) is laid. */
export async function usesOf(id: string): Promise<string[]> {
  const names: string[] = [];
  for (const card of await listCards()) {
    const piece = await loadPiece(card.id).catch(() => null);
    const sources = (piece?.coats ?? []).map((c) => c.source as { id?: string; file?: string });
    if (sources.some((s) => s.id === id || s.file === id)) names.push(card.name);
  }
  return names;
}

/** Readyings kept under a name; checked by whoever reads them. */
export const listStarts = () => read<unknown[]>('starts', []);
export const saveStarts = (list: unknown[]) => put({ starts: JSON.stringify(list) });
export const saveOwn = (list: OwnMaterial[]) => put({ own: JSON.stringify(list) });

/** One write for the piece and its card, so that a tab closed half way leaves either the old state or the new. */
export async function savePiece(piece: Piece, picture: string | null): Promise<void> {
  const cards = await listCards();
  const old = cards.find((c) => c.id === piece.id);
  const card: PieceCard = { id: piece.id, name: piece.name, changed: piece.changed, picture: picture ?? old?.picture ?? null };
  const list = [card, ...cards.filter((c) => c.id !== piece.id)].sort((a, b) => b.changed - a.changed);
  await put({ [`piece:${piece.id}`]: JSON.stringify(piece), cards: JSON.stringify(list) });
}

/** @throws RangeError when what is kept under the id is no piece. */
export async function loadPiece(id: string): Promise<Piece | null> {
  const text = await storage.getItem(`piece:${id}`);
  if (text === null || text === undefined) return null;
  const data: unknown = JSON.parse(text);
  const result = pieceSchema.safeParse(data);
  if (!result.success) throw new RangeError(explain(result.error, 'piece', data));
  return result.data;
}

/** Removes a piece, and pictures that no other piece or material uses. */
export async function removePiece(id: string): Promise<void> {
  const cards = (await listCards()).filter((c) => c.id !== id);
  await storage.setMany({ cards: JSON.stringify(cards) });
  await storage.removeMany([`piece:${id}`]);
  await sweep();
}

function picturesOf(piece: Piece): string[] {
  return [piece.photo.key, ...piece.coats.flatMap(filesOf)];
}

async function sweep(): Promise<void> {
  const used = new Set((await listOwn()).map((o) => o.key));
  for (const card of await listCards()) {
    const piece = await loadPiece(card.id).catch(() => null);
    // What cannot be read might use any picture: then nothing is swept.
    if (!piece) return;
    picturesOf(piece).forEach((key) => used.add(key));
  }
  const stale = (await storage.getAllKeys()).filter((k) => /^(picture|finding):/.test(k) && !used.has(k.slice(k.indexOf(':') + 1)));
  if (stale.length > 0) await storage.removeMany(stale);
}

/** A file as a data URL. */
export const toBase64 = (blob: Blob): Promise<string> =>
  new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(String(reader.result));
    reader.onerror = () => reject(reader.error ?? new Error('The file could not be read.'));
    reader.readAsDataURL(blob);
  });

export async function savePicture(key: string, file: Blob): Promise<void> {
  if ((await storage.getItem(`picture:${key}`)) !== null) return;
  await put({ [`picture:${key}`]: await toBase64(file) });
}

/** @throws RangeError when the picture is not kept any more. */
export async function loadPicture(key: string): Promise<Blob> {
  const data = await storage.getItem(`picture:${key}`);
  if (!data) throw new RangeError('The picture of this piece is no longer in the browser’s store; open the photo again.');
  const [head, body] = [data.slice(0, data.indexOf(',')), data.slice(data.indexOf(',') + 1)];
  const bytes = Uint8Array.from(atob(body), (ch) => ch.charCodeAt(0));
  return new Blob([bytes], { type: /data:([^;]*)/.exec(head)?.[1] ?? '' });
}

/** What was found on a photo; checked by whoever reads it. */
export const loadFinding = (key: string) => read<unknown>(`finding:${key}`, null);
export const saveFinding = (key: string, finding: object) => put({ [`finding:${key}`]: JSON.stringify(finding) });

export async function space(): Promise<{ used: number; quota: number } | null> {
  const estimate = await navigator.storage?.estimate?.();
  return estimate?.usage === undefined || !estimate.quota ? null : { used: estimate.usage, quota: estimate.quota };
}
