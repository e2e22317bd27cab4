import type { Stops } from '../materials/first';
import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { BROAD, FINE, isGrainOn, withGround } from './grain';
import { amountAt, valueAt } from './stops';

/** Of pale papers, from −1 at 0 %: at 60 % their own. */
const PALE: Stops = [-0.6, 0, 0.4];
/** Of coloured grounds: saturation, and the soft colour under the grain. All of it is their own. */
const SATURATION: Stops = [-0.75, -0.5, 0];
const COLOUR: Stops = [0.25, 0.5, 1];

/** How much of the material's own colour it brings along. */
export default defineFirst({
  control: 'colour-strength',
  shape: 'slider',
  label: () => 'Colour strength',
  help: 'How much of its own colour it brings along.',
  begins: 1,
  read(coat, { by }) {
    const saturation = Number(slotOf(coat, 'tone')?.saturation ?? 0);
    if (by === 'saturation') return amountAt(PALE, saturation, -1);
    const split = slotOf(coat, 'split');
    return split ? amountAt(COLOUR, Number(split.colour), 0) : amountAt(SATURATION, saturation, -1);
  },
  write(before, { by, lift }, value) {
    const coat = withGround(before);
    const amount = Number(value ?? 0);
    const tone = slotOf(coat, 'tone');
    if (by === 'saturation') {
      // Grey paper looks darker than cream: it is lifted by as much as its colour goes.
      const own = Number(tone?.brightness ?? 0) - lift * lost(Number(tone?.saturation ?? 0));
      const saturation = valueAt(PALE, amount, -1);
      const brightness = Math.round((own + lift * lost(saturation)) * 1000) / 1000;
      return { ...coat, treatments: withSlot(coat.treatments, 'tone', { saturation, brightness }) };
    }
    const saturation = valueAt(SATURATION, amount, -1);
    const grain = isGrainOn(coat);
    const split =
      amount === 1 && !grain ? null : { radius: grain ? FINE : BROAD, colour: valueAt(COLOUR, amount, 0), ...(grain ? {} : { detail: 1 }) };
    return { ...coat, treatments: withSlot(withSlot(coat.treatments, 'split', split), 'tone', { saturation }) };
  },
});

const lost = (saturation: number) => Math.max(0, -saturation);
