import type { Heap } from '../core/image/heap';
import type { Machine } from '../core/image/machine';
import { tileRegion, tilesOf } from '../core/graph/slot';
import { bytesOfPlan, type Plan } from '../core/render/plan';
import { ACTIVE, CANCELLED, CONTROL_WORDS, DONE, DRAWN, FREE, JOB, type ToWorker } from './protocol';
import { Cancelled, Lost } from './stopping';

export interface TileOptions {
  signal?: AbortSignal;
  onProgress?(done: number, total: number): void;
}

/** A worker as the drawing of tiles sees it. */
export interface TileWorker {
  handle: { post(message: ToWorker): void };
  /** The job it is at, 0 for none. */
  inJob: number;
}

/** What a drawing under way wants to be told; at most one is. */
export interface Listeners {
  onLeft?(): void;
  onTile?(index: number, pixels: Uint8Array, hand: TileWorker): void;
  onFailed?(message: string): void;
  /** A private memory is gone with its worker. */
  onLost?(): void;
}

/** The pool as the drawing of tiles sees it. */
export interface TilePool {
  readonly heap: Heap;
  readonly hands: readonly TileWorker[];
  /** A new job: its number, and where its control words lie. */
  begin(): { id: number; control: number };
  listen(listeners: Listeners): void;
  /** Notes that something is owed by a worker from now on. */
  owe(hand: TileWorker): void;
}

/** Draws every tile of a plan into shared memory at `output`. @throws Cancelled when stopped, Error when workers fail or keep stopping. */
export async function drawShared(pool: TilePool, machine: Machine, plan: Plan, output: number, options: TileOptions): Promise<void> {
  const { count } = tilesOf(plan.region, plan.tile);
  const flags = pool.heap.take(count);
  machine.bytes.fill(FREE, flags, flags + count);
  try {
    for (let pass = 0; ; pass++) {
      const done = await onePass(pool, machine, { plan, output, flags, count }, options);
      if (options.signal?.aborted) throw new Cancelled();
      if (done) return;
      if (pass > 8) throw new Error('The picture could not be drawn: its workers keep stopping.');
      // Tiles that a dead worker had taken are free again.
      for (let i = flags; i < flags + count; i++) if (machine.bytes[i] !== DRAWN) machine.bytes[i] = FREE;
    }
  } finally {
    pool.heap.give(flags);
  }
}

interface Job {
  plan: Plan;
  output: number;
  flags: number;
  count: number;
}

/** One pass over the tiles that are still free. Resolves true when all are drawn, false when stopped or some were lost with their worker. */
function onePass(pool: TilePool, machine: Machine, { plan, output, flags, count }: Job, { signal, onProgress }: TileOptions): Promise<boolean> {
  const { id, control } = pool.begin();
  const words = () => new Int32Array(machine.memory.buffer, control, CONTROL_WORDS);
  words().fill(0);
  let before = 0;
  for (let i = 0; i < count; i++) if (machine.bytes[flags + i] === DRAWN) before++;
  Atomics.store(words(), JOB, id);
  return new Promise((resolve, reject) => {
    let settled = false;
    const finish = (result: () => void) => {
      if (settled) return;
      settled = true;
      clearInterval(timer);
      signal?.removeEventListener('abort', stop);
      pool.listen({});
      // A worker still on its way to the job finds another number and leaves.
      Atomics.store(words(), JOB, 0);
      result();
    };
    const stop = () => {
      Atomics.store(words(), CANCELLED, 1);
      check();
    };
    const check = () => {
      const w = words();
      const drawn = before + Atomics.load(w, DONE);
      const stopped = Atomics.load(w, CANCELLED) === 1;
      const nobodyDraws = Atomics.load(w, ACTIVE) === 0;
      // A worker that died on a tile stays counted among those that draw, but has left.
      const allLeft = pool.hands.every((h) => h.inJob !== id);
      if (drawn === count && nobodyDraws) finish(() => resolve(true));
      else if (stopped && (nobodyDraws || allLeft)) finish(() => resolve(false));
      // Nobody is at the job any more, be it done or every worker replaced: what is missing is given out again.
      else if (allLeft) finish(() => resolve(drawn === count));
    };
    pool.listen({
      onLeft: check,
      onFailed: (message) => {
        Atomics.store(words(), CANCELLED, 1);
        finish(() => reject(new Error(message)));
      },
    });
    const timer = setInterval(() => {
      onProgress?.(before + Atomics.load(words(), DONE), count);
      check();
    }, 100);
    signal?.addEventListener('abort', stop);
    for (const hand of pool.hands) {
      pool.owe(hand);
      hand.inJob = id;
      hand.handle.post({ kind: 'tiles', job: { id, plan, output, control, flags } });
    }
  });
}

/** Draws every tile on private memories; workers post them. @throws Cancelled when stopped, Lost when a worker died, Error when one fails. */
export function drawPrivate(pool: TilePool, plan: Plan, { signal, onProgress }: TileOptions): Promise<Uint8Array<ArrayBuffer>> {
  const { id } = pool.begin();
  const { count } = tilesOf(plan.region, plan.tile);
  const { width, height } = plan.region;
  const bytes = bytesOfPlan(plan);
  const picture = new Uint8Array(width * height * bytes);
  let next = 0;
  let done = 0;
  return new Promise((resolve, reject) => {
    const end = (result: () => void) => {
      pool.listen({});
      for (const h of pool.hands) h.inJob = 0;
      signal?.removeEventListener('abort', stop);
      result();
    };
    const stop = () => end(() => reject(new Cancelled()));
    const give = (hand: TileWorker) => {
      if (next < count) hand.handle.post({ kind: 'tile', job: id, index: next++ });
    };
    signal?.addEventListener('abort', stop);
    pool.listen({
      onFailed: (message) => end(() => reject(new Error(message))),
      onLost: () => end(() => reject(new Lost())),
      onTile: (index, pixels, hand) => {
        const tile = tileRegion(plan.region, plan.tile, index);
        const x = tile.x - plan.region.x;
        const y = tile.y - plan.region.y;
        for (let row = 0; row < tile.height; row++) {
          picture.set(pixels.subarray(row * tile.width * bytes, (row + 1) * tile.width * bytes), ((y + row) * width + x) * bytes);
        }
        done++;
        onProgress?.(done, count);
        if (done === count) end(() => resolve(picture));
        else give(hand);
      },
    });
    for (const hand of pool.hands) {
      hand.handle.post({ kind: 'tiles', job: { id, plan, output: 0, control: 0, flags: 0 } });
      pool.owe(hand);
      hand.inJob = id;
      // Two tiles on their way to each worker keep it busy while one travels back.
      give(hand);
      give(hand);
    }
  });
}
