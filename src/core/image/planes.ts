import { blurPlane } from './blur';
import type { Machine } from './machine';
import { padded, type Scratch } from './tile';

/** Planes of one size in scratch memory, f32 0..1, and what is done with whole planes of them. A plane is its address. */
export class Planes {
  readonly count: number;

  constructor(
    readonly machine: Machine,
    readonly scratch: Scratch,
    readonly width: number,
    readonly height: number,
    /** Where the left upper corner lies in the picture that outlines are given for. */
    readonly x = 0,
    readonly y = 0,
  ) {
    this.count = padded(width, height);
  }

  /** A new plane; the kernels may write a little beyond its last value. */
  make(value = 0): number {
    return this.scratch.plane(this.count + 8, value);
  }

  put(from: number, into: number): void {
    this.machine.kernels.copyWindow(from, this.width, into, this.width, this.width, this.height);
  }

  copy(of: number): number {
    const at = this.make();
    this.put(of, at);
    return at;
  }

  /** Planes over a part of these: about `outline`, with `margin` pixels around it. */
  around(outline: readonly (readonly [number, number])[], margin: number): Planes {
    const xs = outline.map((p) => p[0]);
    const ys = outline.map((p) => p[1]);
    const left = Math.max(this.x, Math.floor(Math.min(...xs) - margin));
    const top = Math.max(this.y, Math.floor(Math.min(...ys) - margin));
    const right = Math.min(this.x + this.width, Math.ceil(Math.max(...xs) + margin));
    const bottom = Math.min(this.y + this.height, Math.ceil(Math.max(...ys) + margin));
    return new Planes(this.machine, this.scratch, Math.max(8, right - left), Math.max(1, bottom - top), left, top);
  }

  /** The part of a plane of the whole that these planes lie over, as one of these. */
  cut(whole: Planes, plane: number): number {
    const at = this.make();
    this.machine.kernels.copyWindow(this.placeIn(whole, plane), whole.width, at, this.width, ...this.within(whole));
    return at;
  }

  /** Puts one of these planes back over the whole where it is the greater. */
  mostOf(whole: Planes, plane: number, part: number): void {
    this.change(whole, plane, (there) => this.most(there, part));
  }

  /** Changes the part of a plane of the whole that these planes lie over. */
  change(whole: Planes, plane: number, work: (there: number) => void): void {
    this.briefly(() => {
      const there = this.cut(whole, plane);
      work(there);
      this.machine.kernels.copyWindow(there, this.width, this.placeIn(whole, plane), whole.width, ...this.within(whole));
    });
  }

  private placeIn(whole: Planes, plane: number): number {
    return plane + ((this.y - whole.y) * whole.width + this.x - whole.x) * 4;
  }

  private within(whole: Planes): [number, number] {
    return [Math.max(0, Math.min(this.width, whole.width - this.x + whole.x)), Math.max(0, Math.min(this.height, whole.height - this.y + whole.y))];
  }

  /** What `work` allocates is free again afterwards. */
  briefly<T>(work: () => T): T {
    const mark = this.scratch.mark();
    try {
      return work();
    } finally {
      this.scratch.release(mark);
    }
  }

  /** Adds the inside of an outline given in pixels. */
  fill(plane: number, outline: readonly (readonly [number, number])[]): void {
    this.briefly(() => {
      const points = this.scratch.take(outline.length * 8);
      const crossings = this.scratch.take(outline.length * 4);
      this.machine.floats.set(
        outline.flatMap(([x, y]) => [x - this.x, y - this.y]),
        points / 4,
      );
      this.machine.kernels.fillPolygon(plane, this.width, this.height, points, outline.length, crossings);
    });
  }

