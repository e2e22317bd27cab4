import { Heap } from '../core/image/heap';
import { MAXIMUM_PAGES, Machine } from '../core/image/machine';
import { bytesOfPlan, type Plan } from '../core/render/plan';
import { CONTROL_WORDS, SCRATCH_BYTES, type Call, type FromWorker, type ToWorker } from './protocol';
import { Cancelled, Lost } from './stopping';
import { drawPrivate, drawShared, type TilePool, type TileWorker, type Listeners, type TileOptions } from './tiles';

/** A worker of a browser or a thread of Node, behind one face. */
export interface WorkerHandle {
  post(message: ToWorker, transfer?: ArrayBuffer[]): void;
  listen(onMessage: (message: FromWorker) => void, onDeath: (reason: string) => void): void;
  terminate(): void;
}

export interface PoolOptions {
  module: WebAssembly.Module;
  /** Whether memory can be shared with workers here. */
  shared: boolean;
  size: number;
  spawn(): WorkerHandle;
  /** A worker that has drawn nothing for so long is taken for dead, in ms. */
  patience?: number;
}

interface PoolWorker {
  handle: WorkerHandle;
  scratch: number;
  beat: number;
  ready: Promise<void>;
  started: boolean;
  pending: Map<number, { question: Call; heard: boolean; sent: number; resolve(value: unknown): void; reject(error: Error): void }>;
  lastBeat: number;
  /** When it was last heard of, and since when something is owed by it. */
  alive: number;
  asked: number;
  inJob: number;
}

const RING = 64;
/** Workers that may die before they start until the pool gives up. */
const STILLBORN = 4;
/** The longest that a worker may take to start, in ms. */
const LONGEST_START = 20_000;

/**
 * Workers on one shared memory, or each on its own when memory cannot be shared. Jobs of tiles run one after another; questions go to
 * whichever worker has fewest. A worker that dies is replaced, its questions asked again and its tiles drawn again.
 */
export class Pool implements TilePool {
  readonly heap: Heap;
  readonly shared: boolean;
  /** Kernels on the shared memory, for the host's own reading. Null when memory is private to each worker. */
  readonly machine: Machine | null;
  /** Workers that died before they had started, in a row. */
  private stillborn = 0;
  /** Why no workers can be started; the next call tries again. */
  private failure: Error | null = null;
  private onFailure: (error: Error) => void = () => undefined;
  /** How many private memories have been lost with their workers. */
  losses = 0;
  private memory: WebAssembly.Memory | null = null;
  private pages = 16;
  private members: PoolWorker[] = [];
  private tickets = 0;
  private jobs = 0;
  private controls: number;
  private queue: Promise<unknown> = Promise.resolve();
  private readonly watch: ReturnType<typeof setInterval>;
  /** Told to the drawing under way. */
  private listeners: Listeners = {};

  constructor(private readonly options: PoolOptions) {
    this.shared = options.shared;
    this.heap = new Heap((pages) => this.growTo(pages));
    if (this.shared) this.memory = new WebAssembly.Memory({ initial: this.pages, maximum: MAXIMUM_PAGES, shared: true });
    this.machine = this.memory ? new Machine(options.module, this.memory) : null;
    this.controls = this.heap.take(RING * CONTROL_WORDS * 4);
    for (let i = 0; i < options.size; i++) this.members.push(this.hire());
    this.watch = setInterval(() => this.buryTheDead(), 250);
    (this.watch as { unref?(): void }).unref?.();
  }

  /** Replaces workers that owe an answer and have neither said nor drawn anything for too long. */
  private buryTheDead(): void {
    const now = Date.now();
    const patience = this.options.patience ?? 4000;
    for (const m of [...this.members]) {
      const beat = this.machine ? Atomics.load(new Int32Array(this.machine.memory.buffer, m.beat, 1), 0) : 0;
      if (beat !== m.lastBeat) [m.lastBeat, m.alive] = [beat, now];
      const questions = [...m.pending.values()];
      const busy = questions.some((q) => q.heard && now - q.sent < 30_000);
      const owes = m.inJob !== 0 || questions.length > 0;
      // One that is slow to start, as on a busy machine, would be as slow the next time: each is given longer than the one before.
      const most = m.started ? patience : Math.min(Math.max(patience, LONGEST_START), patience * 2 ** (this.stillborn + 1));
      if (owes && !busy && now - Math.max(m.alive, m.asked) > most) this.replace(m);
    }
  }

  owe(hand: TileWorker): void {
    const member = this.members.find((m) => m === hand);
    if (member && member.inJob === 0 && member.pending.size === 0) member.asked = Date.now();
  }

  get hands(): readonly TileWorker[] {
    return this.members;
  }

  begin(): { id: number; control: number } {
    const id = ++this.jobs;
    return { id, control: this.controls + (id % RING) * CONTROL_WORDS * 4 };
  }

  listen(listeners: Listeners): void {
    this.listeners = listeners;
  }

  get size(): number {
    return this.members.length;
  }

  private growTo(pages: number): void {
    if (pages <= this.pages) return;
    // Grown generously: every growth makes all views anew.
    const target = Math.min(MAXIMUM_PAGES, Math.max(pages, this.pages + 256));
    if (this.memory) this.memory.grow(target - this.pages);
    else for (const m of this.members) m.handle.post({ kind: 'grow', pages: target });
    this.pages = target;
  }

