import type { FinePart, LoadedPicture } from '../core/graph/needs';
import type { Size } from '../core/image/motion';
import { levelSizes, pictureAt, pictureBytes, type Picture } from '../core/image/picture';
import type { Region } from '../core/image/tile';
import { DRAFT_WORK, type SheetCost, type SheetOrder, type Work } from '../core/materials/drafts';
import { partBytes } from '../core/materials/generate';
import { WINDOW } from '../core/materials/windows';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';
import { Cancelled } from './stopping';

/** Bytes kept of what windows take from smaller drawings of their sheets. */
const MOST_BYTES = 160 * 2 ** 20;
/** Smaller levels of a part: it is read at its own size, or a little smaller where a lay stretches it. */
const LEVELS = 2;
/** Sides of a part are multiples of this, so that its smaller levels lie on those of the sheet. */
const STEP = 4;
/** Pixels of nothing that a part has beyond the end of its sheet. */
const BEYOND = 4;

export interface SheetOptions {
  signal?: AbortSignal;
  /** Told after each window. */
  onWindow?(): void;
}

/** A window to be drawn, and where it goes. */
interface Task {
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

  constructor(private readonly pool: Pool) {
    this.coarse = new MemoryCache(pool.heap, { maxBytes: MOST_BYTES, least: 1 });
  }

  /** Parts go into memory that the host writes to as well: where each worker has its own, materials stay as they are made whole. */
  get areDrawn(): boolean {
    return this.pool.shared;
  }

  clear(): void {
    this.coarse.clear();
    this.costs.clear();
  }

  /** Draws a whole sheet to an address. */
  async whole(order: SheetOrder, { width, height }: Size, target: number, options: SheetOptions = {}): Promise<void> {
    await this.draw(windowsOf(order, { x: 0, y: 0, width, height }, target, width), options);
  }

  /**
   * Draws the part of a sheet that a drawing reads, into memory that the caller gives back. Null where nothing of the sheet is read.
   *
   * @param continues - Whether the sheet is repeated on all sides; else there is nothing beyond its end.
   */
  plan(fine: NonNullable<LoadedPicture['fine']>, read: Region, continues: boolean): Planned | null {
    const up = (n: number) => Math.ceil(n / STEP) * STEP;
    const sheet: Region = { x: 0, y: 0, width: up(fine.held.width), height: up(fine.held.height) };
    const wanted = continues ? read : overlap(read, { x: -BEYOND, y: -BEYOND, width: sheet.width + 2 * BEYOND, height: sheet.height + 2 * BEYOND });
    if (!wanted) return null;
    const x = Math.floor(wanted.x / STEP) * STEP;
    const y = Math.floor(wanted.y / STEP) * STEP;
    const region = { x, y, width: up(wanted.x + wanted.width - x), height: up(wanted.y + wanted.height - y) };
    const deep = fine.order.part === 'height';
    const bytes = pictureBytes(region.width, region.height, LEVELS, deep);
    const at = this.pool.heap.take(bytes);
    const picture = pictureAt(at, region.width, region.height, LEVELS, deep);
    const inside = continues ? region : overlap(region, sheet);
    const pixel = partBytes(fine.order.part);
    const start = inside ? at + ((inside.y - y) * region.width + inside.x - x) * pixel : at;
    return {
      part: { picture, x, y },
      tasks: inside ? windowsOf(fine.order, inside, start, region.width) : [],
      finish: async () => {
        if (inside) this.surround(picture, { ...inside, x: inside.x - x, y: inside.y - y }, pixel);
        else this.pool.machine?.bytes.fill(0, at, at + region.width * region.height * pixel);
        if (levelSizes(region.width, region.height, LEVELS).length > 1) await this.pool.call({ call: 'levels', picture });
      },
      release: () => this.pool.heap.give(at),
    };
  }

  /** Pixels outside the sheet are those at its edge, and clear. */
  private surround({ levels: [at], width, height }: Picture, inside: Region, pixel: number): void {
    const bytes = this.pool.machine?.bytes;
    if (!bytes) return;
    const [right, bottom] = [inside.x + inside.width, inside.y + inside.height];
    const place = (x: number, y: number) => at + (y * width + x) * pixel;
    const copy = (x: number, y: number, fromX: number, fromY: number) => {
      bytes.copyWithin(place(x, y), place(fromX, fromY), place(fromX, fromY) + pixel);
      bytes.fill(0, place(x, y) + (pixel * 3) / 4, place(x, y) + pixel);
    };
    for (let y = 0; y < height; y++) {
      const within = y >= inside.y && y < bottom;
      const fromY = Math.min(bottom - 1, Math.max(inside.y, y));
      for (let x = 0; x < width; x = within && x + 1 === inside.x ? right : x + 1) {
        if (within && x >= inside.x && x < right) x = right;
        if (x < width) copy(x, y, Math.min(right - 1, Math.max(inside.x, x)), fromY);
      }
    }
  }

  /** Draws windows, one on each worker at a time. @throws Cancelled when stopped. */
  async draw(tasks: Task[], { signal, onWindow }: SheetOptions = {}): Promise<void> {
    const releases: (() => void)[] = [];
    try {
      const orders = new Map(tasks.map(({ order }) => [sheetKey(order), order]));
      const ready = new Map<string, { coarse: number; work: number }>();
      for (const [key, order] of orders) {
        const cost = await this.cost(order);
        const coarse = await this.coarseOf(order, cost);
        releases.push(this.coarse.use(draftKey(order)));
        ready.set(key, { coarse, work: cost.work });
      }
      const left = [...tasks];
      const work = Math.max(0, ...[...ready.values()].map((one) => one.work));
      const lane = async () => {
        const at = this.pool.heap.take(work);
        try {
          for (let task = left.shift(); task; task = left.shift()) {
            if (signal?.aborted) throw new Cancelled();
            const { order, window, target, pitch } = task;
            const { coarse } = ready.get(sheetKey(order)) as { coarse: number };
            await this.pool.call({ call: 'window', order, window, coarse, target, pitch, work: { at, bytes: work } });
            onWindow?.();
          }
        } finally {
          this.pool.heap.give(at);
        }
      };
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
      cost = this.withWork(DRAFT_WORK, (work) => this.pool.call<SheetCost>({ call: 'sheetCost', order, work }));
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
      await this.withWork(cost.work, (work) => this.pool.call({ call: 'coarse', order, target: at, work }));
      return this.coarse.put(key, at, cost.coarse, at);
    } catch (error) {
      this.pool.heap.give(at);
      throw error;
    }
  }

  private async withWork<T>(bytes: number, ask: (work: Work) => Promise<T>): Promise<T> {
    const at = this.pool.heap.take(bytes);
    try {
      return await ask({ at, bytes });
    } finally {
      this.pool.heap.give(at);
    }
  }
}

/** A part of a sheet that has a place but is not drawn yet. */
export interface Planned {
  part: FinePart;
  tasks: Task[];
  /** Makes the part whole once its windows are drawn. */
  finish(): Promise<void>;
  release(): void;
}

/** The windows that make up a region, alike in size, and where each goes. */
function windowsOf(order: SheetOrder, { x, y, width, height }: Region, target: number, pitch: number): Task[] {
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

/** Where two regions overlap. */
function overlap(a: Region, b: Region): Region | null {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

const draftKey = ({ id, seed, params, aspect, part }: SheetOrder) => JSON.stringify([id, seed, params, aspect, part]);
export const sheetKey = (order: SheetOrder): string => `${draftKey(order)}:${order.size}`;
