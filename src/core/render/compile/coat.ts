import type { Need } from '../../graph/needs';
import { amountsOf, toneAmounts, type Amounts, type Guards } from '../../guards/schema';
import type { CutSubject } from '../../guards/subject';
import { innerCoats, isIsolated } from '../../piece/groups';
import type { Coat } from '../../piece/schema';
import type { Params } from '../../graph/node';
import { sourceByKind } from '../../sources';
import type { SourceStep } from '../../sources/source';
import { treatmentByKind } from '../../treatments';
import { isIdle, readsSmallerAlone, treatmentReach } from '../../treatments/run';
import type { GraphBuilder, Surroundings } from './builder';

/** Pixels to one u at which it is asked whether a treatment reads around a pixel at all. */
const ANY_UNIT = 1;

/** Adds what a coat starts from and its treatments. */
export function compileSource(builder: GraphBuilder, coat: Coat, around: Surroundings): number {
  const own = sourceByKind(coat.source.kind as string).finishes?.(coat.source) ?? [];
  const treatments = [...own, ...coat.treatments].filter((params) => !isIdle(params));
  let height: number | undefined;
  const heightOf = () => (height ??= addHeight(builder, coat));
  const [first] = treatments;
  // Where the look is replaced by a relief of the height, it is neither made nor drawn.
  const start = (first && readsHeightAlone(first) ? heightOf() : undefined) ?? compileStart(builder, coat, treatments, around);
  const within: Surroundings = { ...around, height: () => heightOf() ?? start };
  return treatments.reduce((node, params) => addTreatment(builder, node, params, within), start);
}

/** True when a treatment needs nothing of what it starts from but the height of its material. */
const readsHeightAlone = (params: Params): boolean => {
  const { inputs } = treatmentByKind(params.kind as string);
  return readsSmallerAlone(params, ANY_UNIT) && Object.values(inputs?.(params) ?? {}).includes('height');
};

/** Adds the height of a coat's material, laid as the coat is; undefined when its source has none. */
function addHeight(builder: GraphBuilder, { source, lay }: Coat): number | undefined {
  const needs = sourceByKind(source.kind as string).height?.(source, lay);
  // What reads around a pixel must not take the end of the picture for a cliff.
  return needs && builder.add('beyond', { how: 'extend' }, { inputs: { own: builder.add('source', { source, lay, part: 'height' }, { needs }) } });
}

function compileStart(builder: GraphBuilder, coat: Coat, treatments: readonly Params[], around: Surroundings): number {
  const { source, lay } = coat;
  const kind = sourceByKind(source.kind as string);
  if (kind.is === 'below') return around.below;
  if (kind.is === 'group') return compileGroup(builder, coat, around);
  const inputs = builder.inputsOf(kind, source, around);
  const steps = kind.steps?.(source) ?? [{ params: source, needs: kind.needs?.(source, lay) }];
  const laid = (below: number | undefined, { params, ...extra }: SourceStep) =>
    builder.add('source', { source: params, lay }, { inputs: below === undefined ? inputs : { ...inputs, own: below }, ...extra });
  const own = kind.is ? around[kind.is] : (steps.reduce(laid, undefined as number | undefined) as number);
  const readsBelow = Object.values(kind.inputs?.(source) ?? {}).includes('below');
  const wraps = !readsBelow && treatments.some((params) => treatmentByKind(params.kind as string).wraps?.(params));
  if (wraps) return builder.add('beyond', { how: 'wrap' }, { inputs: { own } });
  const reaches = treatments.some((params) => treatmentReach(params, ANY_UNIT) > 0);
  return kind.laid && reaches ? builder.add('beyond', { how: 'extend' }, { inputs: { own } }) : own;
}

/** Adds the coats of a group: over the coats below it, or over a transparent ground when it is isolated. */
function compileGroup(builder: GraphBuilder, group: Coat, { below, seen = below, stack }: Surroundings): number {
  const coats = innerCoats(group);
  return isIsolated(group) ? stack(coats, builder.add('clear', {}), seen) : stack(coats, below, seen);
}

