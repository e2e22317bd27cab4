import { Heap } from '../image/heap';
import type { Machine } from '../image/machine';
import type { Region } from '../image/tile';
import { finish, type Finished } from './finish';
import { evaluate, type CoarsePlanes } from './making/evaluate';
import { frameOf, wholeOf, type Frame } from './making/frame';
import type { Value } from './making/operation';
import type { Material, MaterialPart } from './material';
import { Sheet } from './sheet';
import type { Lighting } from './sheetLight';

/** Planes a generator may hold at once, its own and the finishing ones. */
const PLANES = 26;
/** Least working memory: decisions are made at a fixed size. */
const LEAST_SCRATCH = 40 * 2 ** 20;
/** Up to this long side, materials with fine lines are made at twice the size. */
const SMALL = 512;

export interface MaterialOrder {
  material: Material;
  params: Record<string, unknown>;
  seed: number;
  width: number;
  height: number;
  /** Width by height of what is wanted, where the sides are a little longer for being multiples of 16. */
  aspect?: number;
  part?: MaterialPart;
  lighting?: Lighting;
}

/** Bytes of working memory for a material of that size, freed after it is made. */
export function materialScratch(width: number, height: number): number {
  const twice = Math.max(width, height) <= SMALL ? 4 : 1;
  return Math.max(LEAST_SCRATCH, twice * width * height * 4 * (PLANES + 2) + 8 * 2 ** 20);
}

/** Bytes a pixel of a picture of a material. */
export const partBytes = (part: MaterialPart = 'look'): number => (part === 'height' ? 8 : 4);

/** Memory that materials are worked out in. */
export const workingMemory = (at: number, size: number): Heap =>
  new Heap(undefined, { at, size }, 'A material needs more working memory than it was given.');

/** A material before a size is chosen: the steps by which it is made, and how its planes become a picture. */
export interface Draft {
  finished: Finished;
  wrap: boolean;
  right: number;
  bottom: number;
  seed: number;
}

/** Writes down the steps of a material. Parameters are validated. */
export function draftOf(machine: Machine, memory: Heap, order: Omit<MaterialOrder, 'width' | 'height'> & { aspect: number }): Draft {
  const { material, seed, aspect, part = 'look', lighting } = order;
  const wrap = material.seamless && aspect === 1;
  const sheet = new Sheet(machine, memory, { seed, wrap, aspect });
  const finished = finish(sheet, material.paint(sheet, material.params.parse(order.params)), part, lighting);
  return { finished, wrap, right: sheet.right, bottom: sheet.bottom, seed };
}

/** The frame of a draft at a size; sides are multiples of `grid`. */
export const draftFrame = ({ right, bottom, wrap }: Draft, size: number, grid?: number): Frame => frameOf(size, right, bottom, wrap, grid);

/** The planes that make up a draft's picture. */
export const planesOfDraft = ({ finished }: Draft): Value[] => finished.planes;

interface Drawn {
  machine: Machine;
  memory: Heap;
  frame: Frame;
  window?: Region;
  coarse?: CoarsePlanes;
}

/** Draws a draft, or a window of it, row after row to `target`. */
export function drawDraft(draft: Draft, place: Drawn, target: number): void {
  const region = place.window ?? wholeOf(place.frame);
  evaluate(planesOfDraft(draft), place, (planes) => draft.finished.put(place, planes, region, target));
}

/** The frame in which a whole material is drawn: one with fine lines that is small is drawn twice as large, and halved. */
export function wholeFrame({ wrap }: Draft, { material, width, height }: Pick<MaterialOrder, 'material' | 'width' | 'height'>): Frame {
  const size = Math.max(width, height);
  const k = material.fine && size <= SMALL ? 2 : 1;
  return { width: k * width, height: k * height, size: k * size, wrap };
}

/** Draws a whole material at `target`. @throws RangeError unless the sides are multiples of 16. */
export function drawWhole(draft: Draft, machine: Machine, memory: Heap, order: MaterialOrder, target: number): void {
  const { width, height, part = 'look' } = order;
  if (width % 16 || height % 16) throw new RangeError(`A material's sides must be multiples of 16, got ${width} × ${height}.`);
  const frame = wholeFrame(draft, order);
  if (frame.width === width) return drawDraft(draft, { machine, memory, frame }, target);
  const twice = memory.take(frame.width * frame.height * partBytes(part));
  drawDraft(draft, { machine, memory, frame }, twice);
  (part === 'height' ? machine.kernels.halveDeep : machine.kernels.halve)(twice, frame.width, frame.height, target);
  memory.give(twice);
}

/**
 * Makes a whole material at `target`, with working memory at `start`: as RGBA8, or its height in 16 bits a channel. Parameters are validated.
 * @throws RangeError unless the sides are multiples of 16.
 */
export function generate(machine: Machine, order: MaterialOrder, target: number, start: number): void {
  const { width, height, aspect = width / height } = order;
  const memory = workingMemory(start, materialScratch(width, height));
  drawWhole(draftOf(machine, memory, { ...order, aspect }), machine, memory, order, target);
}
