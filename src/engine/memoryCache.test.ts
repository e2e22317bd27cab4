import { numbers } from '@/testing/machine';
import { Heap } from '../core/image/heap';
import { MemoryCache } from './memoryCache';

const SIZE = 256;
const heapOf = (blocks: number) => new Heap(undefined, { at: 65536, size: blocks * SIZE });

function filled(heap: Heap, cache: MemoryCache<string>, ...keys: string[]) {
  for (const key of keys) {
    cache.makeRoom(SIZE);
    cache.put(key, heap.take(SIZE), SIZE, `value of ${key}`);
  }
}
const keys = (cache: MemoryCache<string>, prefix = '') => cache.entriesOf(prefix).map(({ key }) => key);

describe('values in kernel memory', () => {
  it('make way for new ones, those first that were not used for longest', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, { maxBytes: 3 * SIZE });
    filled(heap, cache, 'a', 'b', 'c');
    expect(cache.get('a')).toBe('value of a');
    filled(heap, cache, 'd');
    expect(keys(cache)).toEqual(['d', 'a', 'c']);
    expect(heap.used).toBe(3 * SIZE);
  });

  it('stay when they are the last of those that must, however large', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, { maxBytes: SIZE, least: 2 });
    filled(heap, cache, 'a', 'b', 'c');
    // The third comes when two are there, of which the older one goes.
    cache.makeRoom(5 * SIZE);
    expect(keys(cache)).toEqual(['c', 'b']);
  });

  it('are counted as well as weighed', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, { max: 2 });
    filled(heap, cache, 'a', 'b', 'c');
    expect(keys(cache)).toEqual(['c', 'b']);
    expect(heap.used).toBe(2 * SIZE);
  });

  it('give their memory back only when no drawing uses them', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, { maxBytes: SIZE });
    filled(heap, cache, 'a');
    const [one, other] = [cache.use('a'), cache.use('a')];
    filled(heap, cache, 'b');
    expect(cache.has('a')).toBe(false);
    expect(heap.used).toBe(2 * SIZE);
    one();
    expect(heap.used).toBe(2 * SIZE);
    other();
    expect(heap.used).toBe(SIZE);
  });

  it('are replaced under a key, and the older memory comes back', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, {});
    filled(heap, cache, 'a', 'a');
    expect(heap.used).toBe(SIZE);
    expect(keys(cache)).toEqual(['a']);
  });

  it('are found by how their keys begin', () => {
    const heap = heapOf(10);
    const cache = new MemoryCache<string>(heap, {});
    filled(heap, cache, 'tile:1', 'sheet:1', 'tile:2');
    expect(keys(cache, 'tile:')).toEqual(['tile:2', 'tile:1']);
    expect(() => cache.addressOf('tile:3')).toThrow('Nothing is kept under "tile:3".');
    // Nothing is held of what is not there.
    cache.use('tile:3')();
    expect(heap.used).toBe(3 * SIZE);
  });
});

it.each([1, 2, 3, 4, 5])('holds as much memory as is kept or used, whatever happens (%i)', (seed) => {
  const random = numbers(seed);
  const heap = heapOf(64);
  const cache = new MemoryCache<string>(heap, { maxBytes: 12 * SIZE, least: 1 });
  const held = new Map<() => void, number>();
  for (let step = 0; step < 2000; step++) {
    const key = `k${Math.floor(random() * 20)}`;
    const what = random();
    if (what < 0.45) {
      const bytes = SIZE * (1 + Math.floor(random() * 3));
      cache.makeRoom(bytes);
      cache.put(key, heap.take(bytes), bytes, key);
    } else if (what < 0.65 && cache.has(key) && held.size < 8) {
      held.set(cache.use(key), cache.addressOf(key));
    } else if (what < 0.9 && held.size > 0) {
      const [release] = held.keys();
      held.delete(release);
      release();
    } else if (what < 0.97) cache.drop(key);
    else cache.get(key);
    // A place that a drawing reads is given to nobody else.
    const places = cache.entriesOf('').map((entry) => cache.addressOf(entry.key));
    expect(new Set(places).size).toBe(places.length);
  }
  for (const release of held.keys()) release();
  expect(heap.used).toBe(cache.entriesOf('').reduce((sum, { bytes }) => sum + bytes, 0));
  cache.clear();
  expect(heap.used).toBe(0);
});
