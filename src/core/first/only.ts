import type { Only, Stops } from '../materials/first';
import type { Coat } from '../piece/schema';
import { slotOf, withSlot } from './chain';
import { defineFirst } from './control';
import { settled } from './ground';
import { plainOf, remember, replacedBy, specOf, wholeStep } from './start';
import { amountAt, valueAt } from './stops';

const isStops = (v: number | Stops): v is Stops => typeof v !== 'number';
const at = (v: number | Stops, amount: number) => (isStops(v) ? valueAt(v, amount) : v);
/** Where the darks of light marks on black are cut off: from here on it is more than the amount's own black. */
const CUT = 0.045;

const TONES = ['split', 'tone', 'levels', 'remap', 'tint'];

export const isOn = (coat: Coat, spec: Only): boolean => {
  const levels = slotOf(coat, 'levels');
  if (!levels) return false;
  return isStops(spec.black) ? Number(levels.black) > CUT : !spec.marks || slotOf(coat, 'remap') !== undefined;
};

/** The coat without the steps that tone it, and with those of `from` instead. */
export const withTonesOf = (coat: Coat, from: Pick<Coat, 'treatments'>): Coat['treatments'] => {
  let steps = coat.treatments;
  for (const kind of TONES) {
    steps = withSlot(steps, kind, null);
    const there = slotOf(from, kind);
    if (there) steps = withSlot(steps, kind, there);
  }
  return steps;
};

/** Switches it off: the mode, strength and tones that it replaced come back; colour, form and relief stay. */
export function off(coat: Coat, spec: Only): Coat {
  const before = replacedBy(coat, 'only');
  const colour = slotOf(coat, 'remap')?.dark;
  const range = slotOf(coat, 'levels');
  let treatments = withTonesOf(coat, before);
  if (spec.marks && colour !== undefined && colour !== spec.marks.colour) treatments = withSlot(treatments, 'tint', { colour, amount: 1 });
  const amount = specOf(coat, 'amount');
  if (isStops(spec.black) && amount && range) treatments = withSlot(treatments, 'levels', { black: amount.black, white: range.white });
  const dark = slotOf(coat, 'invert') !== undefined;
  const look = dark ? { blend: coat.blend, strength: coat.strength } : { blend: before.blend, strength: before.strength };
  return { ...coat, ...look, treatments, replaced: remember(coat, 'only', null) };
}

/** Keeps the marks and drops the ground: levels find them, a gradient map only colours them, so that none can vanish. */
export default defineFirst({
  control: 'only',
  shape: 'amount',
  label: ({ label }) => label,
  help: 'Keeps the marks and drops the rest.',
  begins: 0.6,
  read(coat, spec) {
    const levels = slotOf(coat, 'levels');
    if (!levels || !isOn(coat, spec)) return 0;
    if (isStops(spec.black)) return amountAt(spec.black, Number(levels.black));
    return isStops(spec.white) ? amountAt(spec.white, Number(levels.white)) : 1;
  },
  write(coat, spec, value) {
    const amount = Number(value ?? 0);
    const was = isOn(coat, spec);
    if (amount === 0) return was ? off(coat, spec) : {};
    const black = at(spec.black, amount);
    if (was) {
      const white = isStops(spec.black) ? {} : { white: at(spec.white, amount) };
      return { treatments: withSlot(coat.treatments, 'levels', { black, ...white }) };
    }
    const white = isStops(spec.black) ? Number(slotOf(coat, 'levels')?.white ?? at(spec.white, amount)) : at(spec.white, amount);
    const tint = slotOf(coat, 'tint');
    const tones: Coat['treatments'] = [];
    if (spec.detail) tones.push(wholeStep({ kind: 'split', radius: spec.detail[0], detail: spec.detail[1], colour: 0 }));
    if (spec.grey) tones.push(wholeStep({ kind: 'tone', saturation: -1 }));
    tones.push(wholeStep({ kind: 'levels', black, white }));
    if (spec.marks) {
      const dark = tint ? tint.colour : spec.marks.colour;
      tones.push(wholeStep({ kind: 'remap', dark, middle: spec.marks.ground, light: spec.marks.ground, midpoint: 0.98 }));
    } else if (tint) tones.push(tint);
    const dark = slotOf(coat, 'invert') !== undefined;
    return settled(coat, {
      treatments: withTonesOf(coat, { treatments: tones }),
      ...(dark ? {} : { blend: spec.blend, strength: spec.strength }),
      replaced: remember(coat, 'only', plainOf(coat)),
    });
  },
});
