import { pictureAt, pictureBytes, pixelBytes, type Picture } from '../core/image/picture';
import { fitScratch } from '../core/materials/fitting/fit';
import { fittedSize, isNeutral, trimmed, type Fitting } from '../core/materials/fitting/schema';
import { DRAFT_WORK } from '../core/materials/drafts';
import { lightingKey } from '../core/materials/sheetLight';
import { materialScratch, partBytes } from '../core/materials/generate';
import { grainSize } from '../core/measure/grain';
import { mendScratch } from '../core/ready/spots/mend';
import { spotsKey, type Spot } from '../core/ready/spots/schema';
import type { TipOrder } from '../core/strokes/tip';
import { MemoryCache } from './memoryCache';
import type { Call, MaterialRequest } from './protocol';
import type { Pool } from './pool';
import { withWork } from './work';

/** Decoded pixels, either already in kernel memory at the address that was asked for, or to be written there. */
export interface Decoded {
  width: number;
  height: number;
  /** 16 bits a channel. */
  deep?: boolean;
  /** Puts RGBA rows at the address; every worker can read them once it resolves. */
  place(at: number): Promise<void>;
}

/** Pictures that stay even when they take more than the budget: those of the last drawings. */
const LEAST = 8;
/** Fittings of one file that are always kept: as many coats of a piece may differ in them. */
const KEPT_FITTINGS = 4;
const LARGE = 250 * 2 ** 20;
/** From so many pixels on a material's working memory is worked out, not guessed. */
const LARGE_MATERIAL = 1024 * 1024;

/** Pictures in kernel memory, by key: photos, imported pictures and materials as they were made. The oldest give way. */
export class Library {
  private readonly held: MemoryCache<Picture>;
  private coming = new Map<string, Promise<Picture>>();
  private readonly mendedInPlace = new Set<string>();

  constructor(
    private readonly pool: Pool,
    /** Bytes of pictures kept before the oldest are dropped. */
    budget = 700 * 2 ** 20,
    /** Without mip levels a picture takes a quarter less; enough where nothing is drawn smaller. */
    private readonly levels = Infinity,
    /** Whether pictures are wanted without their spots only: then they are mended where they lie. */
    private readonly inPlace = false,
  ) {
    this.held = new MemoryCache(pool.heap, { maxBytes: budget, least: LEAST });
  }

  /** True while the picture with this key is being made or loaded. */
  isComing(key: string): boolean {
    return this.coming.has(key);
  }

  has(key: string): boolean {
    return this.held.has(key);
  }

  /** The picture used last of those whose keys begin so. */
  latest(prefix: string): { key: string; picture: Picture } | undefined {
    const [entry] = this.held.entriesOf(prefix);
    const picture = entry && this.held.get(entry.key);
    return picture && { key: entry.key, picture };
  }

  get(key: string): Picture | undefined {
    return this.held.get(key);
  }

  /** Loads under a key once, however often it is asked for. */
  load(key: string, decode: () => Promise<Decoded>): Promise<Picture> {
    return this.once(key, async () => {
      const decoded = await decode();
      const { width, height } = decoded;
      const { at, bytes } = this.room(width, height);
      try {
        await decoded.place(at);
        const picture = pictureAt(at, width, height, this.levels);
        if (picture.levels.length > 1) await this.pool.everywhere({ call: 'levels', picture });
        return this.keep(key, picture, at, bytes);
      } catch (error) {
        this.pool.heap.give(at);
        throw error;
      }
    });
  }

  /** A photo of 16 bits as two pictures of 8: its high bytes and its low ones. Nothing where its file has only 8 bits. */
  async halves(key: string, decode: () => Promise<Decoded>): Promise<{ high?: Picture; low?: Picture }> {
    const [high, low] = [this.get(highKey(key)), this.get(lowKey(key))];
    if (high && low) return { high, low };
    const decoded = await decode();
    const { width, height, deep = false } = decoded;
    const whole = pictureBytes(width, height, this.levels, deep);
    const from = this.pool.heap.take(whole);
    try {
      await decoded.place(from);
      if (!deep) return {};
      const picture = pictureAt(from, width, height, this.levels, true);
      if (picture.levels.length > 1) await this.pool.everywhere({ call: 'levels', picture });
      const rooms = [this.room(width, height), this.room(width, height)];
      const [first, second] = rooms.map(({ at }) => pictureAt(at, width, height, this.levels));
      await this.pool.everywhere({ call: 'split', from: picture, high: first, low: second });
      return {
        high: this.keep(highKey(key), first, rooms[0].at, rooms[0].bytes),
        low: this.keep(lowKey(key), second, rooms[1].at, rooms[1].bytes),
      };
    } finally {
      this.pool.heap.give(from);
    }
  }

