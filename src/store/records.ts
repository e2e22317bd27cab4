import * as z from 'zod';
import { explain } from '../core/piece/explain';
import { everyCoat } from '../core/piece/groups';
import { filesOf } from '../core/piece/pictures';
import { pieceSchema, recipeSchema, type Piece } from '../core/piece/schema';
import { allKeys, askToKeep, readText, readTexts, removeKeys, writeTexts } from './database';
import { withLock } from './locks';
import { newId } from './newId';
import { picturesAtHand, sweep } from './pictures';
import { listLooks } from './storage';
import { words } from './words';

/** What the list shows of a piece. Each card is a separate record, so that two tabs never write the same one. */
const cardSchema = z.object({
  id: z.string().min(1),
  name: z.string(),
  changed: z.number(),
  /** JPEG data URL of the piece as it stands, or the address of a sample's picture. */
  picture: z.string().nullable().default(null),
  /** When it was deleted; its piece is kept for a while and can come back. */
  deleted: z.number().optional(),
});
export type PieceCard = z.output<typeof cardSchema>;

/** What the keys of a piece's proofs begin with. */
export const proofsOf = (id: string) => `proof:${id}:`;
const pieceKey = (id: string) => `piece:${id}`;
const cardKey = (id: string) => `card:${id}`;
const idsOf = (keys: string[], prefix: string) => keys.filter((key) => key.startsWith(prefix)).map((key) => key.slice(prefix.length));

/** Data of a record; null when there is none, or it is no JSON. */
export const parsed = (text: string | null | undefined): unknown => {
  try {
    return text === null || text === undefined ? null : JSON.parse(text);
  } catch {
    return null;
  }
};

/** Deleted pieces come back for this long, in ms: 30 days. */
export const KEPT_DELETED = 30 * 24 * 3600 * 1000;

/** Cards of the pieces that are not deleted, the last changed first. */
export const listCards = async (): Promise<PieceCard[]> => (await listPieces()).cards;

/**
 * Cards of all pieces: those on the list, the last changed first, and the deleted ones, the last deleted first. What was deleted longer ago than 30 days
 * is removed for good.
 */
export async function listPieces(now = Date.now()): Promise<{ cards: PieceCard[]; deleted: PieceCard[] }> {
  const cards: PieceCard[] = [];
  const deleted: PieceCard[] = [];
  for (const card of await allCards()) {
    if (card.deleted === undefined) cards.push(card);
    else if (now - card.deleted <= KEPT_DELETED) deleted.push(card);
    else await removePiece(card.id);
  }
  return { cards, deleted: deleted.sort((a, b) => (b.deleted ?? 0) - (a.deleted ?? 0)) };
}

/** A piece whose card is missing or damaged gets one from its own record. */
async function allCards(): Promise<PieceCard[]> {
  const keys = await allKeys();
  const ids = idsOf(keys, 'piece:');
  const texts = await readTexts([...ids.map(cardKey), ...(keys.includes('cards') ? ['cards'] : [])]);
  // Older versions kept all cards in one list.
  const old = z.array(z.unknown()).safeParse(parsed(texts.cards));
  const oldCards = new Map(
    (old.success ? old.data : []).flatMap((c) => (cardSchema.safeParse(c).success ? [[cardSchema.parse(c).id, cardSchema.parse(c)]] : [])),
  );
  const cards: PieceCard[] = [];
  const mended: Record<string, string> = {};
  for (const id of ids) {
    const own = cardSchema.safeParse(parsed(texts[cardKey(id)]));
    const card = own.success ? own.data : (oldCards.get(id) ?? (await cardFromPiece(id)));
    if (!own.success) mended[cardKey(id)] = JSON.stringify(card);
    cards.push(card);
  }
  if (Object.keys(mended).length > 0) await writeTexts(mended).catch(() => undefined);
  if (keys.includes('cards')) await removeKeys(['cards']).catch(() => undefined);
  return cards.sort((a, b) => b.changed - a.changed);
}

/** A card for a piece that has none, made from what can be read of its record. */
async function cardFromPiece(id: string): Promise<PieceCard> {
  const data = (parsed(await readText(pieceKey(id))) ?? {}) as Partial<Piece>;
  const name = typeof data.name === 'string' ? data.name : words.records.aDamagedPiece;
  return { id, name, changed: typeof data.changed === 'number' ? data.changed : 0, picture: null };
}

/** The picture of a piece's card, if it has one. */
export async function cardPicture(id: string): Promise<string | null> {
  const card = cardSchema.safeParse(parsed(await readText(cardKey(id))));
  return card.success ? card.data.picture : null;
}

/** When the stored piece was changed; null when there is none. */
export async function storedChange(id: string): Promise<number | null> {
  const card = cardSchema.safeParse(parsed(await readText(cardKey(id))));
  return card.success ? card.data.changed : null;
}

/** What a piece's record is when it cannot be opened. The record itself is left as it is. */
export class Unreadable extends RangeError {}

/** @throws Unreadable when what is kept under the id is damaged, or was made by a newer version. */
export async function loadPiece(id: string): Promise<Piece | null> {
  const text = await readText(pieceKey(id));
  if (text === null) return null;
  const data = parsed(text);
  const result = pieceSchema.safeParse(data);
  if (result.success) return result.data;
  const version = (data as { dermatex?: unknown } | null)?.dermatex;
  if (typeof version === 'number' && version > 1) throw new Unreadable(words.records.thisPieceWasMadeBy);
  throw new Unreadable(words.records.recordIsDamaged(data === null ? 'it is no JSON' : explain(result.error, 'piece', data)));
}

/** The text of a piece's record as it is kept, for one that cannot be opened. */
export const rawPiece = (id: string): Promise<string | null> => readText(pieceKey(id));

