import type { Heap } from '../image/heap';
import type { Machine } from '../image/machine';
import { draftFrame, planesOfDraft, type Draft } from './generate';
import { evaluate, type CoarsePlane, type CoarsePlanes } from './making/evaluate';
import { frameOf, type Frame } from './making/frame';
import type { Step, Value } from './making/operation';
import { peakBytes } from './making/peak';
import { operationOf, schedule } from './making/schedule';

/** Long side of the smaller drawing from which windows take what reaches far. */
const COARSE_SIDE = 1024;
/** Sides of sheets that are drawn in windows are multiples of this: blurs are done on planes that are halved up to four times, four pixels at a time. */
export const SHEET_GRID = 64;

/**
 * The sheet that windows of a draft are parts of, `size` pixels on its long side. One that is to be repeated has a multiple of 64: then its blurs meet at its
 * edges to the byte.
 */
export function sheetFrame(draft: Draft, size: number): Frame {
  const frame = draftFrame(draft, size, SHEET_GRID);
  return frame.wrap ? { ...frame, width: size, height: size } : frame;
}

/** The sides of a sheet of an aspect, width by height. */
export function sheetSize({ aspect, size }: { aspect: number; size: number }): { width: number; height: number } {
  const { width, height } = frameOf(size, Math.min(1, aspect), Math.min(1, 1 / aspect), false, SHEET_GRID);
  return { width, height };
}

const coarseFrame = (draft: Draft, step: Step): Frame => draftFrame(draft, operationOf(step).coarseSide ?? COARSE_SIDE);

/** The steps that windows take from the smaller drawing, in their order. */
export function coarseSteps(draft: Draft): Step[] {
  const seen = new Set<number>();
  const found: Step[] = [];
  const stack = planesOfDraft(draft).map(({ step }) => step);
  for (let step = stack.pop(); step; step = stack.pop()) {
    if (seen.has(step.id)) continue;
    seen.add(step.id);
    const way = operationOf(step).coarse?.(step.params);
    if (way) found.push(step);
    if (way !== 'instead') stack.push(...step.inputs.map((input) => input.step));
  }
  return found.sort((a, b) => a.id - b.id);
}

const bytesOf = ({ width, height }: Frame) => width * height * 4;

/** Bytes of what windows of a draft take from smaller drawings. */
export const coarseBytes = (draft: Draft): number => coarseSteps(draft).reduce((sum, step) => sum + bytesOf(coarseFrame(draft, step)), 0);

/** Where what windows take lies, once it is drawn to `at`. */
export function coarseAt(draft: Draft, at: number): CoarsePlanes {
  const planes = new Map<number, CoarsePlane>();
  for (const step of coarseSteps(draft)) {
    const frame = coarseFrame(draft, step);
    planes.set(step.id, { frame, at });
    at += bytesOf(frame);
  }
  return planes;
}

/** What windows take, by the frames of the smaller drawings. */
function coarseDrawings(draft: Draft): { frame: Frame; steps: Step[] }[] {
  const bySide = new Map<number, { frame: Frame; steps: Step[] }>();
  for (const step of coarseSteps(draft)) {
    const frame = coarseFrame(draft, step);
    const one = bySide.get(frame.size) ?? { frame, steps: [] };
    one.steps.push(step);
    bySide.set(frame.size, one);
  }
  return [...bySide.values()];
}

const valuesOf = (steps: Step[]): Value[] => steps.map((step) => ({ step, plane: 0 }));

/** Draws to `at` what windows take from smaller drawings. */
export function drawCoarse(draft: Draft, machine: Machine, memory: Heap, at: number): void {
  const planes = coarseAt(draft, at);
  for (const { frame, steps } of coarseDrawings(draft))
    evaluate(valuesOf(steps), { machine, memory, frame }, (made) =>
      made.forEach(({ ptr }, i) => machine.bytes.copyWithin((planes.get(steps[i].id) as CoarsePlane).at, ptr, ptr + bytesOf(frame))),
    );
}

/** Bytes of working memory for that. */
export const coarseScratch = (draft: Draft): number =>
  Math.max(0, ...coarseDrawings(draft).map(({ frame, steps }) => peakBytes(schedule(valuesOf(steps), frame))));

/** Most pixels on a side of a window that is drawn at once. */
export const WINDOW = 768;

/** Bytes of working memory for drawing windows of a sheet of that size. */
export function windowScratch(draft: Draft, size: number): number {
  const coarse = coarseAt(draft, 0);
  const frame = sheetFrame(draft, size);
  const side = (length: number) => Math.min(WINDOW, length);
  const window = { x: 0, y: 0, width: side(frame.width), height: side(frame.height) };
  // Away from the border, where margins lie all around.
  const inner = frame.wrap
    ? window
    : { ...window, x: Math.max(0, frame.width - window.width) >> 1, y: Math.max(0, frame.height - window.height) >> 1 };
  return peakBytes(schedule(planesOfDraft(draft), frame, inner, coarse));
}
