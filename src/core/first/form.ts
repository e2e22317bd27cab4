import type { Stops } from '../materials/first';
import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { amountAt, valueAt } from './stops';

/** Displacement from black to white, in u, and how far the map is softened. */
const BY: Record<'below' | 'photo', { stops: Stops; blur: number }> = {
  below: { stops: [6, 14, 28], blur: 8 },
  photo: { stops: [12, 30, 60], blur: 6 },
};

export default defineFirst({
  control: 'form',
  shape: 'amount',
  label: () => 'Follow the form',
  help: 'Shifts the texture by the light and dark under it.',
  begins: 0.6,
  read(coat, { map }) {
    const step = slotOf(coat, 'drape');
    if (step?.map === 'form') return Number(step.form);
    return step ? amountAt(BY[map].stops, Math.abs(Number(step.amountX)), 0) : 0;
  },
  write(coat, { map }, value) {
    const amount = Number(value ?? 0);
    if (amount > 0 && slotOf(coat, 'drape')?.map === 'form') return { treatments: withSlot(coat.treatments, 'drape', { form: amount }) };
    const { stops, blur } = BY[map];
    const shift = Math.round(valueAt(stops, amount, 0));
    const made = slotOf(coat, 'drape') ? {} : { map, blur };
    return { treatments: withSlot(coat.treatments, 'drape', amount === 0 ? null : { ...made, amountX: shift, amountY: shift }) };
  },
});