  /** Adds a round tip along a path in fractions of the whole, as a chain of small outlines. */
  strokeOver(plane: number, points: readonly (readonly [number, number])[], radius: number, whole: Planes = this): void {
    const at = points.map(([x, y]) => [x * whole.width, y * whole.height] as const);
    at.forEach(([x, y], i) => {
      this.fill(
        plane,
        Array.from({ length: 12 }, (_, k) => [x + Math.cos((k * Math.PI) / 6) * radius, y + Math.sin((k * Math.PI) / 6) * radius] as const),
      );
      const next = at[i + 1];
      const length = next ? Math.hypot(next[0] - x, next[1] - y) : 0;
      if (length < 0.5) return;
      const [nx, ny] = [(-(next[1] - y) / length) * radius, ((next[0] - x) / length) * radius];
      this.fill(plane, [
        [x + nx, y + ny],
        [next[0] + nx, next[1] + ny],
        [next[0] - nx, next[1] - ny],
        [x - nx, y - ny],
      ]);
    });
  }

  blur(plane: number, sigma: number): void {
    blurPlane(this.machine, this.scratch, plane, this.width, this.height, sigma);
  }

  /** Mean over a box of that radius, as a new plane. */
  mean(of: number, radius: number): number {
    const out = this.make();
    this.briefly(() => {
      const middle = this.make();
      const line = this.scratch.take((this.width + 2 * Math.ceil(radius) + 32) * 4);
      this.machine.kernels.boxMean(of, out, this.width, this.height, radius, middle, line);
    });
    return out;
  }

  product(a: number, b: number): number {
    const out = this.make();
    this.machine.kernels.multiplied(a, b, out, this.count);
    return out;
  }

  /** plane = plane · other. */
  times(plane: number, other: number): void {
    this.machine.kernels.times(plane, other, this.count, 1, 0);
  }

  /** plane = plane · (1 − other). */
  without(plane: number, other: number): void {
    this.machine.kernels.times(plane, other, this.count, -1, 1);
  }

  most(plane: number, other: number): void {
    this.machine.kernels.extreme(plane, other, this.count, 1);
  }

  least(plane: number, other: number): void {
    this.machine.kernels.extreme(plane, other, this.count, 0);
  }

  invert(plane: number): void {
    this.machine.kernels.mixIn(plane, plane, this.count, -1, 0, 1);
  }

  ramp(plane: number, from: number, to: number): void {
    this.machine.kernels.smoothstep(plane, this.count, from, to);
  }

  sum(plane: number): number {
    return this.briefly(() => {
      const at = this.scratch.take(16);
      this.machine.kernels.moments(plane, this.width * this.height, at);
      return new Float64Array(this.machine.memory.buffer, at, 1)[0];
    });
  }

  /** Dilation by a disc of `radius` pixels, or erosion where that is negative; between whole radii the two neighbours are mixed. */
  widen(plane: number, radius: number): void {
    const { kernels } = this.machine;
    const r = Math.abs(radius);
    if (r < 0.05) return;
    this.briefly(() => {
      if (radius < 0) this.invert(plane);
      const low = Math.floor(r);
      const high = Math.ceil(r);
      const table = this.scratch.take((Math.floor(Math.log2(2 * high + 1)) + 1) * (this.width + 2 * high + 4) * this.height * 4 + 64);
      const wide = this.make();
      kernels.widen(plane, wide, this.width, this.height, high, table);
      if (low > 0 && low < high) {
        const narrow = this.make();
        kernels.widen(plane, narrow, this.width, this.height, low, table);
        kernels.mixIn(wide, narrow, this.count, r - low, high - r, 0);
      } else if (low < high) kernels.mixIn(wide, plane, this.count, r, 1 - r, 0);
      kernels.copyWindow(wide, this.width, plane, this.width, this.width, this.height);
      if (radius < 0) this.invert(plane);
    });
  }

  /** Geodesic distance from where `seeds` is 1, over the differences of three planes. Without those (gamma 0), two sweeps are enough. */
  geodesic(seeds: number, guide: readonly [number, number, number], gamma: number): number {
    const { kernels } = this.machine;
    const out = this.copy(seeds);
    kernels.mixIn(out, out, this.count, -1e6, 0, 1e6);
    kernels.geodesic(out, ...guide, this.width, this.height, gamma, gamma > 0 ? 4 : 2);
    return out;
  }
}
