import { LRUCache } from 'lru-cache';
import type { Heap } from '../core/image/heap';

interface Entry<V> {
  at: number;
  bytes: number;
  value: V;
  /** Drawings under way that use it. */
  users: number;
  /** It has been dropped; its memory is given back when nobody uses it any more. */
  isDropped: boolean;
}

export interface MemoryCacheOptions {
  /** Most bytes kept. */
  maxBytes?: number;
  /** Most entries kept. */
  max?: number;
  /** Entries that stay even when they take more bytes than allowed. */
  least?: number;
}

/**
 * Values that lie in kernel memory, by key. The least recently used make way for new ones and give their memory back to the heap; one that a drawing
 * uses gives it back only when the drawing is done.
 */
export class MemoryCache<V> {
  private readonly entries: LRUCache<string, Entry<V>>;
  private bytes = 0;

  constructor(
    private readonly heap: Heap,
    private readonly options: MemoryCacheOptions,
  ) {
    this.entries = new LRUCache({
      max: options.max ?? 10_000,
      dispose: (entry) => {
        this.bytes -= entry.bytes;
        entry.isDropped = true;
        if (entry.users === 0) heap.give(entry.at);
      },
    });
  }

  has(key: string): boolean {
    return this.entries.has(key);
  }

  get(key: string): V | undefined {
    return this.entries.get(key)?.value;
  }

  /** @throws Error when nothing is kept under the key. */
  addressOf(key: string): number {
    const entry = this.entries.peek(key);
    if (!entry) throw new Error(`Nothing is kept under "${key}".`);
    return entry.at;
  }

  /** Entries whose keys begin with a text, the last used first. */
  entriesOf(prefix: string): { key: string; bytes: number }[] {
    return [...this.entries.entries()].filter(([key]) => key.startsWith(prefix)).map(([key, { bytes }]) => ({ key, bytes }));
  }

  /** Makes room for so many bytes by dropping what has not been used for longest. */
  makeRoom(bytes: number): void {
    const { maxBytes = Infinity, least = 0 } = this.options;
    while (this.bytes + bytes > maxBytes && this.entries.size > least) this.entries.pop();
  }

  /** Keeps a value whose memory, taken from the heap, begins at an address. */
  put(key: string, at: number, bytes: number, value: V): V {
    this.bytes += bytes;
    this.entries.set(key, { at, bytes, value, users: 0, isDropped: false });
    return value;
  }

  /** Keeps a value from being overwritten until the returned function is called. */
  use(key: string): () => void {
    const entry = this.entries.get(key);
    if (!entry) return () => undefined;
    entry.users++;
    return () => {
      if (--entry.users === 0 && entry.isDropped) this.heap.give(entry.at);
    };
  }

  drop(key: string): void {
    this.entries.delete(key);
  }

  clear(): void {
    this.entries.clear();
  }
}
