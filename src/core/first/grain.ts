import type { Coat } from '../piece/schema';
import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { isOn, off } from './only';
import { plainOf, remember, replacedBy, specOf } from './start';
import { amountAt, valueAt } from './stops';

/** Weight of the fine detail. */
const WEIGHTS = [1.25, 1.5, 2] as const;
/** Radius of fine detail and of broad colour, in u. */
export const FINE = 14;
export const BROAD = 40;

export const isGrainOn = (coat: Coat): boolean => {
  const split = slotOf(coat, 'split');
  return split !== undefined && Number(split.radius) < BROAD && Number(split.detail) > 1;
};

/** A control of the ground shows the ground again. */
export const withGround = (coat: Coat): Coat => {
  const only = specOf(coat, 'only');
  return only && isOn(coat, only) && only.marks ? off(coat, only) : coat;
};

export default defineFirst({
  control: 'grain',
  shape: 'amount',
  label: () => 'Grain',
  help: 'Strengthens the fine structure alone.',
  begins: 0.6,
  read: (coat) => (isGrainOn(coat) ? amountAt(WEIGHTS, Number(slotOf(coat, 'split')?.detail), 1) : 0),
  write(before, { grey }, value) {
    const coat = withGround(before);
    const amount = Number(value ?? 0);
    if (amount === 0) {
      if (!isGrainOn(coat)) return coat;
      const colour = Number(slotOf(coat, 'split')?.colour);
      const replaced = remember(coat, 'grain', null);
      // A colour strength that was set meanwhile stays.
      if (colour > 0 && colour < 1) {
        return { ...coat, treatments: withSlot(coat.treatments, 'split', { radius: BROAD, detail: 1 }), replaced };
      }
      const plain = replacedBy(coat, 'grain');
      const from = (kind: string) => {
        const step = plain.treatments.find((t) => t.kind === kind);
        // The material's own grain is not what is wanted when it is switched off.
        return kind === 'split' && step && isGrainOn({ ...coat, treatments: [step] }) ? null : (step ?? null);
      };
      const treatments = withSlot(withSlot(coat.treatments, 'split', from('split')), 'tone', grey ? from('tone') : (slotOf(coat, 'tone') ?? null));
      return { ...coat, treatments, replaced };
    }
    const weight = valueAt(WEIGHTS, amount, 1);
    if (isGrainOn(coat)) return { ...coat, treatments: withSlot(coat.treatments, 'split', { detail: weight }) };
    const kept = slotOf(coat, 'split')?.colour;
    const colour = kept ?? (grey ? 0 : 1);
    const treatments = withSlot(coat.treatments, 'split', { radius: FINE, detail: weight, colour });
    return {
      ...coat,
      treatments: grey && kept === undefined ? withSlot(treatments, 'tone', { saturation: -1 }) : treatments,
      replaced: remember(coat, 'grain', plainOf(coat)),
    };
  },
});
