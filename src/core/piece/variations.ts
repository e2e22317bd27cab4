import { controlsOf, type ControlEntry } from '../schema';
import { sourceByKind } from '../sources';
import { treatmentByKind } from '../treatments';
import { changeStep, exchangeSource, type Edit, type SourceInput } from './edits';
import type { Coat } from './schema';

/** One way a coat could be; `edit` makes it so. */
export interface Candidate {
  key: string;
  name: string;
  /** Whether the coat is like that already. */
  now: boolean;
  edit: Edit;
}

/** Part strengths at which a step is shown. */
const STRENGTHS = [0.25, 0.5, 0.75, 1];
/** Of a control's present value: steps of half a doubling. */
const FACTORS = [0.35, 0.5, 0.71, 1.41, 2, 2.83];
/** How many other seeds are shown. */
const SEEDS = 6;

type Values = Record<string, unknown>;

/** What of a coat can be varied: its source (`source`) and its steps by their place, with the name that they are shown under. */
export function variedSteps(coat: Coat): { value: string; label: string }[] {
  const source = sourceByKind(coat.source.kind as string);
  const own = source.kind !== 'material' && slidersOf(source.schema).length > 0 ? [{ value: 'source', label: source.label }] : [];
  return [
    ...own,
    ...coat.treatments.flatMap((t, i) => (t.kind === 'tone' ? [] : [{ value: String(i), label: treatmentByKind(t.kind as string).label }])),
  ];
}

/** One step of a coat, or its source, over a few of its own strengths, choices, sizes and seeds; as it is now comes first. */
export function variationsOf(coat: Coat, step: string | undefined): Candidate[] {
  if (step === undefined) return [];
  const isSource = step === 'source';
  const values = (isSource ? coat.source : coat.treatments[Number(step)]) as Values | undefined;
  if (!values) return [];
  const { schema } = isSource ? sourceByKind(values.kind as string) : treatmentByKind(values.kind as string);
  const edit = (change: Values) =>
    isSource ? exchangeSource(coat.id, { ...values, ...change } as SourceInput) : changeStep(coat.id, Number(step), { ...values, ...change });
  const one = (name: string, change: Values): Candidate => {
    const [[key, value]] = Object.entries(change);
    return { key: `${key}=${String(value)}`, name, now: values[key] === value, edit: edit(change) };
  };
  return [
    { key: 'now', name: 'As it is', now: true, edit: (piece) => piece },
    ...(isSource ? [] : STRENGTHS.map((strength) => one(`Strength ${Math.round(strength * 100)} %`, { strength })).filter((c) => !c.now)),
    ...choicesOf(schema).flatMap(({ key, meta }) =>
      (meta.choices ?? []).filter(({ value }) => value !== values[key]).map(({ value, label }) => one(label, { [key]: value })),
    ),
    ...slidersOf(schema)
      .slice(0, 2)
      .flatMap((control) => sizesOf(control, values).map(({ name, value }) => one(name, { [control.key]: value }))),
    ...(typeof values.seed === 'number'
      ? Array.from({ length: SEEDS }, (_, i) => one(`Variation ${i + 2}`, { seed: ((values.seed as number) * 31 + 7 * (i + 1)) % 9973 }))
      : []),
  ];
}

const choicesOf = (schema: Parameters<typeof controlsOf>[0]) => controlsOf(schema).filter(({ meta }) => meta.control === 'choice');
/** Sliders that say how much or how large, in the order of the panel: not an angle, nor what keeps faces finer. */
const slidersOf = (schema: Parameters<typeof controlsOf>[0]) =>
  controlsOf(schema).filter(({ key, meta }) => meta.control === 'slider' && meta.unit !== '°' && key !== 'keep' && (meta.min ?? 0) >= 0);

/** Other values of a slider about the present one, or along its whole length where that is zero. */
function sizesOf({ key, meta }: ControlEntry, values: Values): { name: string; value: number }[] {
  const now = Number(values[key]);
  const { min = 0, max = 1, step = 0.01, factor = 1, unit } = meta;
  const wanted = now > min ? FACTORS.map((k) => now * k) : [0.25, 0.5, 0.75, 1].map((part) => min + part * (max - min));
  const rounded = wanted.map((v) => Math.round(Math.min(max, Math.max(min, v)) / step) * step).map((v) => Math.round(v * 1e4) / 1e4);
  return [...new Set(rounded)]
    .filter((v) => v !== now)
    .map((value) => ({ value, name: `${meta.label} ${Math.round(value * factor * 10) / 10}${unit && unit !== 'u' ? ` ${unit}` : ''}` }));
}
