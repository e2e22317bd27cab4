/** Seeded numbers for the events of a material (mulberry32, public domain). */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = (seed * 0x9e3779b1 + 0x85ebca6b) | 0;
    this.next();
  }

  /** Uniform in [0, 1). */
  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  between(a: number, b: number): number {
    return a + (b - a) * this.next();
  }

  /** Standard normal (Box–Muller). */
  gauss(): number {
    return Math.sqrt(-2 * Math.log(1 - this.next())) * Math.cos(2 * Math.PI * this.next());
  }

  /** Log-normal with median m. */
  logNormal(m: number, s: number): number {
    return m * Math.exp(s * this.gauss());
  }

  /** Power law x^−k on [a, b]. */
  power(a: number, b: number, k: number): number {
    const e = 1 - k;
    return (a ** e + (b ** e - a ** e) * this.next()) ** (1 / e);
  }

  chance(p: number): boolean {
    return this.next() < p;
  }

  integer(n: number): number {
    return Math.floor(this.next() * n);
  }
}

const lattice = (i: number, seed: number) => {
  let h = (Math.imul(i, 0x27d4eb2d) ^ Math.imul(seed, 0x165667b1)) | 0;
  h = Math.imul(h ^ (h >>> 15), 0x2c1b3c6d);
  h = Math.imul(h ^ (h >>> 12), 0x297a2d39);
  return ((h ^ (h >>> 15)) >>> 0) / 2147483648 - 1;
};

/** One-dimensional gradient noise, standard deviation about 0.45. */
export function line(x: number, seed: number): number {
  const i = Math.floor(x);
  const f = x - i;
  const fade = f * f * f * (f * (f * 6 - 15) + 10);
  const a = lattice(i, seed) * f;
  const b = lattice(i + 1, seed) * (f - 1);
  return (a + (b - a) * fade) * 3.2 * 0.97;
}

export const smooth = (e0: number, e1: number, x: number): number => {
  const t = Math.min(1, Math.max(0, (x - e0) / (e1 - e0)));
  return t * t * (3 - 2 * t);
};

export const clamp = (x: number, lo = 0, hi = 1): number => Math.min(hi, Math.max(lo, x));
