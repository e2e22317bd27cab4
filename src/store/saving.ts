import type { Piece } from '../core/piece/schema';
import { useBench } from './bench';
import { StoreFull } from './database';
import { dropLeft, leave } from './leaving';
import { say } from './notices';
import { saveCardPicture, savePiece } from './records';
import { tellSaved } from './tabs';
import { historyRecord } from './history';
import { words } from './words';

// The piece on the bench is saved soon after its last change, at most 1.5 s after the first that is not saved, and again after a failure.
const SOON = 500;
const LATEST = 1500;
const AGAIN = 5000;
/** A card's picture that is not made by then is left for the next time. */
const PICTURE_LIMIT = 20_000;

let timer: ReturnType<typeof setTimeout> | undefined;
let since = 0;
let writing: Promise<void> = Promise.resolve();
/** `changed` of the piece as it is stored. */
let base: number | undefined;
/** `changed` of the piece that is being written. */
let underWay: number | undefined;
/** The last piece that was written. */
let written: Piece | null = null;
let makePicture: (() => Promise<string | null>) | null = null;

/** The bench says how to make the card's picture. */
export const provideThumbnail = (make: typeof makePicture): void => void (makePicture = make);

/** A piece has been read from the store: what is saved next is based on it. */
export function beginSaving(piece: Piece | null): void {
  clearTimeout(timer);
  timer = undefined;
  base = piece?.changed;
  written = piece;
}

export const isUnsaved = (): boolean => {
  const { piece, follows } = useBench.getState();
  return piece !== null && !follows && piece !== written;
};

/** Saves after a while; the sooner of half a second of rest and 1.5 s since the first change. */
function soon(): void {
  if (!timer) since = Date.now();
  clearTimeout(timer);
  timer = setTimeout(() => void flush(), Math.max(0, Math.min(SOON, LATEST - (Date.now() - since))));
}

/** Writes what is not saved. Writes follow one another, so that an older state never lands on a newer one. */
export function flush(withPicture = true): Promise<void> {
  clearTimeout(timer);
  timer = undefined;
  writing = writing.then(() => write(withPicture));
  return writing;
}

async function write(withPicture: boolean): Promise<void> {
  const { piece, past } = useBench.getState();
  if (!piece || !isUnsaved()) return;
  underWay = piece.changed;
  try {
    const kept = await savePiece(piece, { base, more: historyRecord(piece, past) });
    base = kept.changed;
    written = piece;
    if (kept.id !== piece.id) moveTo(piece, kept);
    useBench.setState({ saved: isUnsaved() ? 'waiting' : 'saved', trouble: null });
    if (!isUnsaved()) dropLeft(piece.id);
    tellSaved(kept);
    // A picture is made beside the saving, never before it: what draws may be stuck.
    if (withPicture && !isUnsaved()) void picture(kept.id);
  } catch (error) {
    // The bench says it under its top bar for as long as it lasts.
    useBench.setState({ saved: 'failed', trouble: { text: (error as Error).message, isFull: error instanceof StoreFull } });
    if (!timer) timer = setTimeout(() => void flush(), AGAIN);
  }
}

/** The stored piece was changed by another tab: this one goes on with its copy. */
function moveTo(piece: Piece, copy: Piece): void {
  const now = useBench.getState().piece;
  const next = now && now.id === piece.id ? { ...now, id: copy.id, name: copy.name } : copy;
  if (now === piece) written = next;
  useBench.setState({ piece: next });
  say(words.saving.wasChangedInAnotherTab(piece.name, copy.name), { lasting: true });
}

async function picture(id: string): Promise<void> {
  let limit: ReturnType<typeof setTimeout> | undefined;
  const late = new Promise<null>((resolve) => (limit = setTimeout(() => resolve(null), PICTURE_LIMIT)));
  const made = await Promise.race([makePicture?.() ?? null, late]).catch(() => null);
  clearTimeout(limit);
  if (made && useBench.getState().piece?.id === id) await saveCardPicture(id, made).catch(() => undefined);
}

/** Writes what is not saved while the page may be about to go, and leaves it for the next opening in case the writing is cut off. */
function pageMayGo(): void {
  const { piece, past } = useBench.getState();
  if (!piece || !isUnsaved()) return;
  const bases = [base, underWay].filter((changed) => changed !== undefined);
  leave(piece, bases, historyRecord(piece, past));
  void flush(false);
}

/** Tries again at once what could not be saved: something has been deleted, or the window is looked at again. */
export function retrySaving(): void {
  if (useBench.getState().saved === 'failed') void flush();
}

useBench.subscribe((now, before) => {
  if (now.piece === before.piece || !now.piece || now.piece.id !== before.piece?.id || !isUnsaved()) return;
  soon();
  if (now.saved === 'saved') useBench.setState({ saved: 'waiting' });
});

if (typeof document !== 'undefined') {
  document.addEventListener('visibilitychange', () => (document.visibilityState === 'hidden' ? pageMayGo() : retrySaving()));
  window.addEventListener('focus', retrySaving);
  window.addEventListener('pagehide', pageMayGo);
  window.addEventListener('beforeunload', (event) => {
    if (!isUnsaved()) return;
    pageMayGo();
    // A change that waits its half second is left for the next opening; only one that could not be written is worth asking about.
    if (useBench.getState().saved === 'failed') event.preventDefault();
  });
}
