import type { Finding } from '../../core/guards/finding';
import { Cancelled } from '../stopping';
import { browserFind } from './browser';

const finding: Finding = { version: 1, faces: [], person: null };
/** A worker that says what the test lets it say. */
class FakeWorker {
  static made: FakeWorker[] = [];
  onmessage: ((event: { data: unknown }) => void) | null = null;
  onerror: (() => void) | null = null;
  asked = 0;
  ended = false;
  constructor() {
    FakeWorker.made.push(this);
  }
  postMessage() {
    this.asked++;
  }
  terminate() {
    this.ended = true;
  }
  say(data: unknown) {
    this.onmessage?.({ data });
  }
}
const input = async () => ({ bytes: new Uint8Array(4), width: 1, height: 1 });
const tick = () => new Promise((resolve) => setTimeout(resolve, 5));
const last = () => FakeWorker.made[FakeWorker.made.length - 1];

beforeEach(() => {
  FakeWorker.made = [];
  (globalThis as { Worker?: unknown }).Worker = FakeWorker;
});
afterAll(() => delete (globalThis as { Worker?: unknown }).Worker);

it('one worker serves one photo after another, and tells how far it is', async () => {
  const find = browserFind();
  expect(FakeWorker.made).toHaveLength(0);
  const seen: number[] = [];
  const [first, second] = [find('a', input, { onProgress: (s) => seen.push(s) }), find('b', input, {})];
  await tick();
  expect(last().asked).toBe(1);
  last().say({ share: 0.4 });
  last().say({ finding });
  expect(await first).toBe(finding);
  await tick();
  expect(last().asked).toBe(2);
  last().say({ finding });
  await second;
  expect(seen).toEqual([0.4]);
  expect(FakeWorker.made).toHaveLength(1);
});

it('an error of its own, or a file that cannot be loaded, is one sentence; the next time begins anew', async () => {
  const find = browserFind();
  const bad = find('a', input, {});
  await tick();
  last().say({ error: 'The models are damaged.' });
  await expect(bad).rejects.toThrow('The models are damaged.');
  expect(last().ended).toBe(true);
  const missing = find('a', input, {});
  await tick();
  expect(FakeWorker.made).toHaveLength(2);
  last().onerror?.();
  await expect(missing).rejects.toThrow('could not be loaded; everything else works');
  const good = find('a', input, {});
  await tick();
  last().say({ finding });
  await expect(good).resolves.toBe(finding);
});

it('stopping ends the worker, before or while it looks', async () => {
  const find = browserFind();
  const stop = new AbortController();
  const looking = find('a', input, { signal: stop.signal });
  await tick();
  stop.abort();
  await expect(looking).rejects.toBeInstanceOf(Cancelled);
  expect(last().ended).toBe(true);
  await expect(find('a', input, { signal: stop.signal })).rejects.toBeInstanceOf(Cancelled);
});
