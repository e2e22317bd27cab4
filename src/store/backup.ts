import * as z from 'zod';
import { BadFile } from '../core/files/inspect';
import { listZip, readEntry, zipSourceOf, type ZipEntry } from '../core/files/zipDirectory';
import { pieceSchema } from '../core/piece/schema';
import { allKeys, readText, writeTexts } from './database';
import { download } from './files';
import { newId } from './newId';
import { toBase64 } from './pictures';
import { savePiece } from './records';
import { roomForFiles } from './roomForFiles';
import { changeLooks, changeOwn, changeSignatures, changeStarts } from './storage';
import { words } from './words';
import { zipInto } from './zipStream';

/** Records that are lists, by what tells their entries apart. */
const LISTS = { own: 'key', looks: 'id', starts: 'id', signatures: 'id' } as const;
type ListName = keyof typeof LISTS;
const changeList: Record<ListName, (to: (list: never[]) => never[]) => Promise<unknown>> = {
  own: changeOwn as never,
  looks: changeLooks as never,
  starts: changeStarts as never,
  signatures: changeSignatures as never,
};

/** Records of one piece besides its own. */
const OF_PIECE = /^(card|history|proof):/;
const isKept = (key: string) => key in LISTS || /^(piece|picture):/.test(key) || OF_PIECE.test(key);

const MANIFEST = 'dermatex-backup.json';
const manifestSchema = z.object({ dermatex: z.literal(1), made: z.number() });
const room = roomForFiles('backup');

const nameOf = (key: string) => (key.startsWith('picture:') ? `pictures/${key.slice(8)}` : `records/${encodeURIComponent(key)}.json`);
function keyOf(name: string): string | null {
  const [, picture] = /^pictures\/([\w-]+)$/.exec(name) ?? [];
  if (picture) return `picture:${picture}`;
  const [, record] = /^records\/([\w%.-]+)\.json$/.exec(name) ?? [];
  return record ? decodeURIComponent(record) : null;
}

/** Every record and picture as a file of the backup, one after another. */
async function* filesOfBackup(): AsyncIterable<{ name: string; file: Blob }> {
  yield { name: MANIFEST, file: new Blob([JSON.stringify({ dermatex: 1, made: Date.now() })]) };
  for (const key of (await allKeys()).filter(isKept)) {
    const text = await readText(key);
    if (text === null) continue;
    yield { name: nameOf(key), file: key.startsWith('picture:') ? await (await fetch(text)).blob() : new Blob([text]) };
  }
}

/** Saves all pieces, pictures, proofs, looks and presets as one file. It is put together in the browser's own file system. */
export async function saveBackup(): Promise<void> {
  const day = new Date().toISOString().slice(0, 10);
  await zipInto(await room.stream('backup.zip'), filesOfBackup());
  const file = await room.read('backup.zip');
  if (file) download(file.slice(0, file.size, 'application/zip'), `dermatex-${day}.backup.zip`);
}

export interface Restored {
  pieces: number;
  /** Pieces that differ from those that are here, and have come back beside them. */
  copies: number;
  /** Pieces that are here already. */
  there: number;
}

/**
 * Brings back what a backup holds. Nothing that is here is replaced: a piece that differs comes back beside it under another name, and lists take what they lack.
 * @throws BadFile with one sentence; what was brought back before then stays
 */
export async function restoreBackup(file: File): Promise<Restored> {
  const called = `“${file.name}”`;
  const source = zipSourceOf(file);
  const entries = await listZip(source, called);
  const textOf = async (entry: ZipEntry) => new TextDecoder().decode(await readEntry(source, entry, called));
  const manifest = entries.find(({ name }) => name === MANIFEST);
  if (!manifest || !manifestSchema.safeParse(parsed(await textOf(manifest))).success) throw new BadFile(words.backup.isNone(file.name));
  const byKey = new Map(entries.flatMap((entry) => (keyOf(entry.name) === null ? [] : [[keyOf(entry.name) as string, entry] as const])));
  for (const [key, entry] of byKey) {
    if (!key.startsWith('picture:') || (await readText(key)) !== null) continue;
    const bytes = await readEntry(source, entry, called);
    await writeTexts({ [key]: await toBase64(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: typeOf(bytes) })) });
  }
  for (const [name, by] of Object.entries(LISTS)) {
    const entry = byKey.get(name);
    const list = entry && parsed(await textOf(entry));
    if (!Array.isArray(list)) continue;
    await changeList[name as ListName](((now: Record<string, unknown>[]) => {
      const have = new Set(now.map((one) => one[by]));
      return [...now, ...(list as Record<string, unknown>[]).filter((one) => one && !have.has(one[by]))];
    }) as never);
  }
  const restored: Restored = { pieces: 0, copies: 0, there: 0 };
  for (const [key, entry] of byKey) {
    if (!key.startsWith('piece:')) continue;
    const { data: piece } = pieceSchema.safeParse(parsed(await textOf(entry)));
    if (!piece) continue;
    const here = parsed(await readText(key)) as { changed?: number } | null;
    if (here?.changed === piece.changed) {
      restored.there++;
      continue;
    }
    const card = byKey.get(`card:${piece.id}`);
    const picture = card && (parsed(await textOf(card)) as { picture?: string | null } | null)?.picture;
    if (here) {
      await savePiece({ ...piece, id: newId(), name: words.backup.fromBackup(piece.name) }, { picture });
      restored.copies++;
      continue;
    }
    const more: Record<string, string> = {};
    for (const [other, record] of byKey)
      if (OF_PIECE.test(other) && other.split(':')[1] === piece.id && !other.startsWith('card:')) more[other] = await textOf(record);
    await savePiece(piece, { picture, more });
    restored.pieces++;
  }
  return restored;
}

function parsed(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null');
  } catch {
    return null;
  }
}

/** The kind of a picture by its first bytes; a picture is checked again before it is decoded. */
function typeOf(bytes: Uint8Array): string {
  if (bytes[0] === 0x89) return 'image/png';
  if (bytes[0] === 0xff) return 'image/jpeg';
  if (bytes[0] === 0x52) return 'image/webp';
  return bytes[0] === 0x49 || bytes[0] === 0x4d ? 'image/tiff' : 'image/avif';
}
