import type { Machine } from '../image/machine';
import { levelSize, type Level, type Picture } from '../image/picture';
import type { Scratch } from '../image/tile';
import type { Stroke } from './schema';

/** Pictures of the grain of tips that are cut from materials, by `tipKey`. */
export type Tips = Record<string, Picture>;

/** Values of the histogram of a cut tip. */
const BINS = 128;

/** Key under which the grain of a cut tip is loaded. */
export const tipKey = ({ material, marks }: Pick<Stroke, 'material' | 'marks'>): string =>
  material ? `${material.file ?? `${material.id}:${material.seed}`}:${marks}` : '';

/** What a tip is cut from, and whether its dark or its light marks print. */
export interface TipOrder {
  from: Level;
  marks: Stroke['marks'];
}

/** Writes the grain with which a picture prints; its smaller levels are averages of the grain, so that a small dab shows what a large one would from afar. */
export function cutTip(machine: Machine, scratch: Scratch, { from, marks }: TipOrder, target: Picture): void {
  const mark = scratch.mark();
  machine.kernels.cutTip(from.at, from.width, from.height, +(marks === 'darks'), target.levels[0], scratch.take(4 * BINS));
  scratch.release(mark);
}

/** Address, width and height of each level of a tip, in scratch memory, as a kernel reads them. */
export function levelTable({ machine, scratch }: { machine: Machine; scratch: Scratch }, tip: Picture): number {
  const at = scratch.take(tip.levels.length * 12);
  new Int32Array(machine.memory.buffer, at, tip.levels.length * 3).set(tip.levels.flatMap((level, l) => [level, ...levelSize(tip, l)]));
  return at;
}
