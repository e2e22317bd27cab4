import type { Machine } from '../../image/machine';
import type { Region } from '../../image/tile';
import type { Frame } from './frame';

/** A plane of f32 in kernel memory, and the part of the sheet that it holds. */
export interface Plane {
  ptr: number;
  region: Region;
}

/** What an operation is given when it is carried out. */
export interface Making {
  machine: Machine;
  frame: Frame;
  /** The part of the sheet that its planes hold. */
  region: Region;
  /** The planes are the whole of a sheet that continues on its opposite side. */
  wrap: boolean;
  /** Where its planes go. In an operation that works in place the first holds the first input. */
  out: number[];
  inputs: Plane[];
  /** The same plane taken from the coarse sheet, for operations that mix it in. */
  coarse?: number;
  /** Working memory that is given back afterwards. @throws RangeError when there is none left. */
  grab(bytes: number): number;
  /** Numbers for a kernel to read. */
  table(values: ArrayLike<number>): number;
}

/**
 * One kind of step in the making of a material. Whatever part of a sheet it is asked for, and at whichever size, it must give the same values there as for
 * the whole sheet: that is what lets a large sheet be drawn in windows.
 */
export interface Operation<P = unknown> {
  name: string;
  /** Planes that it makes; one when left out. */
  planes?: number;
  /** Changes its first input where it lies. */
  inPlace?: boolean;
  /** The part of its inputs that it reads for a region; the region itself when left out. */
  reads?(params: P, frame: Frame, region: Region): Region;
  /**
   * Where it reads so far around itself that windows would be mostly margin: its plane is then taken from a smaller drawing of the whole sheet. 'beside': that
   * is mixed with what it finds nearby.
   */
  coarse?(params: P): 'instead' | 'beside' | undefined;
  /** Long side of that smaller drawing, where it is not the usual one. */
  coarseSide?: number;
  /** Where it changes nothing at a size, its first input stands for it, and the others are not made. */
  isIdle?(params: P, frame: Frame): boolean;
  run(making: Making, params: P): void;
}

/** Lets an operation's parameters be inferred where it is written. */
export const defineOperation = <P>(operation: Operation<P>): Operation<P> => operation;

/** One step of a certain material. */
export interface Step {
  /** Steps are numbered in the order in which they are taken. */
  id: number;
  operation: Operation<never>;
  params: unknown;
  inputs: Value[];
}

/** One of the planes that a step makes. */
export interface Value {
  step: Step;
  plane: number;
}
