import type { Heap } from '../../image/heap';
import type { Machine } from '../../image/machine';
import type { Region } from '../../image/tile';
import { isSame, type Frame } from './frame';
import type { Making, Plane, Step, Value } from './operation';
import { operationOf, schedule, wayOf, type Schedule } from './schedule';

/** Planes of smaller drawings of the whole sheet, by the step that makes them. */
export type CoarsePlanes = ReadonlyMap<number, CoarsePlane>;
export interface CoarsePlane {
  frame: Frame;
  at: number;
}

/** Bytes behind a plane that kernels may read when they take four values at a time. */
const SPARE = 64;

/** Where and at what size planes are made. */
export interface Place {
  machine: Machine;
  memory: Heap;
  frame: Frame;
  /** A part of the sheet; all of it when left out. */
  window?: Region;
  coarse?: CoarsePlanes;
}

/**
 * Makes planes and hands them to `read`, in the order in which they are wanted; afterwards their memory is free again. For a window each step covers as much more
 * as the steps after it read around themselves. @throws RangeError when the working memory is used up.
 */
export function evaluate<T>(wanted: Value[], place: Place, read: (planes: Plane[]) => T): T {
  const run = new Run(schedule(wanted, place.frame, place.window, place.coarse), place);
  try {
    return read(run.all());
  } finally {
    run.release();
  }
}

class Run {
  private readonly held = new Map<number, number[]>();
  private readonly taken = new Set<number>();

  constructor(
    private readonly plan: Schedule,
    private readonly place: Place,
  ) {}

  all(): Plane[] {
    for (const step of this.plan.steps) {
      this.carryOut(step);
      this.place.machine.pulse?.();
    }
    return this.plan.wanted.map((value) => this.planeOf(value));
  }

  release(): void {
    for (const at of this.taken) this.place.memory.give(at);
    this.taken.clear();
  }

  private take(bytes: number): number {
    const at = this.place.memory.take(bytes);
    this.taken.add(at);
    return at;
  }

  private give(at: number): void {
    this.taken.delete(at);
    this.place.memory.give(at);
  }

  private inputsOf = (step: Step): Value[] => this.plan.inputs.get(step.id) as Value[];
  private countsOf = (step: Step): number[] => this.plan.uses.get(step.id) as number[];
  private regionOf = (step: Step): Region => this.plan.regions.get(step.id) as Region;
  private planeOf = ({ step, plane }: Value): Plane => ({ ptr: (this.held.get(step.id) as number[])[plane], region: this.regionOf(step) });

  private carryOut(step: Step): void {
    const region = this.regionOf(step);
    const scratch: number[] = [];
    const grab = (bytes: number) => {
      const at = this.take(bytes + SPARE);
      scratch.push(at);
      return at;
    };
    const coarse = this.place.coarse?.get(step.id);
    const way = wayOf(step, this.place.coarse);
    const out: number[] = [];
    if (coarse && way === 'instead') {
      out.push(this.take(region.width * region.height * 4 + SPARE));
      this.enlarge(coarse, out[0], region, grab);
    } else {
      const making = this.making(step, region, out, grab);
      if (coarse && way === 'beside') {
        making.coarse = grab(region.width * region.height * 4);
        this.enlarge(coarse, making.coarse, region, grab);
      }
      operationOf(step).run(making, step.params);
      for (const input of this.inputsOf(step)) this.used(input);
    }
    for (const at of scratch) this.give(at);
    this.held.set(step.id, out);
    // A plane that nobody reads, of a step that makes several.
    this.countsOf(step).forEach((count, i) => count === 0 && this.give(out[i]));
  }

  /** What an operation is given: planes for what it makes, and inputs cut to its region unless it reads around it. */
  private making(step: Step, region: Region, out: number[], grab: (bytes: number) => number): Making {
    const { machine, frame, window } = this.place;
    const { inPlace, reads, planes = 1 } = operationOf(step);
    const bytes = region.width * region.height * 4;
    const inputs = this.inputsOf(step).map((input) => this.planeOf(input));
    if (inPlace) out.push(this.ownCopy(this.inputsOf(step)[0], region));
    while (out.length < planes) out.push(this.take(bytes + SPARE));
    return {
      machine,
      frame,
      region,
      wrap: frame.wrap && !window,
      out,
      inputs: inputs.map((plane, i) => {
        if (reads || (inPlace && i === 0) || isSame(plane.region, region)) return plane;
        const ptr = grab(bytes);
        this.crop(plane, region, ptr);
        return { ptr, region };
      }),
      grab,
      table: (values) => {
        const at = grab(values.length * 4);
        machine.floats.set(values, at / 4);
        return at;
      },
    };
  }

  /** A plane that may be changed: the input itself when nobody else reads it any more, else a copy. */
  private ownCopy(input: Value, region: Region): number {
    const plane = this.planeOf(input);
    const counts = this.countsOf(input.step);
    if (counts[input.plane] === 1 && isSame(plane.region, region)) {
      // It is not given back when this reader is done with it.
      counts[input.plane] = Infinity;
      return plane.ptr;
    }
    const to = this.take(region.width * region.height * 4 + SPARE);
    this.crop(plane, region, to);
    return to;
  }

  private used({ step, plane }: Value): void {
    const counts = this.countsOf(step);
    counts[plane] -= 1;
    if (counts[plane] === 0) this.give((this.held.get(step.id) as number[])[plane]);
  }

  private crop(from: Plane, region: Region, to: number): void {
    const { x, y, width } = from.region;
    this.place.machine.kernels.cropPlane(from.ptr, width, region.x - x, region.y - y, to, region.width, region.height);
  }

  private enlarge({ frame, at }: CoarsePlane, to: number, { x, y, width, height }: Region, grab: (bytes: number) => number): void {
    const per = frame.size / this.place.frame.size;
    this.place.machine.kernels.enlargePart({
      src: at,
      sw: frame.width,
      sh: frame.height,
      dst: to,
      w: width,
      h: height,
      x0: x,
      y0: y,
      across: per,
      down: per,
      wrap: +frame.wrap,
      scratch: grab(width * 52 + frame.width * 4),
    });
  }
}
