import type { Size } from '../core/image/motion';
import type { Region } from '../core/image/tile';
import { DRAFT_WORK, type SheetCost, type SheetOrder } from '../core/materials/drafts';
import { partBytes } from '../core/materials/generate';
import { WINDOW } from '../core/materials/windows';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';
import { withWork } from './work';
import { Cancelled } from './stopping';

/** Bytes kept of what windows take from smaller drawings of their sheets. */
const MOST_BYTES = 160 * 2 ** 20;
/** Windows are multiples of so many pixels across. */
const STEP = 4;

/** Milliseconds that a million pixels of a sheet usually take. */
const USUAL = 300;

export interface SheetOptions {
  signal?: AbortSignal;
  /** Told after each window. */
  onWindow?(): void;
}

/** A window to be drawn, and where it goes. */
export interface Task {
  order: SheetOrder;
  window: Region;
  target: number;
  pitch: number;
}

/** Draws large sheets of materials in windows, several at a time. */
export class Sheets {
  private readonly coarse: MemoryCache<number>;
  private readonly costs = new Map<string, Promise<SheetCost>>();
  private readonly coming = new Map<string, Promise<number>>();
  /** Pixels drawn in windows so far, and how many ms of one worker's time they took. */
  private drawn = { pixels: 1e6, time: USUAL };

  constructor(private readonly pool: Pool) {
    this.coarse = new MemoryCache(pool.heap, { maxBytes: MOST_BYTES, least: 1 });
  }

  /** Parts go into memory that the host writes to as well: where each worker has its own, materials stay as they are made whole. */
  get areDrawn(): boolean {
    return this.pool.shared;
  }

  /** How long a pixel of a sheet takes, by those drawn so far. */
  get secondsPerPixel(): number {
    return this.drawn.time / 1000 / this.drawn.pixels / this.pool.size;
  }

  clear(): void {
    this.coarse.clear();
    this.costs.clear();
  }

  /** Draws a whole sheet to an address. */
  async whole(order: SheetOrder, { width, height }: Size, target: number, options: SheetOptions = {}): Promise<void> {
    await this.draw(windowsOf(order, { x: 0, y: 0, width, height }, target, width), options);
  }

  /** Draws windows, one on each worker at a time. @throws Cancelled when stopped. */
  async draw(tasks: Task[], { signal, onWindow }: SheetOptions = {}): Promise<void> {
    const releases: (() => void)[] = [];
    try {
      const orders = new Map(tasks.map(({ order }) => [sheetKey(order), order]));
      const ready = new Map<string, { coarse: number; work: number }>();
      for (const [key, order] of orders) {
        const cost = await this.cost(order);
        let coarse = await this.coarseOf(order, cost);
        // Another drawing may have made room by dropping it before it could be held.
        while (this.coarse.get(draftKey(order)) !== coarse) coarse = await this.coarseOf(order, cost);
        releases.push(this.coarse.use(draftKey(order)));
        ready.set(key, { coarse, work: cost.work });
      }
      const left = [...tasks];
      const work = Math.max(0, ...[...ready.values()].map((one) => one.work));
      const lane = () =>
        withWork(this.pool.heap, work, async (lent) => {
          for (let task = left.shift(); task; task = left.shift()) {
            if (signal?.aborted) throw new Cancelled();
            const { order, window, target, pitch } = task;
            const { coarse } = ready.get(sheetKey(order)) as { coarse: number };
            const begun = performance.now();
            await this.pool.call({ call: 'window', order, window, coarse, target, pitch, work: lent });
            this.drawn.time += performance.now() - begun;
            this.drawn.pixels += window.width * window.height;
            onWindow?.();
          }
        });
      const lanes = await Promise.allSettled(Array.from({ length: Math.min(this.pool.size, left.length) }, lane));
      for (const one of lanes) if (one.status === 'rejected') throw one.reason;
    } finally {
      for (const release of releases) release();
    }
  }

  private cost(order: SheetOrder): Promise<SheetCost> {
    const key = sheetKey(order);
    let cost = this.costs.get(key);
    if (!cost) {
      cost = withWork(this.pool.heap, DRAFT_WORK, (work) => this.pool.call<SheetCost>({ call: 'sheetCost', order, work }));
      this.costs.set(key, cost);
      cost.catch(() => this.costs.delete(key));
    }
    return cost;
  }

  /** Where what the windows of a sheet take from smaller drawings lies. */
  private coarseOf(order: SheetOrder, cost: SheetCost): Promise<number> {
    const key = draftKey(order);
    const there = this.coarse.get(key);
    if (there !== undefined) return Promise.resolve(there);
    let coming = this.coming.get(key);
    if (!coming) {
      coming = this.makeCoarse(key, order, cost).finally(() => this.coming.delete(key));
      this.coming.set(key, coming);
    }
    return coming;
  }

  private async makeCoarse(key: string, order: SheetOrder, cost: SheetCost): Promise<number> {
    this.coarse.makeRoom(cost.coarse);
    const at = this.pool.heap.take(cost.coarse);
    try {
      await withWork(this.pool.heap, cost.coarseWork, (work) => this.pool.call({ call: 'coarse', order, target: at, work }));
      return this.coarse.put(key, at, cost.coarse, at);
    } catch (error) {
      this.pool.heap.give(at);
      throw error;
    }
  }
}

/** The windows that make up a region, alike in size, and where each goes. */
export function windowsOf(order: SheetOrder, { x, y, width, height }: Region, target: number, pitch: number): Task[] {
  const pixel = partBytes(order.part);
  const cuts = (length: number) => {
    const count = Math.ceil(length / WINDOW);
    const step = Math.ceil(length / count / STEP) * STEP;
    return Array.from({ length: count }, (_, i) => ({ from: i * step, to: Math.min(length, (i + 1) * step) }));
  };
  return cuts(height).flatMap((row) =>
    cuts(width).map((column) => ({
      order,
      window: { x: x + column.from, y: y + row.from, width: column.to - column.from, height: row.to - row.from },
      target: target + (row.from * pitch + column.from) * pixel,
      pitch,
    })),
  );
}

const draftKey = ({ id, seed, params, aspect, part, lighting }: SheetOrder) => JSON.stringify([id, seed, params, aspect, part, lighting]);
export const sheetKey = (order: SheetOrder): string => `${draftKey(order)}:${order.size}`;
