import { treatmentByKind } from '../treatments';
import type { Coat } from '../piece/schema';

type Steps = Coat['treatments'];
type Step = Steps[number] & Record<string, unknown>;

/**
 * The order in which steps of first controls work: detail, tone, range, inversion, colour of the marks, form, relief. In any other order a relief or a
 * displacement after the marks were coloured would make thin marks vanish.
 */
const ORDER = ['split', 'tone', 'levels', 'invert', 'remap', 'tint', 'drape', 'relief'];

export const slotOf = (coat: Pick<Coat, 'treatments'>, kind: string): Step | undefined =>
  coat.treatments.find((t) => t.kind === kind && t.active) as Step | undefined;

/**
 * Sets the first step of a kind, or takes it out with null. One that is new comes in its place in the chain, and those of the chain that are there are
 * brought into its order; other steps stay where they are.
 */
export function withSlot(steps: Steps, kind: string, values: Record<string, unknown> | null): Steps {
  const at = steps.findIndex((t) => t.kind === kind);
  if (values === null) return at < 0 ? steps : steps.filter((_, i) => i !== at);
  const { schema, neutral } = treatmentByKind(kind);
  const next = { active: true, strength: 1, mode: 'normal', ...schema.parse({ kind }), ...(at < 0 ? {} : steps[at]), ...values };
  if (neutral(next as never)) return withSlot(steps, kind, null);
  const step = { ...next, active: true } as unknown as Step;
  return inOrder(at < 0 ? [...steps, step] : steps.map((t, i) => (i === at ? step : t)));
}

/** The first step of each kind of the chain, in its order, on the places that they hold together. */
function inOrder(steps: Steps): Steps {
  const places = ORDER.flatMap((kind) => {
    const at = steps.findIndex((t) => t.kind === kind);
    return at < 0 ? [] : [at];
  });
  const sorted = [...places].sort((a, b) => a - b);
  const next = [...steps];
  sorted.forEach((to, i) => (next[to] = steps[places[i]]));
  return next;
}
