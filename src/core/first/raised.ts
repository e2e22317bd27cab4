import type { Coat } from '../piece/schema';
import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { settled } from './ground';
import { amountAt, valueAt } from './stops';
import type { Stops } from '../materials/first';

/** Half the depth at 30 %, 1.7 times at 100 %, at most all of it. */
const depths = (depth: number): Stops => [depth / 2, depth, Math.min(1, depth * 1.7)];

/** A material has a height of its own. Where only its marks are left, they are what is raised. */
const hasHeight = (coat: Pick<Coat, 'source' | 'treatments'>) => coat.source.kind === 'material' && !slotOf(coat, 'remap');

/** Raised or pressed in, lit from the top left. In hard light level ground is mid grey and changes nothing. */
export default defineFirst({
  control: 'raised',
  shape: 'amount',
  label: () => 'Raised',
  help: 'Lights the surface from one side; negative presses it in.',
  min: -1,
  begins: 0.6,
  read(coat, { depth }) {
    const step = slotOf(coat, 'relief');
    if (!step) return 0;
    const d = Number(step.depth);
    return Math.sign(d) * amountAt(depths(depth), Math.abs(d), 0);
  },
  write(coat, { depth, soften }, value) {
    const a = Number(value ?? 0);
    if (a === 0) return settled(coat, { treatments: withSlot(coat.treatments, 'relief', null) });
    const made = slotOf(coat, 'relief') ? {} : { map: hasHeight(coat) ? 'height' : 'own', soften, direction: 315, elevation: 45, mode: 'hard-light' };
    return settled(coat, {
      treatments: withSlot(coat.treatments, 'relief', { ...made, depth: Math.sign(a) * valueAt(depths(depth), Math.abs(a), 0) }),
    });
  },
});
