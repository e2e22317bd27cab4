import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { plainOf, plainStart, remember, replacedBy } from './start';

/** Light marks on black become dark ones on white, and the other way round. */
export default defineFirst({
  control: 'dark',
  shape: 'switch',
  label: ({ label }) => label,
  help: 'Swaps light and dark, and the mode with them.',
  begins: 1,
  read: (coat) => (slotOf(coat, 'invert') ? 1 : 0),
  write(coat, { strength }, value) {
    const was = slotOf(coat, 'invert') !== undefined;
    if (Boolean(value) === was) return {};
    if (was) {
      const { blend, strength: before } = replacedBy(coat, 'dark');
      return { treatments: withSlot(coat.treatments, 'invert', null), blend, strength: before, replaced: remember(coat, 'dark', null) };
    }
    return {
      treatments: withSlot(coat.treatments, 'invert', {}),
      blend: plainStart(coat).blend === 'multiply' ? 'screen' : 'multiply',
      strength,
      replaced: remember(coat, 'dark', plainOf(coat)),
    };
  },
});
