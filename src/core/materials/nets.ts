import type { Field } from './field';
import { turnedLattice } from './lattice';
import { worley } from './making/operations/structures';
import type { Sheet } from './sheet';

// Nets of lines between cells: furrows of skin and leather, joints of bark.

/** Worley distances on a turned, stretched, periodic lattice: first, second, and third less first. */
export function lines(sheet: Sheet, n: number, angle: number, stretch: number, warpX: Field, warpY: Field) {
  const { x, y } = sheet.coordinates();
  const lattice = turnedLattice(n, angle);
  const [first, second, third] = sheet.stepOf(worley, { lattice, stretch, seed: sheet.seed + n }, [x.add(warpX), y.add(warpY)]);
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
  const { first, second } = lines(sheet, cells, angle, stretch, warpX, warpY);
  const border = second.add(first, -1);
  const line = border
    .copy()
    .scale(1 / width)
    .power(sharp)
    .exp(-1);
  const dome = first.times(first).scale(-1, 1).clamp();
  return { line, border, dome };
}
