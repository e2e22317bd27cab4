import { testMachine } from '@/testing/machine';
import type { FineSheet } from '../core/graph/needs';
import { Heap } from '../core/image/heap';
import { PAGE } from '../core/image/machine';
import type { Region } from '../core/image/tile';
import { Parts, type Planned } from './parts';
import type { Pool } from './pool';

const machine = testMachine(16);
const heap = new Heap(undefined, { at: PAGE, size: 15 * 2 ** 20 });
const pool = { heap, machine, call: () => Promise.resolve() } as unknown as Pool;
const fine: FineSheet = { order: { id: 'paper.kraft', seed: 1, params: {}, aspect: 1, size: 4000 }, held: { width: 4000, height: 4000 } };

/** Does what workers would: each pixel of a window becomes the place that it has on the sheet. */
async function draw({ tasks, finish }: Planned): Promise<number> {
  let pixels = 0;
  for (const { window, target, pitch } of tasks)
    for (let y = 0; y < window.height; y++)
      for (let x = 0; x < window.width; x++, pixels++)
        machine.bytes.set([(window.x + x) & 255, (window.y + y) & 255, 7, 255], target + (y * pitch + x) * 4);
  await finish();
  return pixels;
}

const at = ({ part }: Planned, x: number, y: number) => {
  const place = part.picture.levels[0] + ((y - part.y) * part.picture.width + x - part.x) * 4;
  return [...machine.bytes.slice(place, place + 4)];
};
const region = (x: number, y: number, width: number, height: number): Region => ({ x, y, width, height });
const plan = (parts: Parts, read: Region, { continues = false, keeps = true } = {}) =>
  parts.plan(fine, read, { continues, keeps, levels: 2 }) as Planned;

it('draws only what is new when a view moves, and nothing when all of it is at hand', async () => {
  const parts = new Parts(pool);
  const first = plan(parts, region(1000, 1000, 200, 100));
  expect(await draw(first)).toBe(200 * 100);
  first.release();
  const moved = plan(parts, region(1040, 1020, 200, 100));
  expect(await draw(moved)).toBe(200 * 100 - 160 * 80);
  for (const [x, y] of [
    [1041, 1021],
    [1199, 1099],
    [1239, 1119],
    [1239, 1025],
  ])
    expect(at(moved, x, y)).toEqual([x & 255, y & 255, 7, 255]);
  moved.release();
  const again = plan(parts, region(1060, 1030, 100, 60));
  expect(again.tasks).toEqual([]);
  expect(at(again, 1100, 1050)).toEqual([1100 & 255, 1050 & 255, 7, 255]);
  again.release();
  parts.clear();
  expect(heap.used).toBe(0);
});

it('is clear beyond the end of a sheet, in the colour of its edge; where the sheet is repeated it goes on', async () => {
  const parts = new Parts(pool);
  const corner = plan(parts, region(-30, 3980, 60, 60), { keeps: false });
  await draw(corner);
  expect(at(corner, 0, 3999)).toEqual([0, 3999 & 255, 7, 255]);
  expect(at(corner, -1, 3990)).toEqual([0, 3990 & 255, 7, 0]);
  expect(at(corner, 12, 4002)).toEqual([12, 3999 & 255, 7, 0]);
  corner.release();
  const repeated = plan(parts, region(-30, 3980, 60, 60), { continues: true, keeps: false });
  expect(await draw(repeated)).toBe(repeated.part.picture.width * repeated.part.picture.height);
  expect(at(repeated, -1, 4002)[3]).toBe(255);
  repeated.release();
  expect(heap.used).toBe(0);
});

it('stays whole while a drawing reads it, even when another keeps the same part', async () => {
  const parts = new Parts(pool);
  const [one, two] = [plan(parts, region(0, 0, 64, 64)), plan(parts, region(0, 0, 64, 64))];
  await draw(one);
  await draw(two);
  parts.clear();
  // Both are still read, so that neither place is given to anything else.
  const used = heap.used;
  expect(used).toBeGreaterThan(2 * 64 * 64 * 4);
  expect(at(one, 5, 9)).toEqual([5, 9, 7, 255]);
  one.release();
  two.release();
  expect(heap.used).toBe(0);
});

it('needs nothing of a sheet that lies elsewhere', () => {
  expect(new Parts(pool).plan(fine, region(5000, 100, 50, 50), { continues: false, keeps: true, levels: 2 })).toBeNull();
});
