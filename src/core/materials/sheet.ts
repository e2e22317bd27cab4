import type { Machine } from '../image/machine';
import type { Spot, StrokePoint } from './events';
import { Field } from './field';
import { turnedLattice } from './lattice';
import { Random } from './random';
import { SheetMemory } from './sheetMemory';

/** Standard deviation of the noise kernel over a large area; measured, see sheet.test.ts. */
export const NOISE_DEVIATION = 0.208;
const LACUNARITY = 1.93;
const TURN = (36.9 * Math.PI) / 180;
/** Standard deviation of unit white noise under a cubic B-spline in two dimensions: 151/315. */
const SPLINE_DEVIATION = 151 / 315;
/** A cubic B-spline is close to a Gaussian of this many cells. */
const SPLINE_SIGMA = Math.sqrt(4 / 12);

interface NoiseOptions {
  octaves?: number;
  gain?: number;
  /** Cycles across and down per cycle of `f`; stretched noise is never turned, or it cross-hatches. */
  stretch?: [number, number];
  lacunarity?: number;
}

export type { Spot, StrokePoint } from './events';

/**
 * What a generator works on: planes of width × height, with lengths in fractions of the long side `size`.
 * Sides are multiples of 16. With `wrap` everything drawn continues on the opposite side.
 */
export class Sheet extends SheetMemory {
  readonly size: number;
  readonly random: Random;
  /** Where the material ends, in fractions of the long side; the planes may reach a little further. */
  readonly right: number;
  readonly bottom: number;
  private salt = 0;

  constructor(
    machine: Machine,
    readonly width: number,
    readonly height: number,
    readonly seed: number,
    readonly wrap: boolean,
    start: number,
    bytes: number,
    aspect = width / height,
  ) {
    super(machine, width * height, start, bytes);
    if (width % 16 || height % 16) throw new RangeError(`A sheet's sides must be multiples of 16, got ${width} × ${height}.`);
    this.size = Math.max(width, height);
    this.random = new Random(seed);
    this.right = Math.min(width / this.size, Math.min(1, aspect));
    this.bottom = Math.min(height / this.size, Math.min(1, 1 / aspect));
  }

  protected fieldAt(address: number): Field {
    return new Field(this, address);
  }

  /** Pixels to a fraction of the long side. */
  get pixel(): number {
    return 1 / this.size;
  }

  /** A number that differs for every call and seed but not with size: the seed of one noise. */
  private key(): number {
    return (this.seed * 7919 + ++this.salt * 104729) & 0x7fffffff;
  }

  /**
   * Fractal noise of mean 0 and deviation 1, starting at `f` cycles per long side. Octaves are turned against each other, left out
   * above half a cycle per pixel and faded just below. Low octaves are made on a small plane and enlarged.
   */
  noise(f: number, { octaves = 6, gain = 0.6, stretch, lacunarity = LACUNARITY }: NoiseOptions = {}): Field {
    const { kernels } = this.machine;
    const out = this.plane();
    const top = stretch ? Math.max(...stretch) : 1;
    const mark = this.next;
    let w = this.width;
    let h = this.height;
    let halvings = 0;
    const small = (freq: number) => {
      let n = 0;
      while (n < 4 && this.size >> (n + 1) >= 8 * freq * top && this.size >> (n + 1) >= 64) n++;
      return n;
    };
    const planes: number[] = [];
    let current = out.ptr;
    let total = 0;
    let amplitude = 1;
    halvings = small(f);
    const sized = (n: number) => [this.width >> n, this.height >> n];
    [w, h] = sized(halvings);
    if (halvings > 0) {
      current = this.grab(w * h * 4);
      kernels.fill(current, w * h, 0);
    }
    const rows = this.grab(this.width * 16 + 64);
    for (let o = 0; o < octaves; o++, amplitude *= gain) {
      const freq = f * lacunarity ** o;
      const fade = Math.min(1, Math.max(0, 2 - (freq * top) / (0.25 * this.size)));
      total += amplitude * amplitude;
      // Octaves that are left out draw their random numbers too, so that all later ones are the same at every size.
      const seed = this.key();
      if (fade <= 0) continue;
      while (small(freq) < halvings) {
        const [nw, nh] = sized(halvings - 1);
        const target = halvings === 1 ? out.ptr : this.grab(nw * nh * 4);
        kernels.enlarge(current, w, h, target, nw, nh, +this.wrap, rows);
        planes.push(current);
        current = target;
        halvings--;
        [w, h] = [nw, nh];
      }
      this.octave(current, w, h, freq, 0.37 + o * TURN, amplitude * fade, seed, stretch);
    }
    while (halvings > 0) {
      const [nw, nh] = sized(halvings - 1);
      const target = halvings === 1 ? out.ptr : this.grab(nw * nh * 4);
      kernels.enlarge(current, w, h, target, nw, nh, +this.wrap, rows);
      current = target;
      halvings--;
      [w, h] = [nw, nh];
    }
    this.next = mark;
    if (f < 8) {
      const { mean, deviation } = this.moments(out);
      return out.scale(1 / Math.max(deviation, 1e-6), -mean / Math.max(deviation, 1e-6));
    }
    return out.scale(1 / (NOISE_DEVIATION * Math.sqrt(total)));
  }

