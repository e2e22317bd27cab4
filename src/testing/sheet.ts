import type { Heap } from '../core/image/heap';
import type { Machine } from '../core/image/machine';
import type { Field } from '../core/materials/field';
import { workingMemory } from '../core/materials/generate';
import { evaluate } from '../core/materials/making/evaluate';
import { frameOf } from '../core/materials/making/frame';
import { defineOperation } from '../core/materials/making/operation';
import { Sheet } from '../core/materials/sheet';

/** Sheets whose fields a test can read. */
export function testSheets(machine: Machine, at: number, bytes: number) {
  const memory: Heap = workingMemory(at, bytes);
  return {
    sheet: ({ seed = 1, wrap = false, aspect = 1 } = {}) => new Sheet(machine, memory, { seed, wrap, aspect }),
    /** The values of a field on a sheet with so many pixels on its long side, row after row. */
    values: (field: Field, size: number): Float32Array => {
      const { right, bottom, wrap } = field.sheet;
      const frame = frameOf(size, right, bottom, wrap);
      return evaluate([field.value], { machine, memory, frame }, ([{ ptr }]) => machine.floats.slice(ptr / 4, ptr / 4 + frame.width * frame.height));
    },
    memory,
  };
}

/** A field of given values, for sheets with as many pixels. */
export const given = (sheet: Sheet, values: ArrayLike<number>): Field =>
  sheet.step(defineOperation<null>({ name: 'given', run: ({ machine, out }) => machine.floats.set(values, out[0] / 4) }), null);
