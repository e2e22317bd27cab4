import type { Region } from '../../image/tile';
import { around, onGrid, wholeOf, type Frame } from './frame';
import type { Operation, Step, Value } from './operation';

/** What a step does: steps are typed by their own operation only where they are written. */
export const operationOf = (step: Step): Operation => step.operation as unknown as Operation;

/** Steps that are at hand from a smaller drawing of the whole sheet. */
export type AtHand = Pick<ReadonlyMap<number, unknown>, 'has'>;

/** The steps that lead to some planes, in their order, and the part of the sheet that each must cover. */
export interface Schedule {
  frame: Frame;
  /** What is wanted, and the inputs of each step, without steps that are idle at this size. */
  wanted: Value[];
  inputs: Map<number, Value[]>;
  steps: Step[];
  regions: Map<number, Region>;
  /** How often each plane of each step is still read; by step, then plane. */
  uses: Map<number, number[]>;
}

/** How a step comes about: made from its inputs, taken from the smaller drawing, or both. */
export function wayOf(step: Step, atHand: AtHand | undefined): 'made' | 'instead' | 'beside' {
  return (atHand?.has(step.id) && operationOf(step).coarse?.(step.params)) || 'made';
}

/** The plane itself, or where its step is idle at this size, what it would have changed. */
function busy(value: Value, frame: Frame): Value {
  while (operationOf(value.step).isIdle?.(value.step.params, frame)) value = value.step.inputs[0];
  return value;
}

/** Plans what must be made for planes in a region of a frame, or in all of it. */
export function schedule(asked: Value[], frame: Frame, window?: Region, atHand?: AtHand): Schedule {
  const wanted = asked.map((value) => busy(value, frame));
  const inputs = new Map<number, Value[]>();
  const found = new Map<number, Step>();
  const stack = wanted.map(({ step }) => step);
  for (let step = stack.pop(); step; step = stack.pop()) {
    if (found.has(step.id)) continue;
    found.set(step.id, step);
    const read = wayOf(step, atHand) === 'instead' ? [] : step.inputs.map((value) => busy(value, frame));
    inputs.set(step.id, read);
    stack.push(...read.map((input) => input.step));
  }
  const steps = [...found.values()].sort((a, b) => a.id - b.id);
  const regions = new Map<number, Region>();
  const uses = new Map(steps.map((step) => [step.id, Array<number>(operationOf(step).planes ?? 1).fill(0)]));
  const count = ({ step, plane }: Value) => ((uses.get(step.id) as number[])[plane] += 1);
  const whole = wholeOf(frame);
  for (const value of wanted) {
    count(value);
    regions.set(value.step.id, window ? around(regions.get(value.step.id), window) : whole);
  }
  for (const step of [...steps].reverse()) {
    const region = window ? onGrid(regions.get(step.id) as Region, frame) : whole;
    regions.set(step.id, region);
    const { reads } = operationOf(step);
    const read = window && reads ? reads(step.params, frame, region) : region;
    for (const input of inputs.get(step.id) as Value[]) {
      count(input);
      regions.set(input.step.id, window ? around(regions.get(input.step.id), read) : whole);
    }
  }
  return { frame, wanted, inputs, steps, regions, uses };
}