  private octave(ptr: number, w: number, h: number, f: number, angle: number, gain: number, seed: number, stretch?: [number, number]) {
    const { kernels } = this.machine;
    const step = this.width / (w * this.size);
    if (stretch) {
      const fx = this.wrap ? Math.max(1, Math.round(f * stretch[0])) : f * stretch[0];
      const fy = this.wrap ? Math.max(1, Math.round(f * stretch[1])) : f * stretch[1];
      kernels.addNoise({
        dst: ptr,
        w,
        h,
        step,
        ax: fx,
        ay: 0,
        bx: 0,
        by: fy,
        n: 0,
        t: 0,
        px: this.wrap ? fx : 0,
        py: this.wrap ? fy : 0,
        seed,
        gain,
      });
    } else if (this.wrap) {
      const { a, b, n, t } = turnedLattice(f, angle);
      kernels.addNoise({ dst: ptr, w, h, step, ax: a, ay: -b, bx: b, by: a, n, t, px: 0, py: 0, seed, gain });
    } else {
      const c = f * Math.cos(angle);
      const s = f * Math.sin(angle);
      kernels.addNoise({ dst: ptr, w, h, step, ax: c, ay: -s, bx: s, by: c, n: 0, t: 0, px: 0, py: 0, seed, gain });
    }
  }

  /** Gradient noise of one octave, deviation 0.78 (the scale in which densities and directions are given). */
  single(f: number): Field {
    const out = this.plane();
    this.octave(out.ptr, this.width, this.height, f, 0.37, 1, this.key());
    return out.scale(0.78 / NOISE_DEVIATION);
  }

  /** White noise softened by σ (fractions of the long side), deviation 1; below a pixel it fades as a real average would. */
  white(sigma: number, across = sigma): Field {
    const out = this.plane();
    const cells = (s: number, length: number) => Math.max(2, Math.round((SPLINE_SIGMA * length) / (s * this.size)));
    const wantX = cells(across, this.width);
    const wantY = cells(sigma, this.height);
    const nx = Math.min(wantX, this.width);
    const ny = Math.min(wantY, this.height);
    const fade = Math.sqrt((nx / wantX) * (ny / wantY));
    const mark = this.next;
    const rows = this.grab(this.width * 16 + 64);
    this.machine.kernels.addSpline({
      dst: out.ptr,
      w: this.width,
      h: this.height,
      nx,
      ny,
      px: nx,
      py: ny,
      seed: this.key(),
      gain: fade / SPLINE_DEVIATION,
      rows,
    });
    this.next = mark;
    return out;
  }

  /** Band-pass noise: white noise softened by σ1 less the same softened by σ2; deviation 1 at full size. */
  band(s1: number, s2: number): Field {
    return this.scope(() => {
      const fine = this.white(s1);
      const rest = 1 - (4 * s1 * s1) / (s1 * s1 + s2 * s2) + (s1 * s1) / (s2 * s2);
      const coarse = fine.copy().blur(Math.sqrt(s2 * s2 - s1 * s1));
      return fine.add(coarse, -1).scale(1 / Math.sqrt(rest));
    });
  }

  /** Gaussian blur in place; wide ones on a reduced plane, where the difference cannot be seen. */
  blur(field: Field, sigma: number): void {
    const px = sigma * this.size;
    if (px < 0.15) return;
    const mark = this.next;
    this.blurPlane(field.ptr, this.width, this.height, px);
    this.next = mark;
  }

  private blurPlane(ptr: number, w: number, h: number, sigma: number): void {
    const { kernels } = this.machine;
    if (sigma > 4 && w % 8 === 0 && h % 2 === 0 && Math.min(w, h) >= 32) {
      const half = this.grab((w * h) / 1 + 64);
      kernels.shrink(ptr, w, h, half);
      // Averaging pairs has a variance of 1/4 pixel², 1/16 on the reduced plane.
      this.blurPlane(half, w / 2, h / 2, Math.sqrt((sigma * sigma) / 4 - 0.0625));
      const rows = this.grab(w * 16 + 64);
      kernels.enlarge(half, w / 2, h / 2, ptr, w, h, +this.wrap, rows);
      return;
    }
    const radius = Math.ceil(3 * sigma);
    const taps = new Float32Array(2 * radius + 1);
    let sum = 0;
    for (let i = -radius; i <= radius; i++) sum += taps[i + radius] = Math.exp(-(i * i) / (2 * sigma * sigma));
    for (let i = 0; i < taps.length; i++) taps[i] /= sum;
    const temp = this.grab(w * h * 4);
    const edge = this.grab((w + 2 * radius + 8) * 4);
    this.table(taps, (t) => {
      kernels.convolveRows(ptr, temp, w, h, t, radius, +this.wrap, edge);
      kernels.convolveColumns(temp, ptr, w, h, t, radius, +this.wrap);
    });
  }

