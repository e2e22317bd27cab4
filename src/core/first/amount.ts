import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { amountAt, valueAt } from './stops';

/** How much of the light that lies on black shows. */
export default defineFirst({
  control: 'amount',
  shape: 'amount',
  label: () => 'Amount',
  help: 'Brings out more of the faint marks.',
  begins: 0.6,
  read(coat, { white }) {
    const step = slotOf(coat, 'levels');
    return step ? amountAt(white, Number(step.white)) : 0;
  },
  write(coat, { black, white }, value) {
    const amount = Number(value ?? 0);
    const step = slotOf(coat, 'levels');
    // What "Only the marks" cuts off stays cut off.
    const cut = step && Number(step.black) > black ? Number(step.black) : black;
    const at = Math.min(1, valueAt(white, amount));
    if (amount === 0) return { treatments: withSlot(coat.treatments, 'levels', cut > black ? { white: 1 } : null) };
    return { treatments: withSlot(coat.treatments, 'levels', { black: cut, white: at }) };
  },
});
