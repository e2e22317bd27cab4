import type { Making } from '../operation';
import { defineOperation } from '../operation';

// Pointwise arithmetic on planes. All work in place.

const count = ({ region }: Making): number => region.width * region.height;

/** a·this + c */
export const scaled = defineOperation<{ k: number; c: number }>({
  name: 'scaled',
  inPlace: true,
  run: (m, { k, c }) => m.machine.kernels.mixIn(m.out[0], m.out[0], count(m), k, 0, c),
});

/** this + k·other + c */
export const added = defineOperation<{ k: number; c: number }>({
  name: 'added',
  inPlace: true,
  run: (m, { k, c }) => m.machine.kernels.mixIn(m.out[0], m.inputs[1].ptr, count(m), 1, k, c),
});

/** this · (a·other + b) */
export const multiplied = defineOperation<{ a: number; b: number }>({
  name: 'multiplied',
  inPlace: true,
  run: (m, { a, b }) => m.machine.kernels.times(m.out[0], m.inputs[1].ptr, count(m), a, b),
});

/** Towards another by a weight of 0..1. */
export const towards = defineOperation<null>({
  name: 'towards',
  inPlace: true,
  run: (m) => m.machine.kernels.lerpTo(m.out[0], m.inputs[1].ptr, m.inputs[2].ptr, count(m)),
});

export const clamped = defineOperation<{ lo: number; hi: number }>({
  name: 'clamped',
  inPlace: true,
  run: (m, { lo, hi }) => m.machine.kernels.clampTo(m.out[0], count(m), lo, hi),
});

/** The larger or the smaller of two. */
export const extreme = defineOperation<{ high: boolean }>({
  name: 'extreme',
  inPlace: true,
  run: (m, { high }) => m.machine.kernels.extreme(m.out[0], m.inputs[1].ptr, count(m), +high),
});

/** max(0, this)^p */
export const power = defineOperation<{ p: number }>({
  name: 'power',
  inPlace: true,
  run: (m, { p }) => m.machine.kernels.power(m.out[0], count(m), p),
});

/** e^(k·this) */
export const exponential = defineOperation<{ k: number }>({
  name: 'exponential',
  inPlace: true,
  run: (m, { k }) => m.machine.kernels.exponential(m.out[0], count(m), k),
});

export const logarithm = defineOperation<null>({
  name: 'logarithm',
  inPlace: true,
  run: (m) => m.machine.kernels.logarithm(m.out[0], count(m)),
});

export const absolute = defineOperation<null>({
  name: 'absolute',
  inPlace: true,
  run: (m) => m.machine.kernels.absolute(m.out[0], count(m)),
});

export const smoothstep = defineOperation<{ e0: number; e1: number }>({
  name: 'smoothstep',
  inPlace: true,
  run: (m, { e0, e1 }) => m.machine.kernels.smoothstep(m.out[0], count(m), e0, e1),
});

/** One value everywhere. */
export const constant = defineOperation<{ value: number }>({
  name: 'constant',
  run: (m, { value }) => m.machine.kernels.fill(m.out[0], count(m), value),
});

/** A value for each item, where `id` says which item a point belongs to. */
export const lookedUp = defineOperation<{ table: ArrayLike<number> }>({
  name: 'lookedUp',
  run: (m, { table }) => m.machine.kernels.lookUp(m.out[0], m.inputs[0].ptr, m.table(table), count(m)),
});
