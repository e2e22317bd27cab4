import { materialById } from '../materials';
import type { FirstSpec, StartStep } from '../materials/first';
import { treatmentByKind } from '../treatments';
import type { Coat } from '../piece/schema';
import type { SpecOf } from './control';

export type Plain = Pick<Coat, 'blend' | 'strength' | 'treatments'>;

/** First controls of a coat's material, in the order of the page; none for other sources and own pictures. */
export const firstOf = ({ source }: Pick<Coat, 'source'>): readonly FirstSpec[] => {
  const { kind, id } = source as unknown as { kind: string; id: string };
  return kind === 'material' && !id.startsWith('own:') ? (materialById(id).first ?? []) : [];
};

export const specOf = <K extends FirstSpec['control']>(coat: Pick<Coat, 'source'>, control: K): SpecOf<K> | undefined =>
  firstOf(coat).find((spec): spec is SpecOf<K> => spec.control === control);

/** A step with all its values. */
export const wholeStep = (step: StartStep): Coat['treatments'][number] =>
  ({ active: true, strength: 1, mode: 'normal', ...treatmentByKind(step.kind).schema.parse(step) }) as unknown as Coat['treatments'][number];

/** Mode, strength and steps with which a new coat of the material begins, before any first control is on. */
export function plainStart({ source }: Pick<Coat, 'source'>): Plain {
  const { suggest, start } = materialById(String((source as { id?: string }).id));
  return { ...suggest, treatments: (start?.steps ?? []).map(wholeStep) };
}

/** What a control that is switched off gives back: what it replaced when it was switched on, or how the material begins. */
export const replacedBy = (coat: Coat, control: string): Plain => (coat.replaced?.[control] as Plain | undefined) ?? plainStart(coat);

/** Remembers what a control replaces, or forgets it with null. */
export function remember(coat: Coat, control: string, plain: Plain | null): Coat['replaced'] {
  const { [control]: _gone, ...others } = coat.replaced ?? {};
  const next = plain ? { ...others, [control]: plain } : others;
  return Object.keys(next).length > 0 ? (next as Coat['replaced']) : undefined;
}

export const plainOf = ({ blend, strength, treatments }: Coat): Plain => ({ blend, strength, treatments });
