import * as z from 'zod';
import { pieceSchema, type Piece } from '../core/piece/schema';
import { complain } from './notices';
import { parsed, savePiece, storedChange } from './records';

// The store writes asynchronously, and a page that is closed or loaded again does not wait for it. localStorage is written at once, so what is not saved yet
// is left there and stored when the application is opened the next time.

const PREFIX = 'dermatex.left:';

const leftSchema = z.object({
  piece: pieceSchema,
  /** `changed` of the states that this one goes on from: the stored one, and one that was being written when the page went. */
  bases: z.array(z.number()),
  /** Other records that belong to the piece, by key. */
  more: z.record(z.string(), z.string()).default({}),
});

/** null where the browser refuses it. */
function localStore(): Storage | null {
  try {
    return globalThis.localStorage ?? null;
  } catch {
    return null;
  }
}

/** Leaves a piece that is not saved for the next opening, without its steps of undo where they do not fit. */
export function leave(piece: Piece, bases: number[], more: Record<string, string>): void {
  for (const records of [more, {}]) {
    try {
      localStore()?.setItem(PREFIX + piece.id, JSON.stringify({ piece, bases, more: records }));
      return;
    } catch {
      // No room for that much.
    }
  }
}

/** The piece has been saved after all. */
export const dropLeft = (id: string): void => localStore()?.removeItem(PREFIX + id);

let taken: Promise<void> | undefined;

/** Stores what an earlier page left, once for each page; says so where that fails. */
export const takeUpLeft = (): Promise<void> => (taken ??= takeUp().catch(complain));

/** Stores what an earlier page left. What cannot be stored stays for the next one. @throws StoreFull when there is no room */
export async function takeUp(): Promise<void> {
  const all = localStore();
  if (!all) return;
  const keys = Array.from({ length: all.length }, (_, i) => all.key(i) ?? '').filter((key) => key.startsWith(PREFIX));
  for (const key of keys) {
    const left = leftSchema.safeParse(parsed(all.getItem(key)));
    if (left.success) await store(left.data);
    all.removeItem(key);
  }
}

async function store({ piece, bases, more }: z.output<typeof leftSchema>): Promise<void> {
  const stored = await storedChange(piece.id);
  // Deleted for good meanwhile, or saved by another tab.
  if (stored === null || stored === piece.changed) return;
  await savePiece(piece, { base: bases.includes(stored) ? stored : bases[0], more });
}
