import { MAXIMUM_PAGES, PAGE } from './machine';

/**
 * First-fit allocator over addresses from 64 KiB upward, 128-byte aligned. It hands out numbers only, so that the same layout can be
 * used in one shared memory or repeated in several private ones. `grow` is called with the pages needed before an address past the
 * present end is handed out.
 */
export class Heap {
  private free: { at: number; size: number }[];
  private taken = new Map<number, number>();

  /** @param range - Where it may hand out memory: all of it when left out. */
  constructor(
    private readonly grow: (pages: number) => void = () => undefined,
    range = { at: PAGE, size: (MAXIMUM_PAGES - 1) * PAGE },
    private readonly full = 'There is not enough memory for this; close other pieces or use a smaller picture.',
  ) {
    const at = Math.ceil(range.at / 128) * 128;
    this.free = [{ at, size: range.at + range.size - at }];
  }

  /** @throws Error when its range is used up. */
  take(bytes: number): number {
    const size = Math.max(128, Math.ceil(bytes / 128) * 128);
    const i = this.free.findIndex((gap) => gap.size >= size);
    if (i < 0) throw new RangeError(this.full);
    const gap = this.free[i];
    const { at } = gap;
    this.grow(Math.ceil((at + size) / PAGE));
    gap.at += size;
    gap.size -= size;
    if (gap.size === 0) this.free.splice(i, 1);
    this.taken.set(at, size);
    return at;
  }

  give(at: number): void {
    const size = this.taken.get(at);
    if (size === undefined) return;
    this.taken.delete(at);
    let i = this.free.findIndex((gap) => gap.at > at);
    if (i < 0) i = this.free.length;
    this.free.splice(i, 0, { at, size });
    const next = this.free[i + 1];
    if (next && at + size === next.at) {
      this.free[i].size += next.size;
      this.free.splice(i + 1, 1);
    }
    const before = this.free[i - 1];
    if (before && before.at + before.size === at) {
      before.size += this.free[i].size;
      this.free.splice(i, 1);
    }
  }

  /** Bytes handed out now. */
  get used(): number {
    let sum = 0;
    for (const size of this.taken.values()) sum += size;
    return sum;
  }
}
