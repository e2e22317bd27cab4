import type { Machine } from '../image/machine';
import type { Field } from './field';

/** The working memory of a sheet: planes of f32 that are taken and given back, and tables for kernels. */
export abstract class SheetMemory {
  private free: number[] = [];
  protected next: number;
  private readonly end: number;
  private open: Field[][] = [];

  /**
   * @param count values in a plane
   * @param start address of the working memory
   * @param bytes its size
   */
  constructor(
    readonly machine: Machine,
    readonly count: number,
    start: number,
    bytes: number,
  ) {
    this.next = start;
    this.end = start + bytes;
  }

  protected abstract fieldAt(address: number): Field;

  /** @throws RangeError when the working memory is used up. */
  protected grab(bytes: number): number {
    const at = this.next;
    this.next += Math.ceil(bytes / 16) * 16;
    if (this.next > this.end) throw new RangeError('A material needs more planes than it was given.');
    return at;
  }

  plane(value = 0): Field {
    const field = this.fieldAt(this.free.pop() ?? this.grab(this.count * 4));
    this.machine.kernels.fill(field.ptr, this.count, value);
    this.open[this.open.length - 1]?.push(field);
    return field;
  }

  release(...fields: Field[]): void {
    for (const field of fields) {
      for (const list of this.open) {
        const i = list.indexOf(field);
        if (i >= 0) list.splice(i, 1);
      }
      this.free.push(field.ptr);
    }
  }

  /** Runs `make` and gives back every plane it took but the one it returns. */
  scope(make: () => Field): Field {
    this.open.push([]);
    const kept = make();
    const taken = this.open.pop() ?? [];
    for (const field of taken) if (field !== kept) this.free.push(field.ptr);
    this.open[this.open.length - 1]?.push(kept);
    return kept;
  }

  /** Writes numbers for a kernel to read and gives the memory back afterwards. */
  table<T>(values: ArrayLike<number>, read: (ptr: number) => T): T {
    const mark = this.next;
    const at = this.grab(values.length * 4);
    this.machine.floats.set(values, at / 4);
    const result = read(at);
    this.next = mark;
    return result;
  }

  moments(field: Field): { mean: number; deviation: number } {
    return this.table([0, 0, 0, 0], (ptr) => {
      this.machine.kernels.moments(field.ptr, this.count, ptr);
      const [sum, squares] = new Float64Array(this.machine.memory.buffer, ptr, 2);
      const mean = sum / this.count;
      return { mean, deviation: Math.sqrt(Math.max(0, squares / this.count - mean * mean)) };
    });
  }
}