  /** An imported picture as a material: with as many bits as it has, made to fit. */
  own(key: string, fitting: Fitting | undefined, decode: () => Promise<Decoded>): Promise<Picture> {
    return this.once(ownKey(key, fitting), async () => {
      const decoded = await decode();
      const { width, height, deep = false } = decoded;
      if (!fitting || isNeutral(fitting)) return this.placed(ownKey(key, fitting), decoded, (at) => decoded.place(at));
      const raw = this.pool.heap.take(width * height * pixelBytes(deep));
      const scratch = this.pool.heap.take(fitScratch(width, height));
      try {
        await decoded.place(raw);
        this.dropFittings(key);
        const part = trimmed(width, height, fitting);
        const call = (target: number) => this.pool.everywhere({ call: 'fit', raw: { at: raw, width, height, deep }, fitting, target, scratch });
        return await this.placed(ownKey(key, fitting), { ...fittedSize(width, height, fitting), deep }, async (at) => void (await call(at)), part);
      } finally {
        this.pool.heap.give(raw);
        this.pool.heap.give(scratch);
      }
    });
  }

  /** A picture that `fill` writes, kept under a key of a kind of which only `most` are kept. */
  made(
    kind: string,
    key: string,
    size: { width: number; height: number; deep?: boolean },
    fill: (picture: Picture) => Promise<void>,
    most = 24,
  ): Promise<Picture> {
    return this.once(`${kind}:${key}`, async () => {
      for (const { key: old } of this.held.entriesOf(`${kind}:`).slice(most - 1)) this.drop(old);
      return this.placed(`${kind}:${key}`, size, (at) => fill(pictureAt(at, size.width, size.height, undefined, size.deep)));
    });
  }

  /** The grain of a tip cut from a picture. */
  tip(key: string, order: TipOrder): Promise<Picture> {
    return this.made('tip', key, order.from, async (target) => void (await this.pool.everywhere({ call: 'tip', order, target })));
  }

  /** The grain of an imported picture, as it is made to fit. */
  grain(key: string, from: Picture): Promise<Picture> {
    return this.made('grain', key, grainSize(from), async (target) => void (await this.pool.everywhere({ call: 'grain', from, target })));
  }

  /** Other ways in which the same file was made to fit give way, but for those used last, when they are large. */
  private dropFittings(key: string): void {
    let total = 0;
    this.held.entriesOf(`own:${key}:`).forEach((entry, i) => {
      total += entry.bytes;
      if (i >= KEPT_FITTINGS && total > LARGE) this.drop(entry.key);
    });
  }

  /** Keeps a picture that `fill` writes; `room` is the largest it becomes on the way. */
  private async placed(
    key: string,
    { width, height, deep = false }: { width: number; height: number; deep?: boolean },
    fill: (at: number) => Promise<void>,
    room = { width, height },
  ): Promise<Picture> {
    const { at, bytes } = this.room(room.width, room.height, Infinity, deep);
    try {
      await fill(at);
      const picture = pictureAt(at, width, height, undefined, deep);
      await this.pool.everywhere({ call: 'levels', picture });
      return this.keep(key, picture, at, bytes);
    } catch (error) {
      this.pool.heap.give(at);
      throw error;
    }
  }

  material(order: MaterialRequest): Promise<Picture> {
    return this.once(materialKey(order), async () => {
      const { width, height } = order;
      const deep = order.part === 'height';
      const { at, bytes } = this.room(width, height, Infinity, deep);
      try {
        await withWork(this.pool.heap, await this.workFor(order), (work) => this.askOne({ call: 'material', order, target: at, work }));
        if (!this.pool.shared) await this.repeat(at, width * height * partBytes(order.part));
        const picture = pictureAt(at, width, height, undefined, deep);
        await this.pool.everywhere({ call: 'levels', picture });
        return this.keep(materialKey(order), picture, at, bytes);
      } catch (error) {
        this.pool.heap.give(at);
        throw error;
      }
    });
  }

  /** Bytes of working memory for a material; of a small one it is not worth asking. */
  private async workFor(order: MaterialRequest): Promise<number> {
    const { width, height } = order;
    if (width * height < LARGE_MATERIAL) return materialScratch(width, height);
    return withWork(this.pool.heap, DRAFT_WORK, (work) => this.askOne<number>({ call: 'materialCost', order, work }));
  }

