import type { FirstSpec } from '../materials/first';
import type { Coat } from '../piece/schema';

export type SpecOf<K extends FirstSpec['control']> = Extract<FirstSpec, { control: K }>;

/** 0 or null is off: an amount of a switch, a value of a slider, or a colour. */
export type FirstValue = number | string | null;

/** What a first control changes of a coat. */
export type Change = Partial<Coat>;

/** A first control: it reads its value from the coat's own steps, which stand in full on their tabs, and writes them. */
export interface FirstControl<K extends FirstSpec['control']> {
  control: K;
  /** `amount` is a switch with an amount behind it. */
  shape: 'amount' | 'slider' | 'switch' | 'colour' | 'parameter' | 'size';
  label(spec: SpecOf<K>): string;
  help: string;
  /** Least amount, where it also goes below 0. */
  min?: number;
  /** Amount that the switch turns on. */
  begins: number;
  read(coat: Coat, spec: SpecOf<K>): FirstValue;
  write(coat: Coat, spec: SpecOf<K>, value: FirstValue): Change;
}

export const defineFirst = <K extends FirstSpec['control']>(control: FirstControl<K>): FirstControl<K> => control;
