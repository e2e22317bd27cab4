import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { settled } from './ground';
import { isOn } from './only';
import { specOf } from './start';

/** The colour of the marks where they are alone, else a tint over the whole material. */
export default defineFirst({
  control: 'colour',
  shape: 'colour',
  label: () => 'Colour',
  help: 'Colours the marks, or all of the texture.',
  begins: 1,
  read(coat) {
    const only = specOf(coat, 'only');
    const colour = only?.marks && isOn(coat, only) ? slotOf(coat, 'remap')?.dark : slotOf(coat, 'tint')?.colour;
    return colour === undefined ? null : String(colour);
  },
  write(coat, _spec, value) {
    const only = specOf(coat, 'only');
    if (only?.marks && isOn(coat, only)) {
      return settled(coat, { treatments: withSlot(coat.treatments, 'remap', { dark: value ?? only.marks.colour }) });
    }
    return { treatments: withSlot(coat.treatments, 'tint', value === null ? null : { colour: value, amount: 1 }) };
  },
});

/** Colours to take at a tap, besides those of the photo. */
export const swatches = [
  { name: 'Brown', colour: '#3a2314' },
  { name: 'Black', colour: '#16110d' },
  { name: 'Chalk', colour: '#f4efe6' },
  { name: 'Gold', colour: '#dcae52' },
] as const;
