import { Heap } from '../image/heap';
import type { Machine } from '../image/machine';
import type { Spot, StrokePoint } from './events';
import { Field, type Ground } from './field';
import { Decisions } from './making/decisions';
import type { Operation, Step } from './making/operation';
import { constant } from './making/operations/arithmetic';
import { coordinates } from './making/operations/coordinates';
import { spots, strokes, tableOf, type StrokeDetail } from './making/operations/events';
import { noise } from './making/operations/noise';
import { white } from './making/operations/white';
import { Random } from './random';

/** Standard deviation of the noise kernel over a large area; measured, see sheet.test.ts. */
export const NOISE_DEVIATION = 0.208;
/** Noise with fewer cycles than this differs from sheet to sheet: its own mean and deviation are measured. */
const FEW_CYCLES = 8;

interface NoiseOptions {
  octaves?: number;
  gain?: number;
  /** Cycles across and down per cycle of `f`; stretched noise is never turned, or it cross-hatches. */
  stretch?: [number, number];
  lacunarity?: number;
}

export type { Spot, StrokePoint } from './events';

interface SheetOptions {
  seed: number;
  /** What is drawn continues on the opposite side. */
  wrap: boolean;
  /** Width by height. */
  aspect?: number;
}

/**
 * What a generator works on: a sheet of any size, whose lengths are fractions of its long side. Generators say by which steps it comes about; the steps are
 * carried out later, for the whole sheet or for a part of it, at the size that is wanted. What decides how many events there are and where, is worked out at
 * one fixed size while the steps are written down, so that it is the same at every size.
 */
export class Sheet implements Ground {
  readonly seed: number;
  readonly wrap: boolean;
  readonly random: Random;
  /** Where the sheet ends, in fractions of the long side. */
  readonly right: number;
  readonly bottom: number;
  private readonly decisions: Decisions;
  private salt = 0;
  private steps = 0;

  /** @param memory - Working memory for decisions. */
  constructor(
    readonly machine: Machine,
    readonly memory: Heap,
    { seed, wrap, aspect = 1 }: SheetOptions,
  ) {
    this.seed = seed;
    this.wrap = wrap;
    this.random = new Random(seed);
    this.right = Math.min(1, aspect);
    this.bottom = Math.min(1, 1 / aspect);
    this.decisions = new Decisions(machine, memory, this);
  }

  /** A field that one step makes. */
  step<P>(operation: Operation<P>, params: P, ...inputs: Field[]): Field {
    return this.stepOf(operation, params, inputs)[0];
  }

  /** The fields that one step makes together. */
  stepOf<P>(operation: Operation<P>, params: P, inputs: Field[] = []): Field[] {
    const step: Step = { id: this.steps++, operation: operation as Operation<never>, params, inputs: inputs.map(({ value }) => value) };
    return Array.from({ length: operation.planes ?? 1 }, (_, plane) => new Field(this, { step, plane }));
  }

  plane(value = 0): Field {
    return this.step(constant, { value });
  }

  /** A number that differs for every call and seed: the seed of one noise. */
  private key(): number {
    return (this.seed * 7919 + ++this.salt * 104729) & 0x7fffffff;
  }

  /** Fractal noise of mean 0 and deviation 1, starting at `f` cycles per long side. */
  noise(f: number, { octaves = 6, gain = 0.6, stretch, lacunarity = 1.93 }: NoiseOptions = {}): Field {
    const seeds = Array.from({ length: octaves }, () => this.key());
    const raw = { f, lacunarity, gain, stretch, seeds, scale: 1, shift: 0 };
    if (f < FEW_CYCLES) {
      const { mean, deviation } = this.decisions.momentsOfNoise(raw);
      const scale = 1 / Math.max(deviation, 1e-6);
      return this.step(noise, { ...raw, scale, shift: -mean * scale });
    }
    const total = seeds.reduce((sum, _, o) => sum + gain ** (2 * o), 0);
    return this.step(noise, { ...raw, scale: 1 / (NOISE_DEVIATION * Math.sqrt(total)) });
  }

  /** Gradient noise of one octave, deviation 0.78 (the scale in which densities and directions are given). */
  single(f: number): Field {
    return this.step(noise, { f, lacunarity: 1, gain: 1, seeds: [this.key()], scale: 0.78 / NOISE_DEVIATION, shift: 0, plain: true });
  }

  /** White noise softened by σ (fractions of the long side), deviation 1; below a pixel it fades as a real average would. */
  white(sigma: number, across = sigma): Field {
    return this.step(white, { sigma, across, seed: this.key() });
  }

  /** Band-pass noise: white noise softened by σ1 less the same softened by σ2; deviation 1 at full size. */
  band(s1: number, s2: number): Field {
    const fine = this.white(s1);
    const rest = 1 - (4 * s1 * s1) / (s1 * s1 + s2 * s2) + (s1 * s1) / (s2 * s2);
    const coarse = fine.copy().blur(Math.sqrt(s2 * s2 - s1 * s1));
    return fine.add(coarse, -1).scale(1 / Math.sqrt(rest));
  }

  /** Strokes combined by maximum. `least`: least half width in pixels, for lines that must be found at any size. */
  strokes(list: StrokePoint[][], { into = this.plane(), least, ...detail }: { into?: Field; least?: number } & StrokeDetail = {}): Field {
    return into.become(this.step(strokes, { points: tableOf(list, detail), least }, into));
  }

  /** Spots combined by maximum; `rim` is the softness of their edge in parts of the radius, `uneven` by how much large ones differ from place to place. */
  spots(list: Spot[], rim = 0.2, { into = this.plane(), uneven = 0 }: { into?: Field; uneven?: number } = {}): Field {
    return into.become(this.step(spots, { list, rim, uneven, seed: this.key() }, into));
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
    return this.strokes(list, { broken: true });
  }

  /**
   * Positions accepted with probability e^(k·field + c), so that a population clusters. Each has random numbers of its own, so that one more or less changes
   * no other.
   */
  scatter(tries: number, density: Field, k: number, c: number): { x: number; y: number; random: Random }[] {
    const at = this.decisions.reader(density.value);
    const salt = this.key();
    const found: { x: number; y: number; random: Random }[] = [];
    for (let i = 0; i < tries; i++) {
      const random = new Random(salt + i * 7);
      const x = random.next() * this.right;
      const y = random.next() * this.bottom;
      if (random.next() < Math.exp(k * at(x, y) + c)) found.push({ x, y, random });
    }
    return found;
  }

  /** Value of a field at a point in fractions of the long side, as it is decided for all sizes. */
  at(field: Field, x: number, y: number): number {
    return this.decisions.reader(field.value)(x, y);
  }

  /** Mean and standard deviation of a field, as they are decided for all sizes. */
  moments(field: Field): { mean: number; deviation: number } {
    return this.decisions.moments(field.value);
  }

  /** Planes of x and y, in fractions of the long side, at pixel centres. */
  coordinates(): { x: Field; y: Field } {
    const [x, y] = this.stepOf(coordinates, null);
    return { x, y };
  }
}
