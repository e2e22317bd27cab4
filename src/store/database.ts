import { bytesText } from './bytes';
import { AsyncStorageError, createAsyncStorage } from '@react-native-async-storage/async-storage';
import { words } from './words';

/** The store took no more. Nothing that was in it has changed. */
export class StoreFull extends Error {
  /**
   * @param needed bytes that were to be written
   * @param free bytes that the browser still offers, null when it does not say (Chromium may name far more than it gives)
   */
  constructor(
    readonly needed: number,
    readonly free: number | null,
  ) {
    super(words.database.notEnoughRoom(bytesText(needed), free === null ? null : bytesText(free)));
    this.name = 'StoreFull';
  }
}

/** What of AsyncStorage is used. */
type Store = Pick<ReturnType<typeof createAsyncStorage>, 'getItem' | 'getMany' | 'setMany' | 'removeMany' | 'getAllKeys'>;

/**
 * AsyncStorage opens a database once for each name and keeps that connection even when the browser has closed it (site data cleared). A new name object
 * with the same text makes it open the same database again.
 */
const open = (): Store => createAsyncStorage(new String('dermatex') as string);

let store: Store = open();
/** Takes the place of the browser's store where that is refused. */
let memory: Store | null = null;
/** Something has been read or written, so the browser does let this page keep things. */
let works = false;
let onTemporary: () => void = () => undefined;

/** Called once if the browser refuses to keep anything, and what is kept lives in this page only. */
export const whenTemporary = (tell: () => void): void => void (onTemporary = tell);

/** A store in the page's memory, for a browser that refuses to keep anything. */
function memoryStore(): Store {
  const held = new Map<string, string>();
  return {
    getItem: async (key) => held.get(key) ?? null,
    getMany: async (keys) => Object.fromEntries(keys.map((key) => [key, held.get(key) ?? null])),
    setMany: async (entries) => Object.entries(entries).forEach(([key, value]) => held.set(key, value)),
    removeMany: async (keys) => keys.forEach((key) => held.delete(key)),
    getAllKeys: async () => [...held.keys()],
  };
}

/**
 * Works on the store, and tries again on a new connection where that may help.
 * @param bytes what is to be written; 0 for a reading
 * @throws StoreFull; Error with one sentence when the store cannot be used
 */
async function attempt<T>(work: (from: Store) => Promise<T>, bytes = 0): Promise<T> {
  for (let isFirst = true; ; isFirst = false) {
    try {
      const result = await work(store);
      works = true;
      return result;
    } catch (error) {
      if (!(error instanceof AsyncStorageError)) throw error;
      if (bytes > 0 && works && (await isFull(bytes, error))) throw await fullFor(bytes);
      // Another call may have found out meanwhile that the browser refuses.
      if (memory) return work(memory);
      if (isFirst) store = open();
      else if (works) throw new Error(words.database.storeUnusable(error.message));
      else {
        store = memory = memoryStore();
        onTemporary();
        return work(memory);
      }
    }
  }
}

/** AsyncStorage passes on the message of a browser's error but not its name, and Chromium's has no message when the quota is reached. */
async function isFull(bytes: number, error: AsyncStorageError): Promise<boolean> {
  if (error.type !== AsyncStorageError.Type.WebStorageError) return false;
  const free = await freeSpace();
  return error.message === '' || /quota/i.test(error.message) || (free !== null && free < bytes);
}

async function fullFor(bytes: number): Promise<StoreFull> {
  const free = await freeSpace();
  return new StoreFull(bytes, free !== null && free < bytes ? free : null);
}

async function freeSpace(): Promise<number | null> {
  const room = await space();
  return room && room.quota - room.used;
}

/** Bytes used and offered; null when the browser does not say. */
export async function space(): Promise<{ used: number; quota: number } | null> {
  const estimate = await globalThis.navigator?.storage?.estimate?.().catch(() => undefined);
  return estimate?.usage === undefined || !estimate.quota ? null : { used: estimate.usage, quota: estimate.quota };
}

let asked = false;

/** Asks the browser, once, to keep what is stored until the person deletes it. Browsers answer by themselves or ask the person. */
export function askToKeep(): void {
  if (asked) return;
  asked = true;
  const { storage } = globalThis.navigator ?? {};
  void storage?.persisted?.().then((is) => is || storage.persist?.());
}

/** Whether the browser keeps what is stored when it runs short of room; null where it does not say. */
export const isKeptForGood = async (): Promise<boolean | null> => (await globalThis.navigator?.storage?.persisted?.().catch(() => null)) ?? null;

export const readText = (key: string): Promise<string | null> => attempt((s) => s.getItem(key)).then((text) => text ?? null);

/** Texts by key; null for those that are not there. */
export const readTexts = (keys: string[]): Promise<Record<string, string | null>> =>
  keys.length === 0 ? Promise.resolve({}) : attempt((s) => s.getMany(keys));

/** Writes all entries or none. @throws StoreFull when there is no room. */
export function writeTexts(entries: Record<string, string>): Promise<void> {
  const bytes = Object.entries(entries).reduce((sum, [key, text]) => sum + key.length + text.length, 0);
  return attempt((s) => s.setMany(entries), bytes);
}

export const removeKeys = (keys: string[]): Promise<void> => attempt((s) => s.removeMany(keys));
export const allKeys = (): Promise<string[]> => attempt((s) => s.getAllKeys());
