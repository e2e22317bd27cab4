import type { Piece } from '../core/piece/schema';

/** What the tabs of this browser tell each other. */
type Message = { kind: 'saved'; id: string; changed: number } | { kind: 'wanted'; id: string } | { kind: 'list' };

const channel = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('dermatex');
// Node would wait for it.
(channel as unknown as { unref?(): void } | null)?.unref?.();

type Listener = (message: Message) => void;
const listeners = new Set<Listener>();
channel?.addEventListener('message', (event: MessageEvent<Message>) => listeners.forEach((tell) => tell(event.data)));

/** Hears what other tabs say until the returned function is called. */
export function hearTabs(tell: Listener): () => void {
  listeners.add(tell);
  return () => void listeners.delete(tell);
}

export const tellSaved = ({ id, changed }: Piece): void => channel?.postMessage({ kind: 'saved', id, changed } satisfies Message);
/** The list of pieces has changed. */
export const tellList = (): void => channel?.postMessage({ kind: 'list' } satisfies Message);

let release: (() => void) | null = null;

const lockName = (id: string) => `dermatex-bench:${id}`;
const locks = () => (typeof navigator === 'undefined' ? undefined : navigator.locks);

/**
 * Takes a piece for this tab, if no other has it. One tab at a time works on a piece; the others follow.
 * @param onLost called when another tab takes it over
 * @returns true when this tab has it
 */
export function holdPiece(id: string, onLost: () => void, steal = false): Promise<boolean> {
  letGo();
  const all = locks();
  if (!all) return Promise.resolve(true);
  return new Promise((resolve, reject) => {
    let held = false;
    all
      .request(lockName(id), steal ? { steal: true } : { ifAvailable: true }, (lock) => {
        held = lock !== null;
        resolve(held);
        return held ? new Promise<void>((done) => (release = done)) : undefined;
      })
      .catch((error: Error) => (held ? onLost() : reject(error)));
  });
}

export function letGo(): void {
  release?.();
  release = null;
}

/** How long the other tab may take to write what it has, in ms. */
const POLITE = 1500;

/** Takes a piece over from the tab that has it, once that has written what it had. */
export async function takeOver(id: string, onLost: () => void): Promise<void> {
  channel?.postMessage({ kind: 'wanted', id } satisfies Message);
  const start = Date.now();
  while (Date.now() - start < POLITE) {
    if (await holdPiece(id, onLost)) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  await holdPiece(id, onLost, true);
}
