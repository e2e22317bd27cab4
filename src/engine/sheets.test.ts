import { Heap } from '../core/image/heap';
import type { SheetOrder } from '../core/materials/drafts';
import { WINDOW } from '../core/materials/windows';
import type { Pool } from './pool';
import { SCRATCH_BYTES, type Call } from './protocol';
import { Sheets, windowsOf } from './sheets';
import { Cancelled } from './stopping';

const order: SheetOrder = { id: 'paper.cold-press', seed: 1, params: {}, aspect: 1, size: 4096 };

describe('windows of a region', () => {
  it.each([
    [0, 0, 64, 64],
    [12, 40, WINDOW, WINDOW],
    [500, 8, 3000, 764],
    [4, 4, 1544, 2312],
  ])('from %i, %i over %i × %i cover it once, none larger than can be drawn', (x, y, width, height) => {
    const times = new Uint8Array(width * height);
    for (const { window } of windowsOf(order, { x, y, width, height }, 0, width)) {
      expect(Math.max(window.width, window.height)).toBeLessThanOrEqual(WINDOW);
      for (let j = 0; j < window.height; j++) for (let i = 0; i < window.width; i++) times[(window.y - y + j) * width + window.x - x + i]++;
    }
    expect(times.every((n) => n === 1)).toBe(true);
  });

  it('go to their places in rows that are a pitch apart, four bytes a pixel and eight for a height', () => {
    const region = { x: 100, y: 200, width: 1000, height: 900 };
    for (const [part, pixel] of [
      ['look', 4],
      ['height', 8],
    ] as const)
      for (const { window, target, pitch } of windowsOf({ ...order, part }, region, 5000, 1200)) {
        expect(pitch).toBe(1200);
        expect(target).toBe(5000 + ((window.y - 200) * 1200 + window.x - 100) * pixel);
      }
  });
});

/** Workers that answer after a turn, and write down what they are asked. */
function workers(work: number, answer: (question: Call) => unknown = () => undefined) {
  const asked: Call[] = [];
  const heap = new Heap(undefined, { at: 65536, size: 2 ** 30 });
  const pool = {
    heap,
    size: 2,
    shared: true,
    async call(question: Call) {
      asked.push(question);
      await new Promise((resolve) => setTimeout(resolve, 1));
      if (question.call === 'sheetCost') return { coarse: 4096, coarseWork: 2 ** 20, work };
      return answer(question);
    },
  } as unknown as Pool;
  return { sheets: new Sheets(pool), heap, asked, count: (call: Call['call']) => asked.filter((one) => one.call === call).length };
}
const tasks = (width: number, seed = 1) => windowsOf({ ...order, seed }, { x: 0, y: 0, width, height: WINDOW }, 0, width);

describe('drawing windows', () => {
  it('asks once for what all windows of a sheet need, however many drawings wait for it', async () => {
    const { sheets, count } = workers(1000);
    await Promise.all([sheets.draw(tasks(3 * WINDOW)), sheets.draw(tasks(2 * WINDOW))]);
    expect([count('sheetCost'), count('coarse'), count('window')]).toEqual([1, 1, 5]);
    await sheets.draw(tasks(WINDOW, 2));
    expect([count('sheetCost'), count('coarse'), count('window')]).toEqual([2, 2, 6]);
  });

  it('works in the memory of the workers themselves where that is enough, and gives back what it takes beyond', async () => {
    for (const [work, isOwn] of [
      [SCRATCH_BYTES, true],
      [SCRATCH_BYTES + 1, false],
    ] as const) {
      const { sheets, heap, asked } = workers(work);
      await sheets.draw(tasks(3 * WINDOW));
      const lent = asked.flatMap((one) => (one.call === 'window' ? [one.work] : []));
      expect(lent.map((one) => one === null)).toEqual([isOwn, isOwn, isOwn]);
      // What comes from the smaller drawing stays for the next windows.
      expect(heap.used).toBe(4096);
      sheets.clear();
      expect(heap.used).toBe(0);
    }
  });

  it('tells of each window, and how long a pixel takes', async () => {
    const { sheets } = workers(1000);
    const before = sheets.secondsPerPixel;
    let told = 0;
    await sheets.draw(tasks(4 * WINDOW), { onWindow: () => told++ });
    expect(told).toBe(4);
    expect(sheets.secondsPerPixel).not.toBe(before);
  });

  it('stops between two windows', async () => {
    const stop = new AbortController();
    const { sheets, heap, count } = workers(SCRATCH_BYTES + 1);
    const drawing = sheets.draw(tasks(8 * WINDOW), { signal: stop.signal, onWindow: () => stop.abort() });
    await expect(drawing).rejects.toBeInstanceOf(Cancelled);
    expect(count('window')).toBeLessThanOrEqual(2);
    expect(heap.used).toBe(4096);
  });

  it('fails with the worker’s own words, keeps nothing half made, and can be asked again', async () => {
    let fails = true;
    const { sheets, heap } = workers(SCRATCH_BYTES + 1, ({ call }) => {
      if (fails && call === 'coarse') throw new Error('A material needs more working memory than it was given.');
    });
    await expect(sheets.draw(tasks(WINDOW))).rejects.toThrow('more working memory');
    expect(heap.used).toBe(0);
    fails = false;
    await sheets.draw(tasks(WINDOW));
    expect(heap.used).toBe(4096);
  });
});
