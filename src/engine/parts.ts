import type { FinePart, FineSheet } from '../core/graph/needs';
import { pictureAt, pictureBytes, type Picture } from '../core/image/picture';
import type { Size } from '../core/image/motion';
import type { Region } from '../core/image/tile';
import { partBytes } from '../core/materials/generate';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';
import { sheetKey, windowsOf, type Task } from './sheets';

/** Bytes of parts kept between drawings. */
const MOST_BYTES = 128 * 2 ** 20;
/** Sides of a part are multiples of this, so that its smaller levels lie on those of the sheet. */
const STEP = 4;
/** Pixels of nothing that a part has beyond the end of its sheet. */
const BEYOND = 4;

/** A part of a sheet that has a place but is not drawn yet. */
export interface Planned {
  part: FinePart;
  tasks: Task[];
  /** Makes the part whole once its windows are drawn. */
  finish(): Promise<void>;
  release(): void;
}

/** How a part is read. */
export interface PartUse {
  /** Whether the sheet is repeated on all sides; else there is nothing beyond its end. */
  continues: boolean;
  /** True to keep the part for the next drawing. */
  keeps: boolean;
  /** How many levels it has, its own size among them. */
  levels: number;
}

interface Kept {
  picture: Picture;
  region: Region;
}

/** The parts of sheets that drawings read. Some are kept, so that the next drawing of the same place draws only what is new. */
export class Parts {
  private readonly kept: MemoryCache<Kept>;

  constructor(private readonly pool: Pool) {
    this.kept = new MemoryCache(pool.heap, { maxBytes: MOST_BYTES });
  }

  clear(): void {
    this.kept.clear();
  }

  /** The part of a sheet that a drawing reads; null where nothing of the sheet is read. */
  plan(fine: FineSheet, read: Region, { continues, keeps, levels }: PartUse): Planned | null {
    const { order, held } = fine;
    const up = (n: number) => Math.ceil(n / STEP) * STEP;
    const sheet: Region = { x: 0, y: 0, width: up(held.width), height: up(held.height) };
    const wanted = continues ? read : overlap(read, grown(sheet, BEYOND));
    if (!wanted) return null;
    const [x, y] = [wanted.x, wanted.y].map((at) => Math.floor(at / STEP) * STEP);
    const region = { x, y, width: up(wanted.x + wanted.width - x), height: up(wanted.y + wanted.height - y) };
    const key = `${sheetKey(order)}|${levels}|`;
    const before = keeps ? this.best(key, region) : null;
    if (before && contains(before.region, region)) return this.again(before, held);
    const deep = order.part === 'height';
    const bytes = pictureBytes(region.width, region.height, levels, deep);
    if (keeps) this.kept.makeRoom(bytes);
    const at = this.pool.heap.take(bytes);
    const picture = pictureAt(at, region.width, region.height, levels, deep);
    const inside = continues ? region : overlap(region, sheet);
    const pixel = partBytes(order.part);
    const there = before && inside && overlap(before.region, inside);
    const tasks = (inside ? without(inside, there) : []).flatMap((rest) =>
      windowsOf(order, rest, at + ((rest.y - y) * region.width + rest.x - x) * pixel, region.width),
    );
    const releases = before ? [before.release] : [];
    let isKept = false;
    return {
      part: { picture, held, x, y },
      tasks,
      finish: async () => {
        const rows = this.pool.machine?.bytes;
        if (!rows) return;
        if (before && there) copyRows(rows, before, { picture, region }, there, pixel);
        surround(rows, { picture, region }, inside, pixel);
        await this.pool.call({ call: 'levels', picture });
        if (!keeps) return;
        isKept = true;
        const name = `${key}${x},${y},${region.width},${region.height}`;
        this.kept.put(name, at, bytes, { picture, region });
        // This drawing still reads it when another one makes room or keeps the same part.
        releases.push(this.kept.use(name));
      },
      release: () => {
        for (const release of releases) release();
        if (!isKept) this.pool.heap.give(at);
      },
    };
  }

