import type { Machine } from '../image/machine';

/** What a field asks of the sheet that it lies on. */
export interface Ground {
  readonly machine: Machine;
  readonly width: number;
  readonly height: number;
  /** Values a plane. */
  readonly count: number;
  readonly size: number;
  readonly wrap: boolean;
  plane(value?: number): Field;
  release(...fields: Field[]): void;
  blur(field: Field, sigma: number): void;
  moments(field: Field): { mean: number; deviation: number };
}

/** One f32 plane of a material in the making. Operations change it in place and return it, so that formulas read as they are written. */
export class Field {
  private loose = false;

  constructor(
    readonly sheet: Ground,
    readonly ptr: number,
  ) {}

  private get k() {
    return this.sheet.machine.kernels;
  }
  private get n() {
    return this.sheet.count;
  }

  /** Marks a field that is wanted for one operation only: the operation that reads it gives its plane back. */
  get once(): this {
    this.loose = true;
    return this;
  }

  private done(...read: Field[]): this {
    for (const field of read) if (field.loose) this.sheet.release(field);
    return this;
  }

  copy(): Field {
    return this.sheet.plane(0).add(this);
  }
  /** this + k·other + c */
  add(other: Field | number, k = 1, c = 0): this {
    if (typeof other === 'number') return this.scale(1, other);
    this.k.mixIn(this.ptr, other.ptr, this.n, 1, k, c);
    return this.done(other);
  }
  /** k·this + c */
  scale(k: number, c = 0): this {
    this.k.mixIn(this.ptr, this.ptr, this.n, k, 0, c);
    return this;
  }
  /** this · (a·other + b) */
  times(other: Field, a = 1, b = 0): this {
    this.k.times(this.ptr, other.ptr, this.n, a, b);
    return this.done(other);
  }
  /** Towards `other` by a weight of 0..1 a pixel. */
  towards(other: Field, weight: Field): this {
    this.k.lerpTo(this.ptr, other.ptr, weight.ptr, this.n);
    return this.done(other, weight);
  }
  clamp(lo = 0, hi = 1): this {
    this.k.clampTo(this.ptr, this.n, lo, hi);
    return this;
  }
  max(other: Field): this {
    this.k.extreme(this.ptr, other.ptr, this.n, 1);
    return this.done(other);
  }
  min(other: Field): this {
    this.k.extreme(this.ptr, other.ptr, this.n, 0);
    return this.done(other);
  }
  /** max(0, this)^p */
  power(p: number): this {
    this.k.power(this.ptr, this.n, p);
    return this;
  }
  /** e^(k·this) */
  exp(k = 1): this {
    this.k.exponential(this.ptr, this.n, k);
    return this;
  }
  ln(): this {
    this.k.logarithm(this.ptr, this.n);
    return this;
  }
  abs(): this {
    this.k.absolute(this.ptr, this.n);
    return this;
  }
  step(e0: number, e1: number): this {
    this.k.smoothstep(this.ptr, this.n, e0, e1);
    return this;
  }
  /** Gaussian blur, σ in fractions of the long side. */
  blur(sigma: number): this {
    this.sheet.blur(this, sigma);
    return this;
  }
  /** Distance, in fractions of the long side, to where this is over `level`. */
  distance(level: number, cap: number): Field {
    const { sheet } = this;
    const out = sheet.plane();
    this.k.distance(this.ptr, out.ptr, sheet.width, sheet.height, level, cap * sheet.size, +sheet.wrap);
    return out.scale(1 / sheet.size);
  }
  /** Mean and standard deviation. */
  moments(): { mean: number; deviation: number } {
    return this.sheet.moments(this);
  }
}
