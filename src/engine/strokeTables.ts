import type { Stroke, Tabled } from '../core/strokes/schema';
import { LRUCache } from 'lru-cache';
import { DAB, DabMaker } from '../core/strokes/dabs';
import { strokeToken } from '../core/strokes/token';
import type { Pool } from './pool';

interface Table {
  at: number;
  /** Where it lay before it grew: a drawing under way may still read there. */
  before: number[];
  capacity: number;
  count: number;
  maker: DabMaker;
}

/** Shorter strokes go to the workers as they are. */
const LONG = 120;
/** Most strokes of one drawing whose dabs are kept: those of the drawing before may still be read while they are made. */
export const MOST_OF_ONE_DRAWING = 100;
/** Most strokes whose dabs are kept. */
const MOST = 3 * MOST_OF_ONE_DRAWING;
const BYTES = DAB * 4;

/**
 * Dabs of long strokes in shared memory. While a stroke is painted only the dabs of its new points are made, and workers are told where they lie
 * instead of being sent every point each time.
 */
export class StrokeTables {
  private readonly tables = new LRUCache<string, Table>({
    max: MOST,
    dispose: ({ at, before }) => [at, ...before].forEach((address) => this.pool.heap.give(address)),
  });

  constructor(private readonly pool: Pool) {}

  clear(): void {
    this.tables.clear();
  }

  /** The stroke with its dabs in memory where that is worth while; `frame` in u. */
  tabled(stroke: Stroke, frame: { width: number; height: number }): Stroke & Tabled {
    const { machine, heap } = this.pool;
    if (!machine || stroke.points.length < LONG) return stroke;
    const token = `${strokeToken(stroke)}:${frame.width}x${frame.height}`;
    let table = this.tables.get(token);
    if (!table) {
      const capacity = 4096;
      const made: Table = { at: heap.take(capacity * BYTES), before: [], capacity, count: 0, maker: null as unknown as DabMaker };
      made.maker = new DabMaker(stroke, frame.width, frame.height, (...dab) => this.put(made, dab));
      this.tables.set(token, (table = made));
    }
    table.maker.extend(stroke.points);
    return { ...stroke, points: stroke.points.slice(0, 1), table: { at: table.at, count: table.count } };
  }

  private put(table: Table, dab: number[]): void {
    const { heap } = this.pool;
    if (table.count === table.capacity) {
      const at = heap.take(table.capacity * 2 * BYTES);
      const { machine } = this.pool;
      machine?.bytes.copyWithin(at, table.at, table.at + table.count * BYTES);
      table.before.push(table.at);
      table.at = at;
      table.capacity *= 2;
    }
    this.pool.machine?.floats.set(dab, (table.at + table.count * BYTES) / 4);
    table.count++;
  }
}