export interface Saving {
  /** The new picture of its card; undefined leaves the one that is there. */
  picture?: string | null;
  /** `changed` of the record on which this state is based; undefined for a new piece. */
  base?: number;
  /** Other records that belong to the piece and are written with it, by key. */
  more?: Record<string, string>;
}

/**
 * Writes a piece, its card and what belongs to it, all or nothing.
 * @returns the piece as it is stored. Where the record is not the one that this state is based on, neither is lost: this state is stored as a copy
 */
export function savePiece(piece: Piece, { picture, base, more = {} }: Saving = {}): Promise<Piece> {
  return withLock(pieceKey(piece.id), async () => {
    const old = cardSchema.safeParse(parsed(await readText(cardKey(piece.id))));
    // The card is written with the piece, so it tells which state is stored; only without one is the whole record read.
    const storedAt = old.success ? old.data.changed : (parsed(await readText(pieceKey(piece.id))) as Partial<Piece> | null)?.changed;
    const isThere = storedAt !== undefined;
    const conflicts = base !== undefined && isThere && storedAt !== base && storedAt !== piece.changed;
    const kept = conflicts ? { ...piece, id: newId(), name: words.records.fromAnotherTab(piece.name) } : piece;
    const next: PieceCard = {
      id: kept.id,
      name: kept.name,
      changed: kept.changed,
      picture: picture !== undefined ? picture : old.success ? old.data.picture : null,
    };
    // A store that was cleared meanwhile has lost the pictures as well.
    const pictures = isThere ? {} : await picturesAtHand(picturesOf(kept));
    if (!isThere) askToKeep();
    await writeTexts({ ...pictures, ...more, [pieceKey(kept.id)]: JSON.stringify(kept), [cardKey(kept.id)]: JSON.stringify(next) });
    return kept;
  });
}

/** Gives a piece's card another picture, if the piece is still there. */
export function saveCardPicture(id: string, picture: string): Promise<void> {
  return withLock(pieceKey(id), async () => {
    const card = cardSchema.safeParse(parsed(await readText(cardKey(id))));
    if (card.success) await writeTexts({ [cardKey(id)]: JSON.stringify({ ...card.data, picture }) });
  });
}

/** Takes a piece off the list or puts it back; its record and its pictures stay as they are. */
export function markDeleted(id: string, deleted: number | undefined): Promise<void> {
  return withLock(pieceKey(id), async () => {
    const own = cardSchema.safeParse(parsed(await readText(cardKey(id))));
    const card = own.success ? own.data : await cardFromPiece(id);
    await writeTexts({ [cardKey(id)]: JSON.stringify({ ...card, deleted }) });
  });
}

/** Removes a piece for good, and pictures that no other piece or material uses. */
export async function removePiece(id: string): Promise<void> {
  const proofs = (await allKeys()).filter((key) => key.startsWith(proofsOf(id)));
  await withLock(pieceKey(id), () => removeKeys([pieceKey(id), cardKey(id), `history:${id}`, ...proofs]));
  await sweep(usedByPieces);
}

const picturesOf = (piece: Piece): string[] => [piece.photo.key, ...piece.coats.flatMap(filesOf)];

/** Keys of the pictures that all pieces use; null when one cannot be read, since it might use any. */
async function usedByPieces(): Promise<string[] | null> {
  const used: string[] = [];
  for (const id of idsOf(await allKeys(), 'piece:')) {
    const piece = await loadPiece(id).catch(() => 'unreadable' as const);
    if (piece === 'unreadable') return null;
    if (piece) used.push(...picturesOf(piece));
  }
  // A state that is kept as a proof needs its pictures too.
  for (const text of Object.values(await readTexts((await allKeys()).filter((key) => key.startsWith('proof:'))))) {
    const proof = z.object({ piece: pieceSchema }).safeParse(parsed(text));
    if (!proof.success) return null;
    used.push(...picturesOf(proof.data.piece));
  }
  // So does a look that is kept.
  for (const look of await listLooks()) {
    const kept = z.object({ recipe: recipeSchema }).safeParse(look);
    if (kept.success) used.push(...kept.data.recipe.coats.flatMap(filesOf));
  }
  return used;
}

/** Names of the pieces in which a material (by id) or a picture (by key) is laid. */
export async function usesOf(id: string): Promise<string[]> {
  const names: string[] = [];
  for (const card of await listCards()) {
    const piece = await loadPiece(card.id).catch(() => null);
    const sources = everyCoat(piece?.coats ?? []).map((c) => c.source as { id?: string; file?: string });
    if (sources.some((s) => s.id === id || s.file === id)) names.push(card.name);
  }
  return names;
}

/** Bytes that the record of each piece and its pictures take, by id; what several pieces share counts for each. */
export async function sizesOf(ids: string[]): Promise<Record<string, number>> {
  const sizes: Record<string, number> = {};
  for (const id of ids) {
    const proofs = (await allKeys()).filter((key) => key.startsWith(proofsOf(id)));
    const texts = await readTexts([pieceKey(id), cardKey(id), `history:${id}`, ...proofs]);
    const piece = await loadPiece(id).catch(() => null);
    const pictures = piece ? await readTexts([...new Set(picturesOf(piece))].map((key) => `picture:${key}`)) : {};
    sizes[id] = [...Object.values(texts), ...Object.values(pictures)].reduce((sum, text) => sum + (text?.length ?? 0), 0);
  }
  return sizes;
}

/** Bytes that pictures on the shelf take, by key. */
export async function sizesOfPictures(keys: readonly string[]): Promise<Record<string, number>> {
  const texts = await readTexts(keys.map((key) => `picture:${key}`));
  return Object.fromEntries(keys.map((key) => [key, texts[`picture:${key}`]?.length ?? 0]));
}
