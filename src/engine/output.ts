import type { Heap } from '../core/image/heap';

/** Larger pictures give their memory back once they are made. */
const LARGE = 64 * 2 ** 20;

/** The memory that pictures are drawn to, one after another. */
export class Output {
  private held: { at: number; bytes: number } | null = null;

  constructor(private readonly heap: Heap) {}

  room(bytes: number): number {
    if (!this.held || this.held.bytes < bytes) {
      if (this.held) this.heap.give(this.held.at);
      this.held = { at: this.heap.take(bytes), bytes };
    }
    return this.held.at;
  }

  /** Frees what a large picture took. */
  trim(): void {
    if (!this.held || this.held.bytes <= LARGE) return;
    this.heap.give(this.held.at);
    this.held = null;
  }
}
