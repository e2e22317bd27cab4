import type { Stroke, Tabled } from '../core/strokes/schema';
import { DabMaker } from '../core/strokes/dabs';
import { strokeToken } from '../core/strokes/token';
import type { Pool } from './pool';

interface Table {
  at: number;
  /** Where it lay before it grew: a drawing under way may still read there. */
  before: number[];
  capacity: number;
  count: number;
  points: number;
  maker: DabMaker;
  used: number;
}

/** Shorter strokes go to the workers as they are. */
const LONG = 120;
const KEPT = 24;
const BYTES = 24;

/**
 * Dabs of long strokes in shared memory. While a stroke is painted only the dabs of its new points are made, and workers are told where they lie
 * instead of being sent every point each time.
 */
export class StrokeTables {
  private tables = new Map<string, Table>();
  private clock = 0;

  constructor(private readonly pool: Pool) {}

  clear(): void {
    for (const token of [...this.tables.keys()]) this.drop(token);
  }

  /** The stroke with its dabs in memory where that is worth while; `frame` in u. */
  tabled(stroke: Stroke, frame: { width: number; height: number }): Stroke & Tabled {
    const { machine, heap } = this.pool;
    if (!machine || stroke.points.length < LONG) return stroke;
    const token = `${strokeToken(stroke)}:${frame.width}x${frame.height}`;
    let table = this.tables.get(token);
    if (!table) {
      this.forget();
      const capacity = 4096;
      const made: Table = { at: heap.take(capacity * BYTES), before: [], capacity, count: 0, points: 0, used: 0, maker: null as unknown as DabMaker };
      made.maker = new DabMaker(stroke, frame.width, frame.height, (...dab) => this.put(made, dab));
      this.tables.set(token, (table = made));
    }
    table.used = ++this.clock;
    table.maker.extend(stroke.points);
    table.points = stroke.points.length;
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

  private drop(token: string): void {
    const table = this.tables.get(token);
    for (const at of table ? [table.at, ...table.before] : []) this.pool.heap.give(at);
    this.tables.delete(token);
  }

  private forget(): void {
    const oldest = [...this.tables.entries()].sort((a, b) => a[1].used - b[1].used).slice(0, Math.max(0, this.tables.size - KEPT + 1));
    for (const [token] of oldest) this.drop(token);
  }
}
