import { Heap } from '../core/image/heap';
import { PAGE } from '../core/image/machine';
import type { Plan } from '../core/render/plan';
import { testMachine } from '@/testing/machine';
import { ACTIVE, CANCELLED, CONTROL_WORDS, DONE, DRAWN, FREE, NEXT, TAKEN, type TileJob, type ToWorker } from './protocol';
import { Cancelled, Lost } from './stopping';
import { drawPrivate, drawShared, type TilePool, type TileWorker, type Listeners } from './tiles';

const machine = testMachine(4);
const plan = { region: { x: 0, y: 0, width: 40, height: 20 }, tile: 10 } as unknown as Plan;
const TILES = 8;

/** Workers played by the test: each message they get is handed to `play`. */
function crewOf(size: number, play: (message: ToWorker, hand: TileWorker) => void) {
  const hands: TileWorker[] = [];
  let listeners: Listeners = {};
  let jobs = 0;
  const hire = (): TileWorker => {
    const hand: TileWorker = { inJob: 0, handle: { post: (message) => void Promise.resolve().then(() => play(message, hand)) } };
    return hand;
  };
  for (let i = 0; i < size; i++) hands.push(hire());
  const crew: TilePool = {
    heap: new Heap(() => undefined),
    hands,
    begin: () => ({ id: ++jobs, control: 2 * PAGE }),
    listen: (l) => (listeners = l),
    owe: () => undefined,
  };
  /** What the pool does with a worker that has died. */
  const replace = (hand: TileWorker) => {
    hands[hands.indexOf(hand)] = hire();
    listeners.onLost?.();
    listeners.onLeft?.();
  };
  const leave = (hand: TileWorker) => {
    hand.inJob = 0;
    listeners.onLeft?.();
  };
  return { crew, replace, leave, tell: () => listeners };
}

const wordsAt = (job: TileJob) => new Int32Array(machine.memory.buffer, job.control, CONTROL_WORDS);

/** Draws tiles until none is left, stopped, or `most` are done; marks each as a worker does. */
function work(job: TileJob, most = TILES): void {
  const words = wordsAt(job);
  for (let n = 0; n < most && words[CANCELLED] === 0; n++) {
    const index = words[NEXT]++;
    if (index >= TILES) return;
    if (machine.bytes[job.flags + index] !== FREE) continue;
    machine.bytes[job.flags + index] = DRAWN;
    words[DONE]++;
  }
}

const isJob = (m: ToWorker): m is Extract<ToWorker, { kind: 'tiles' }> => m.kind === 'tiles';

it('draws every tile once, and gives its flags back', async () => {
  const seen: TileJob[] = [];
  const { crew, leave } = crewOf(2, (m, hand) => {
    if (!isJob(m)) return;
    seen.push(m.job);
    work(m.job);
    leave(hand);
  });
  await drawShared(crew, machine, plan, 0, {});
  expect(seen).toHaveLength(2);
  expect([...machine.bytes.slice(seen[0].flags, seen[0].flags + TILES)]).toEqual(Array(TILES).fill(DRAWN));
  expect(crew.heap.take(TILES)).toBe(seen[0].flags);
});

it('stops although a worker died on its tile and stays counted as drawing', async () => {
  const stop = new AbortController();
  let died: TileWorker | undefined;
  const { crew, leave, replace } = crewOf(2, (m, hand) => {
    if (!isJob(m)) return;
    if (died) return leave(hand);
    died = hand;
    wordsAt(m.job)[ACTIVE]++;
    machine.bytes[m.job.flags] = TAKEN;
    wordsAt(m.job)[NEXT]++;
    setTimeout(() => stop.abort(), 5);
    setTimeout(() => replace(hand), 20);
  });
  await expect(drawShared(crew, machine, plan, 0, { signal: stop.signal })).rejects.toBeInstanceOf(Cancelled);
});

it('draws again the tile that a dead worker had taken', async () => {
  let passes = 0;
  const { crew, leave, replace } = crewOf(1, (m, hand) => {
    if (!isJob(m)) return;
    passes++;
    if (passes > 1) {
      work(m.job);
      return leave(hand);
    }
    work(m.job, 3);
    const words = wordsAt(m.job);
    words[ACTIVE]++;
    machine.bytes[m.job.flags + words[NEXT]] = TAKEN;
    words[NEXT] = TILES;
    replace(hand);
  });
  await drawShared(crew, machine, plan, 0, {});
  expect(passes).toBe(2);
});

it('gives up when workers keep stopping, and says what a worker says', async () => {
  const stopping = crewOf(1, (m, hand) => {
    if (!isJob(m)) return;
    wordsAt(m.job)[NEXT] = TILES;
    stopping.replace(hand);
  });
  await expect(drawShared(stopping.crew, machine, plan, 0, {})).rejects.toThrow('The picture could not be drawn: its workers keep stopping.');
  const failing = crewOf(1, (m) => isJob(m) && failing.tell().onFailed?.('There is no such mode.'));
  await expect(drawShared(failing.crew, machine, plan, 0, {})).rejects.toThrow('There is no such mode.');
});

it('on private memories, puts posted tiles in their places, stops, and says when a memory is gone', async () => {
  let listening: () => Listeners = () => ({});
  const { crew, tell } = crewOf(2, (m, hand) => {
    if (m.kind === 'tile') listening().onTile?.(m.index, new Uint8Array(400).fill(m.index + 1), hand);
  });
  listening = tell;
  const done: number[] = [];
  const picture = await drawPrivate(crew, plan, { onProgress: (n) => done.push(n) });
  expect(done).toEqual([1, 2, 3, 4, 5, 6, 7, 8]);
  for (let i = 0; i < TILES; i++) {
    const [x, y] = [(i % 4) * 10, Math.floor(i / 4) * 10];
    expect([picture[(y * 40 + x) * 4], picture[((y + 9) * 40 + x + 9) * 4 + 3]]).toEqual([i + 1, i + 1]);
  }
  const silent = crewOf(2, () => undefined);
  const stop = new AbortController();
  const stopped = drawPrivate(silent.crew, plan, { signal: stop.signal });
  stop.abort();
  await expect(stopped).rejects.toBeInstanceOf(Cancelled);
  expect(silent.crew.hands.every((h) => h.inJob === 0)).toBe(true);
  const lost = drawPrivate(silent.crew, plan, {});
  silent.replace(silent.crew.hands[0]);
  await expect(lost).rejects.toBeInstanceOf(Lost);
});