  /** Strokes combined by maximum. */
  strokes(list: StrokePoint[][], into = this.plane()): Field {
    const total = list.reduce((n, s) => n + s.length, 0);
    const data = new Float32Array(total * 4);
    let p = 0;
    for (const stroke of list) {
      stroke.forEach(([x, y, half, value], i) => {
        data[p] = x * this.size;
        data[p + 1] = y * this.size;
        // The kernel takes a negative width as the start of a new stroke.
        data[p + 2] = Math.max(1e-4, half * this.size) * (i === 0 ? -1 : 1);
        data[p + 3] = value;
        p += 4;
      });
    }
    this.table(data, (ptr) => this.machine.kernels.drawStrokes(into.ptr, this.width, this.height, ptr, total, +this.wrap));
    return into;
  }

  /** Spots combined by maximum; `rim` is the softness of their edge in parts of the radius. */
  spots(list: Spot[], rim = 0.2, into = this.plane()): Field {
    const data = new Float32Array(list.length * 8);
    list.forEach((s, i) => {
      const angle = s.angle ?? 0;
      data.set([s.x * this.size, s.y * this.size, s.r * this.size, s.long ?? 1, Math.cos(angle), Math.sin(angle), s.lobes ?? 0, s.value ?? 1], i * 8);
    });
    const seed = this.key();
    this.table(data, (ptr) => this.machine.kernels.drawSpots(into.ptr, this.width, this.height, ptr, list.length, rim, seed, +this.wrap));
    return into;
  }

  /** Fine fibres lying about: `count` curved strokes, returned as one plane of deposit. */
  fibres(count: number, { length = 0.018, half = 0.0004, curvature = 40, value = 0.6 } = {}): Field {
    const { random } = this;
    const list: StrokePoint[][] = [];
    for (let i = 0; i < count; i++) {
      const long = random.logNormal(length, 0.5);
      const width = random.logNormal(half, 0.3);
      const strength = random.logNormal(value, 0.4);
      let angle = random.between(0, 2 * Math.PI);
      let bend = curvature * random.gauss();
      let x = random.between(0, this.right);
      let y = random.between(0, this.bottom);
      const steps = 8;
      const stroke: StrokePoint[] = [];
      for (let s = 0; s <= steps; s++) {
        stroke.push([x, y, width, strength * Math.sqrt(Math.sin(Math.PI * Math.min(0.98, Math.max(0.02, s / steps))))]);
        angle += (bend * long) / steps;
        bend += 0.3 * curvature * random.gauss();
        x += (Math.cos(angle) * long) / steps;
        y += (Math.sin(angle) * long) / steps;
      }
      list.push(stroke);
    }
    return this.strokes(list);
  }

  /**
   * Positions accepted with probability e^(k·field + c), so that a population clusters. Each has random numbers of its own, so that one
   * more or less, at another size, changes no other. The field is read, not kept.
   */
  scatter(tries: number, density: Field, k: number, c: number): { x: number; y: number; random: Random }[] {
    const values = this.machine.floats;
    const salt = this.key();
    const found: { x: number; y: number; random: Random }[] = [];
    for (let i = 0; i < tries; i++) {
      const random = new Random(salt + i * 7);
      const x = random.next() * this.right;
      const y = random.next() * this.bottom;
      const at = density.ptr / 4 + Math.floor(y * this.size) * this.width + Math.floor(x * this.size);
      if (random.next() < Math.exp(k * values[at] + c)) found.push({ x, y, random });
    }
    return found;
  }

  /** Value of a field at a point in fractions of the long side. */
  at(field: Field, x: number, y: number): number {
    const i = Math.min(this.width - 1, Math.max(0, Math.floor(x * this.size)));
    const j = Math.min(this.height - 1, Math.max(0, Math.floor(y * this.size)));
    return this.machine.floats[field.ptr / 4 + j * this.width + i];
  }

  /** Planes of x and y, in fractions of the long side, at pixel centres. */
  coordinates(): { x: Field; y: Field } {
    const x = this.plane();
    const y = this.plane();
    const values = this.machine.floats;
    const row = Float32Array.from({ length: this.width }, (_, i) => (i + 0.5) / this.size);
    for (let j = 0; j < this.height; j++) {
      values.set(row, x.ptr / 4 + j * this.width);
      this.machine.kernels.fill(y.ptr + j * this.width * 4, this.width, (j + 0.5) / this.size);
    }
    return { x, y };
  }
}
