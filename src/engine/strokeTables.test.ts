import { strokeSchema, type Stroke, type Tabled } from '../core/strokes/schema';
import { DAB, dabsOf } from '../core/strokes/dabs';
import { strokeToken } from '../core/strokes/token';
import { Heap } from '../core/image/heap';
import { testMachine } from '@/testing/machine';
import type { Pool } from './pool';
import { MOST_OF_ONE_DRAWING, StrokeTables } from './strokeTables';

const machine = testMachine(64);
const frame = { width: 2000, height: 1500 };
const points = Array.from({ length: 900 }, (_, i): [number, number, number] => [0.5 + 0.4 * Math.sin(i * 0.21), 0.5 + 0.4 * Math.cos(i * 0.13), 1]);
const stroke = (n: number, more: Partial<Stroke> = {}): Stroke => {
  const made = strokeSchema.parse({ size: 60, spacing: 0.05, points: [[0, 0, 1]], ...more });
  // The points themselves, as a stroke that grows keeps them.
  return { ...made, points: points.slice(0, n) };
};
const read = ({ table }: Tabled) => machine.floats.slice(table!.at / 4, table!.at / 4 + table!.count * DAB);

function make(shared = true) {
  const heap = new Heap(() => undefined);
  return { heap, tables: new StrokeTables({ heap, machine: shared ? machine : null } as unknown as Pool) };
}

it('holds the dabs of a stroke as it grows, the same as all at once', () => {
  const { tables } = make();
  for (const n of [130, 131, 400, 900]) {
    const tabled = tables.tabled(stroke(n), frame);
    expect(tabled.points).toHaveLength(1);
    expect(read(tabled)).toEqual(dabsOf(stroke(n), frame.width, frame.height));
  }
});

it('begins anew for a stroke that has become shorter, another tip, or another frame', () => {
  const { tables } = make();
  const long = tables.tabled(stroke(900), frame);
  expect(read(tables.tabled(stroke(300), frame))).toEqual(dabsOf(stroke(300), frame.width, frame.height));
  // While points are added it is the same stroke.
  const before = strokeToken(stroke(300));
  expect(strokeToken(stroke(900))).toBe(before);
  expect(strokeToken(stroke(400))).not.toBe(before);
  expect(strokeToken(stroke(300, { hardness: 0.5 }))).not.toBe(strokeToken(stroke(300)));
  const wide = tables.tabled(stroke(300, { jitter: 0.4 }), { width: 2000, height: 900 });
  expect(read(wide)).toEqual(dabsOf(stroke(300, { jitter: 0.4 }), 2000, 900));
  expect(long.table!.count).toBeGreaterThan(wide.table!.count);
});

it('sends short strokes as they are, and all of them where memory is not shared', () => {
  expect(make().tables.tabled(stroke(40), frame).table).toBeUndefined();
  expect(make(false).tables.tabled(stroke(900), frame)).toMatchObject({ points });
});

it('keeps what it has outgrown until it is dropped, and gives all of it back', () => {
  const { tables, heap } = make();
  const first = tables.tabled(stroke(130), frame).table!.at;
  const grown = tables.tabled(stroke(900), frame).table!;
  expect(grown.count).toBeGreaterThan(4096);
  expect(grown.at).not.toBe(first);
  // Nothing else is put where a drawing under way may still read.
  expect(heap.take(128)).not.toBe(first);
  const others = heap.used;
  tables.clear();
  expect(heap.used).toBe(128);
  expect(others).toBeGreaterThan(heap.used);
});

it('keeps the strokes of a few drawings only', () => {
  const { tables, heap } = make();
  for (let i = 0; i < 800; i++) tables.tabled(stroke(130, { level: i / 800, spacing: 1 }), frame);
  expect(heap.used).toBeLessThanOrEqual(3 * MOST_OF_ONE_DRAWING * 4096 * DAB * 4 + 128);
});