  private hire(place?: { scratch: number; beat: number }): PoolWorker {
    const scratch = place?.scratch ?? this.heap.take(SCRATCH_BYTES);
    const beat = place?.beat ?? this.heap.take(128);
    const handle = this.options.spawn();
    const member: PoolWorker = {
      handle,
      scratch,
      beat,
      ready: Promise.resolve(),
      started: false,
      pending: new Map(),
      lastBeat: 0,
      alive: Date.now(),
      asked: Date.now(),
      inJob: 0,
    };
    member.ready = new Promise((resolve) => {
      handle.listen(
        (message) => {
          if (message.kind !== 'ready') return this.hear(member, message);
          member.started = true;
          this.stillborn = 0;
          resolve();
        },
        (reason) => this.replace(member, reason),
      );
    });
    try {
      handle.post({ kind: 'start', module: this.options.module, memory: this.memory, pages: this.pages, scratch, scratchBytes: SCRATCH_BYTES, beat });
    } catch (error) {
      // Some browsers cannot post shared memory.
      handle.terminate();
      throw error;
    }
    return member;
  }

  private replace(member: PoolWorker, reason = 'no answer'): void {
    const i = this.members.indexOf(member);
    if (i < 0) return;
    member.handle.terminate();
    // Workers that never start would be replaced for ever.
    if (!member.started && ++this.stillborn > STILLBORN) return this.giveUp(reason);
    const next = this.hire(member);
    this.members[i] = next;
    for (const [ticket, pending] of member.pending) {
      if (!this.shared) {
        pending.reject(new Lost());
        continue;
      }
      next.pending.set(ticket, { ...pending, heard: false, sent: Date.now() });
      next.handle.post({ kind: 'call', ticket, question: pending.question });
    }
    if (!this.shared) this.losses++;
    this.listeners.onLost?.();
    this.listeners.onLeft?.();
  }

  /** Rejects all that is owed: a drawing or a question must not wait for workers that never come. */
  private giveUp(reason: string): void {
    const error = new Error(`The workers that draw cannot be started (${reason}); your work is kept, reload the page to go on.`);
    this.failure = error;
    for (const member of this.members) {
      for (const { reject } of member.pending.values()) reject(error);
      member.pending.clear();
      member.inJob = 0;
    }
    this.listeners.onFailed?.(error.message);
    this.onFailure(error);
  }

  /** After giving up, the next call or drawing starts new workers in place of those that never came. */
  private revive(): void {
    if (!this.failure) return;
    this.failure = null;
    this.stillborn = 0;
    this.members = this.members.map((member) => (member.started ? member : (member.handle.terminate(), this.hire(member))));
  }

  /** Ends a worker as a crash would; used to test that nothing is lost by it. */
  kill(index: number): void {
    this.members[index]?.handle.terminate();
  }

  close(): void {
    clearInterval(this.watch);
    for (const m of this.members) m.handle.terminate();
    this.members = [];
  }

  private hear(member: PoolWorker, message: FromWorker): void {
    member.alive = Date.now();
    if (message.kind === 'heard') {
      const pending = member.pending.get(message.ticket);
      if (pending) pending.heard = true;
    } else if (message.kind === 'answer') {
      const pending = member.pending.get(message.ticket);
      member.pending.delete(message.ticket);
      if (message.error !== undefined) pending?.reject(new Error(message.error));
      else pending?.resolve(message.value);
    } else if (message.kind === 'left') {
      if (message.job === member.inJob) member.inJob = 0;
      this.listeners.onLeft?.();
    } else if (message.kind === 'failed') {
      if (message.job === this.jobs) this.listeners.onFailed?.(message.message);
    } else if (message.kind === 'tile' && message.job === this.jobs) this.listeners.onTile?.(message.index, message.pixels, member);
  }

  /** Asks one worker, by default the least busy. With private memories, writes are then repeated by the caller. */
  call<T>(question: Call, worker?: number): Promise<T> {
    this.revive();
    const member = worker === undefined ? [...this.members].sort((a, b) => a.pending.size - b.pending.size)[0] : this.members[worker];
    return new Promise<T>((resolve, reject) => {
      const ticket = ++this.tickets;
      this.owe(member);
      member.pending.set(ticket, { question, heard: false, sent: Date.now(), resolve: resolve as (value: unknown) => void, reject });
      member.handle.post({ kind: 'call', ticket, question });
    });
  }

  /** Writes bytes where every worker can read them. */
  write(at: number, bytes: Uint8Array): void {
    if (this.machine) this.machine.bytes.set(bytes, at);
    else for (const m of this.members) m.handle.post({ kind: 'write', at, bytes });
  }

  /** Asks one worker, or every one when each has its own memory; the first answer stands for all. */
  async everywhere<T>(question: Call): Promise<T> {
    if (this.shared) return this.call<T>(question);
    const [answer] = await Promise.all(Array.from({ length: this.size }, (_, i) => this.call<T>(question, i)));
    return answer;
  }

  /**
   * Draws all tiles of a plan once all before it are done. `target` says where the picture goes in shared memory; with private memories it
   * arrives as an array of its own. `use` gets the pixels before the next drawing may overwrite them. Rejects with Cancelled as soon as
   * every worker has let go.
   */
  async draw<T>(
    plan: Plan,
    target: () => number,
    use: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>,
    options: TileOptions = {},
  ): Promise<T> {
    const turn = this.queue.then(async () => {
      if (options.signal?.aborted) throw new Cancelled();
      this.revive();
      if (!this.machine) return use(await drawPrivate(this, plan, options), 0);
      const at = target();
      await drawShared(this, this.machine, plan, at, options);
      return use(this.machine.bytes.subarray(at, at + plan.region.width * plan.region.height * bytesOfPlan(plan)), at);
    });
    this.queue = turn.catch(() => undefined);
    return turn;
  }

  /** Resolves when every worker has started. @throws Error when they cannot be. */
  async ready(): Promise<void> {
    const failure = new Promise<never>((_resolve, reject) => (this.onFailure = reject));
    if (this.failure) throw this.failure;
    await Promise.race([Promise.all(this.members.map((m) => m.ready)), failure]);
  }
}