  /** A part that is at hand, as it is. */
  private again({ picture, region, release }: Kept & { release: () => void }, held: Size): Planned {
    return { part: { picture, held, x: region.x, y: region.y }, tasks: [], finish: () => Promise.resolve(), release };
  }

  /** The part that is at hand and has most of a region in it. It stays until it is released. */
  private best(prefix: string, region: Region): (Kept & { release: () => void }) | null {
    let [found, most]: [string | null, number] = [null, 0];
    for (const { key } of this.kept.entriesOf(prefix)) {
      const shared = overlap((this.kept.get(key) as Kept).region, region);
      const area = shared ? shared.width * shared.height : 0;
      if (area > most) [found, most] = [key, area];
    }
    return found === null ? null : { ...(this.kept.get(found) as Kept), release: this.kept.use(found) };
  }
}

const grown = ({ x, y, width, height }: Region, by: number): Region => ({ x: x - by, y: y - by, width: width + 2 * by, height: height + 2 * by });

const contains = (outer: Region, inner: Region): boolean =>
  inner.x >= outer.x && inner.y >= outer.y && inner.x + inner.width <= outer.x + outer.width && inner.y + inner.height <= outer.y + outer.height;

/** Where two regions overlap. */
function overlap(a: Region, b: Region): Region | null {
  const [x, y] = [Math.max(a.x, b.x), Math.max(a.y, b.y)];
  const width = Math.min(a.x + a.width, b.x + b.width) - x;
  const height = Math.min(a.y + a.height, b.y + b.height) - y;
  return width > 0 && height > 0 ? { x, y, width, height } : null;
}

/** What is left of a region when a part of it is taken out: above, below, and at either side. */
function without(region: Region, taken: Region | null): Region[] {
  if (!taken) return [region];
  const { x, y, width, height } = region;
  const [right, bottom] = [taken.x + taken.width, taken.y + taken.height];
  return [
    { x, y, width, height: taken.y - y },
    { x, y: bottom, width, height: y + height - bottom },
    { x, y: taken.y, width: taken.x - x, height: taken.height },
    { x: right, y: taken.y, width: x + width - right, height: taken.height },
  ].filter((rest) => rest.width > 0 && rest.height > 0);
}

/** Copies the rows of `shared` from one part of a sheet to another. */
function copyRows(bytes: Uint8Array, from: Kept, to: Kept, shared: Region, pixel: number): void {
  const place = ({ picture, region }: Kept, row: number) =>
    picture.levels[0] + ((shared.y + row - region.y) * region.width + shared.x - region.x) * pixel;
  for (let row = 0; row < shared.height; row++) {
    const start = place(from, row);
    bytes.copyWithin(place(to, row), start, start + shared.width * pixel);
  }
}

/** Pixels of a part outside its sheet become those at the sheet's edge, and clear. */
function surround(bytes: Uint8Array, { picture, region }: Kept, inside: Region | null, pixel: number): void {
  const [at] = picture.levels;
  const { width, height } = region;
  if (!inside) return void bytes.fill(0, at, at + width * height * pixel);
  const [left, top] = [inside.x - region.x, inside.y - region.y];
  const [right, bottom] = [left + inside.width, top + inside.height];
  const place = (x: number, y: number) => at + (y * width + x) * pixel;
  const fill = (x: number, y: number) => {
    const from = place(Math.min(right - 1, Math.max(left, x)), Math.min(bottom - 1, Math.max(top, y)));
    bytes.copyWithin(place(x, y), from, from + pixel);
    bytes.fill(0, place(x, y) + (pixel * 3) / 4, place(x, y) + pixel);
  };
  for (let y = 0; y < height; y++) {
    const isBeside = y >= top && y < bottom;
    for (let x = 0; x < (isBeside ? left : width); x++) fill(x, y);
    for (let x = isBeside ? right : width; x < width; x++) fill(x, y);
  }
}
