import type { Field } from './field';
import { turnedLattice } from './lattice';
import type { Sheet } from './sheet';

// Nets of lines between cells: furrows of skin and leather, joints of bark.

/** Worley distances on a turned, stretched, periodic lattice: first, second, and third less first. */
export function lines(sheet: Sheet, n: number, angle: number, stretch: number, warpX: Field, warpY: Field) {
  const first = sheet.plane();
  const second = sheet.plane();
  const third = sheet.plane();
  const lattice = turnedLattice(n, angle);
  const { machine, width, height } = sheet;
  const cache = new Float32Array(42);
  sheet.table(cache, (at) =>
    machine.kernels.worley({
      f1: first.ptr,
      f2: second.ptr,
      f3: third.ptr,
      w: width,
      h: height,
      step: sheet.pixel,
      a: lattice.a,
      b: lattice.b,
      n: lattice.n,
      t: lattice.t,
      sx: stretch,
      seed: sheet.seed + n,
      wx: warpX.ptr,
      wy: warpY.ptr,
      cache: at,
    }),
  );
  third.add(first, -1);
  return { first, second, third };
}

interface Net {
  /** Cells along the long side. */
  cells: number;
  /** Of the lattice, in radians, and how much longer than wide its cells are. */
  angle: number;
  stretch: number;
  /** How wide a line is, in parts of a cell, and how steep its sides are. */
  width: number;
  sharp: number;
}

/**
 * The lines of a net: 1 in their middle, 0 inside the cells. With them comes how far each point lies from its cell's border, and how high it lies if the cell
 * is a dome.
 */
export function creases(sheet: Sheet, { cells, angle, stretch, width, sharp }: Net, warpX: Field, warpY: Field) {
  const { first, second, third } = lines(sheet, cells, angle, stretch, warpX, warpY);
  const border = second.add(first, -1);
  const line = border
    .copy()
    .scale(1 / width)
    .power(sharp)
    .exp(-1);
  const dome = first.times(first).scale(-1, 1).clamp();
  sheet.release(third);
  return { line, border, dome };
}