  /** Asks whichever worker has least to do; of several private memories always the first, which the others repeat. */
  private askOne<T>(question: Call): Promise<T> {
    return this.pool.call<T>(question, this.pool.shared ? undefined : 0);
  }

  /** A picture without its spots: a copy, made from the nearest state that is at hand. */
  mended(key: string, picture: Picture, spots: Spot[]): Promise<Picture> {
    const name = (n: number) => `mended:${key}:${spotsKey(spots.slice(0, n))}`;
    if (this.mendedInPlace.has(name(spots.length))) return Promise.resolve(picture);
    return this.once(name(spots.length), async () => {
      let done = spots.length - 1;
      while (done > 0 && !this.has(name(done))) done--;
      const from = (done > 0 && this.get(name(done))) || picture;
      const left = done > 0 ? spots.slice(done) : spots;
      const { width, height } = picture;
      const scratch = this.pool.heap.take(mendScratch(picture, left));
      if (this.inPlace) {
        await this.pool.everywhere({ call: 'mend', from: picture, to: picture, spots: left, scratch }).finally(() => this.pool.heap.give(scratch));
        this.mendedInPlace.add(name(spots.length));
        return picture;
      }
      const { at, bytes } = this.room(width, height);
      try {
        const to = pictureAt(at, width, height, this.levels);
        await this.pool.everywhere({ call: 'mend', from, to, spots: left, scratch });
        // One state back is kept for undoing, older ones are not.
        for (const old of this.held.entriesOf(`mended:${key}:`).slice(1)) this.drop(old.key);
        return this.keep(name(spots.length), to, at, bytes);
      } catch (error) {
        this.pool.heap.give(at);
        throw error;
      } finally {
        this.pool.heap.give(scratch);
      }
    });
  }

  drop(key: string): void {
    this.held.drop(key);
  }

  /** Forgets a photo, as it is and without its spots. */
  dropPhoto(key: string): void {
    for (const prefix of [`picture:${key}`, highKey(key), lowKey(key), `mended:${key}:`])
      for (const entry of this.held.entriesOf(prefix)) this.drop(entry.key);
    for (const name of this.mendedInPlace) if (name.startsWith(`mended:${key}:`)) this.mendedInPlace.delete(name);
  }

  /** Forgets everything; what is wanted is loaded again. */
  clear(): void {
    this.held.clear();
  }

  /** Copies what worker 0 has made in its private memory to the others. */
  async repeat(at: number, bytes: number): Promise<void> {
    this.pool.write(at, await this.pool.call<Uint8Array>({ call: 'read', at, bytes }, 0));
  }

  private once(key: string, make: () => Promise<Picture>): Promise<Picture> {
    const there = this.get(key);
    if (there) return Promise.resolve(there);
    let coming = this.coming.get(key);
    if (!coming) {
      coming = make().finally(() => this.coming.delete(key));
      this.coming.set(key, coming);
    }
    return coming;
  }

  private keep(key: string, picture: Picture, at: number, bytes: number): Picture {
    return this.held.put(key, at, bytes, picture);
  }

  private room(width: number, height: number, most = this.levels, deep = false): { at: number; bytes: number } {
    const bytes = pictureBytes(width, height, most, deep);
    // What was used in the last drawings is never the oldest, so what is on screen stays.
    this.held.makeRoom(bytes);
    return { at: this.pool.heap.take(bytes), bytes };
  }
}

/** Under what the high bytes of a photo of 16 bits are kept. */
export const highKey = (key: string): string => `high:${key}`;
const lowKey = (key: string): string => `low:${key}`;
const ownKey = (key: string, fitting?: Fitting) => `own:${key}:${fitting && !isNeutral(fitting) ? JSON.stringify(fitting) : ''}`;

export function materialKey(order: MaterialRequest): string {
  return alikeKey(order) + lightingKey(order.lighting).turn;
}

/** What the keys of a material begin with that differ in how their sheets are turned under the light only. */
export function alikeKey({ id, seed, params, width, height, aspect, part = 'look', lighting }: MaterialRequest): string {
  const sorted = Object.keys(params)
    .sort()
    .map((k) => [k, params[k]]);
  return `material:${id}:${seed}:${JSON.stringify(sorted)}:${width}x${height}:${aspect?.toFixed(4) ?? ''}${part === 'look' ? '' : `:${part}`}:${lightingKey(lighting).lamp}:`;
}