/** Adds a treatment of a node. */
export function addTreatment(builder: GraphBuilder, own: number, params: Record<string, unknown>, around: Surroundings): number {
  const treatment = treatmentByKind(params.kind as string);
  const inputs = builder.inputsOf(treatment, params, around);
  const add = (all: Record<string, unknown>) => builder.add('treatment', all, { inputs: { own, ...inputs }, needs: treatment.needs?.(params) });
  const { strength = 1, mode = 'normal' } = params;
  if ((strength === 1 && mode === 'normal') || treatmentReach(params, ANY_UNIT) === 0) return add(params);
  // What reads around itself is costly: it is kept while only its strength or mode changes.
  return builder.add('laid', { strength, mode }, { inputs: { own, done: add({ ...params, strength: 1, mode: 'normal' }) } });
}

/** What of a piece a coat is drawn with: its mask, the guards, and the coats that lie under it. */
interface CoatParts {
  mask: number | undefined;
  guards: Guards | undefined;
  under: readonly Coat[];
}

/** Adds a coat on its backdrop. */
export function compileCoat(builder: GraphBuilder, coat: Coat, { mask, guards, under }: CoatParts, around: Surroundings): number {
  const source = compileSource(builder, coat, around);
  const { guard, tone } = compileGuard(builder, coat, guards, under);
  const { blend, strength, limits, guards: amount } = coat;
  const inputs = {
    below: around.below,
    source,
    ...(mask === undefined ? {} : { mask }),
    ...(around.seen === undefined ? {} : { seen: around.seen }),
  };
  const params = { blend, strength, limits, guards: amount };
  if (guard === undefined) return builder.add('coat', params, { inputs, of: coat.id });
  if (tone === undefined) return builder.add('coat', params, { inputs: { ...inputs, guard }, of: coat.id });
  const free = builder.add('coat', params, { inputs, of: coat.id });
  return builder.add('followed', { guards: amount }, { inputs: { below: around.below, free, guard, tone }, of: coat.id });
}

/** Adds one coat alone on a transparent background. Guards here also hold back the coat's tone, even those set to follow it. */
export function compileLayer(builder: GraphBuilder, coat: Coat, { mask, guards, under }: CoatParts, around: Surroundings): number {
  const source = compileSource(builder, coat, around);
  const { guard } = compileGuard(builder, coat, guards, under);
  const inputs = { below: around.seen ?? around.below, source, ...(mask === undefined ? {} : { mask }), ...(guard === undefined ? {} : { guard }) };
  return builder.add('layer', { limits: coat.limits, guards: coat.guards }, { inputs, of: coat.id });
}

/** True when a coat's guards follow the tone, so that it is no layer that is blended onto its backdrop. */
export function followsTone(coat: Coat, guards: Guards | undefined): boolean {
  return !!guards && coat.guards > 0 && toneAmounts(guards, amountsOf(guards, coat.guardAmounts)) !== null;
}

/** Adds the regions that hold a coat back, and what holds back its tone where some let that pass; nothing when none does. */
function compileGuard(builder: GraphBuilder, coat: Coat, guards: Guards | undefined, under: readonly Coat[]): { guard?: number; tone?: number } {
  if (!guards || coat.guards <= 0) return {};
  const amounts = amountsOf(guards, coat.guardAmounts);
  if (!Object.values(amounts).some((amount) => amount > 0)) return {};
  const tones = toneAmounts(guards, amounts);
  const held = (by: Amounts) => under.reduce((own, one) => addCarried(builder, own, one, by), builder.framed({ need: 'guard', amounts: by }));
  return tones ? { guard: held(amounts), tone: held(tones) } : { guard: held(amounts) };
}

/** Adds the regions of another picture where a coat lays its cut-out; a coat with another source changes nothing. */
function addCarried(builder: GraphBuilder, own: number, { source, lay, strength }: Coat, amounts: Amounts): number {
  const { file, subject, width, height } = source as { file?: string; subject?: CutSubject; width?: number; height?: number };
  if (source.kind !== 'cutout' || !file || !width || !height) return own;
  const needs: Record<string, Need> = { guard: { need: 'guard', file, subject, amounts }, alpha: { need: 'cutout', part: 'alpha', file, subject } };
  return builder.add('carried', { lay, nominal: { width, height }, strength }, { inputs: { own }, needs });
}
