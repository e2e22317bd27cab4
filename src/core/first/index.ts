import type { FirstSpec } from '../materials/first';
import type { Coat } from '../piece/schema';
import amount from './amount';
import colour from './colour';
import colourStrength from './colour-strength';
import type { FirstControl, FirstValue } from './control';
import dark from './dark';
import form from './form';
import grain from './grain';
import limits from './limits';
import only from './only';
import parameter from './parameter';
import raised from './raised';
import size from './size';

/** Every first control that a material can declare. */
const controls = [only, amount, colour, raised, form, grain, colourStrength, dark, limits, parameter, size];
const byKind = new Map(controls.map((c) => [c.control, c as unknown as FirstControl<FirstSpec['control']>]));

/** @throws RangeError for one that is not there. */
export function firstControl({ control }: FirstSpec): FirstControl<FirstSpec['control']> {
  const found = byKind.get(control);
  if (!found) throw new RangeError(`There is no first control called "${control}".`);
  return found;
}

export const readFirst = (coat: Coat, spec: FirstSpec): FirstValue => firstControl(spec).read(coat, spec);

/** The coat with a first control set; 0 or null switches it off. */
export const withFirst = (coat: Coat, spec: FirstSpec, value: FirstValue): Coat => ({ ...coat, ...firstControl(spec).write(coat, spec, value) });

export { swatches } from './colour';
export { firstOf, plainStart, specOf } from './start';
export type { FirstValue } from './control';
