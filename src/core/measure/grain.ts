import type { Machine } from '../image/machine';
import type { Size } from '../image/motion';
import type { Picture } from '../image/picture';

/** Pixels of a picture across one square in which its grain is measured. */
export const CELL = 16;

/** The size of the picture that holds the grain of another one. */
export const grainSize = ({ width, height }: Size): Size => ({ width: Math.ceil(width / CELL), height: Math.ceil(height / CELL) });

/**
 * Measures the grain of a picture, of 8 or 16 bits a channel, into the first level of one of `grainSize`: as red, green and blue the deviation of its highest
 * octave in eighths of a level, as alpha what is left of that from octave to octave.
 */
export function measureGrain({ kernels }: Machine, from: Picture, target: Picture): void {
  kernels.measureGrain(from.levels[0], from.width, from.height, from.deep ? 1 : 0, target.levels[0], target.width, target.height, CELL);
}
