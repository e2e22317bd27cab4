import type { Heap } from '../../image/heap';
import type { Machine } from '../../image/machine';
import { evaluate } from './evaluate';
import { frameOf, type Frame } from './frame';
import type { Step, Value } from './operation';
import { noise, type NoiseParams } from './operations/noise';

/** Long side at which it is decided where events lie. */
const SIDE = 512;
/** Long side at which the mean and the deviation of slow noise are measured. */
const SLOW_SIDE = 256;

interface Extent {
  wrap: boolean;
  right: number;
  bottom: number;
}

/** What is decided about a sheet while its steps are written down, always at the same size, so that sheets of all sizes agree. */
export class Decisions {
  private readonly frame: Frame;
  private readonly known = new WeakMap<Step, Float32Array[]>();

  constructor(
    private readonly machine: Machine,
    private readonly memory: Heap,
    private readonly extent: Extent,
  ) {
    this.frame = this.frameOf(SIDE);
  }

  private frameOf(side: number): Frame {
    const { right, bottom, wrap } = this.extent;
    return frameOf(side, right, bottom, wrap);
  }

  /** Reads a plane at points in fractions of the long side, from the nearest of its decided values. */
  reader(value: Value): (x: number, y: number) => number {
    const values = this.valuesOf(value);
    const { width, height, size } = this.frame;
    const within = (at: number, length: number) => Math.min(length - 1, Math.max(0, Math.floor(at * size)));
    return (x, y) => values[within(y, height) * width + within(x, width)];
  }

  moments(value: Value): { mean: number; deviation: number } {
    return this.momentsAt(value, this.frame);
  }

  momentsOfNoise(params: NoiseParams): { mean: number; deviation: number } {
    return this.momentsAt({ step: { id: 0, operation: noise, params, inputs: [] }, plane: 0 }, this.frameOf(SLOW_SIDE));
  }

  private momentsAt(value: Value, frame: Frame): { mean: number; deviation: number } {
    const { machine, memory } = this;
    return evaluate([value], { machine, memory, frame }, ([{ ptr }]) => this.measured(ptr, frame));
  }

  private measured(ptr: number, { width, height }: Frame): { mean: number; deviation: number } {
    const { kernels, memory } = this.machine;
    const count = width * height;
    const at = this.memory.take(16);
    kernels.moments(ptr, count, at);
    const [sum, squares] = new Float64Array(memory.buffer, at, 2);
    this.memory.give(at);
    const mean = sum / count;
    return { mean, deviation: Math.sqrt(Math.max(0, squares / count - mean * mean)) };
  }

  private valuesOf({ step, plane }: Value): Float32Array {
    let planes = this.known.get(step);
    if (!planes) this.known.set(step, (planes = []));
    const { machine, memory, frame } = this;
    planes[plane] ??= evaluate([{ step, plane }], { machine, memory, frame }, ([{ ptr }]) =>
      machine.floats.slice(ptr / 4, ptr / 4 + frame.width * frame.height),
    );
    return planes[plane];
  }
}
