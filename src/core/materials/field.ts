import type { Operation, Value } from './making/operation';
import * as arithmetic from './making/operations/arithmetic';
import { blurred } from './making/operations/blur';
import { distance } from './making/operations/distance';

/** What a field asks of the sheet that it lies on. */
export interface Ground {
  readonly wrap: boolean;
  readonly right: number;
  readonly bottom: number;
  step<P>(operation: Operation<P>, params: P, ...inputs: Field[]): Field;
}

/**
 * A quantity that every point of a sheet has, as the steps that lead to it: nothing is worked out before a size is known. Operations change it and return it,
 * so that formulas read as they are written.
 */
export class Field {
  constructor(
    readonly sheet: Ground,
    public value: Value,
  ) {}

  copy(): Field {
    return new Field(this.sheet, this.value);
  }
  /** this + k·other + c */
  add(other: Field | number, k = 1, c = 0): this {
    if (typeof other === 'number') return this.scale(1, other);
    return this.become(this.sheet.step(arithmetic.added, { k, c }, this, other));
  }
  /** k·this + c */
  scale(k: number, c = 0): this {
    return this.become(this.sheet.step(arithmetic.scaled, { k, c }, this));
  }
  /** this · (a·other + b) */
  times(other: Field, a = 1, b = 0): this {
    return this.become(this.sheet.step(arithmetic.multiplied, { a, b }, this, other));
  }
  /** Towards `other` by a weight of 0..1 a point. */
  towards(other: Field, weight: Field): this {
    return this.become(this.sheet.step(arithmetic.towards, null, this, other, weight));
  }
  clamp(lo = 0, hi = 1): this {
    return this.become(this.sheet.step(arithmetic.clamped, { lo, hi }, this));
  }
  max(other: Field): this {
    return this.become(this.sheet.step(arithmetic.extreme, { high: true }, this, other));
  }
  min(other: Field): this {
    return this.become(this.sheet.step(arithmetic.extreme, { high: false }, this, other));
  }
  /** max(0, this)^p */
  power(p: number): this {
    return this.become(this.sheet.step(arithmetic.power, { p }, this));
  }
  /** e^(k·this) */
  exp(k = 1): this {
    return this.become(this.sheet.step(arithmetic.exponential, { k }, this));
  }
  ln(): this {
    return this.become(this.sheet.step(arithmetic.logarithm, null, this));
  }
  abs(): this {
    return this.become(this.sheet.step(arithmetic.absolute, null, this));
  }
  step(e0: number, e1: number): this {
    return this.become(this.sheet.step(arithmetic.smoothstep, { e0, e1 }, this));
  }
  /** Gaussian blur, σ in fractions of the long side. `isDecided`: from a drawing of one size for all, where a large sheet would find it otherwise. */
  blur(sigma: number, { isDecided }: { isDecided?: boolean } = {}): this {
    return this.become(this.sheet.step(blurred, { sigma, isDecided }, this));
  }
  /** Distance, in fractions of the long side, to where this is over `level`. */
  distance(level: number, cap: number): Field {
    return this.sheet.step(distance, { level, cap }, this);
  }

  become({ value }: Field): this {
    this.value = value;
    return this;
  }
}
