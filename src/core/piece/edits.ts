import { begun } from '../first/begun';
import { maskPartByKind } from '../mask';
import { sourceByKind } from '../sources';
import type { Lay } from '../lay/lay';
import { strokesSchema } from '../mask/parts/strokes';
import type { Stroke } from '../strokes/schema';
import { changeLevel, findCoat } from './groups';
import { coatSchema, type Coat, type Piece } from './schema';

/** Changes of a piece as plain functions: each returns a new piece and shares what it does not touch. */
export type Edit = (piece: Piece) => Piece;

export type SourceInput = { kind: string; [key: string]: unknown };

/** The look of a new coat, where it is not its source's own. */
export interface FirstLook {
  blend: string;
  strength: number;
  name?: string;
  limits?: Coat['limits'];
  treatments?: readonly object[];
  mask?: object;
}

/** A new coat as its source suggests, or its material, and as far held back by guards as suits what it does. */
export function newCoat(id: string, source: SourceInput, look?: FirstLook): Coat {
  const { firstLook, guards } = sourceByKind(source.kind);
  if (source.kind !== 'material') return coatSchema.parse({ id, source, ...firstLook, ...look, guards });
  return { ...begun(coatSchema.parse({ id, source, guards })), ...(look as Partial<Coat>) };
}

export const changeCoat =
  (id: string, change: (coat: Coat) => Partial<Coat>): Edit =>
  (piece) => {
    const coats = changeLevel(piece.coats, id, (level, at) => level.map((coat, i) => (i === at ? { ...coat, ...change(coat) } : coat)));
    return coats === piece.coats ? piece : { ...piece, coats: [...coats] };
  };

/**
 * Another material for a coat; everything else stays as it is dialled in. A coat that is still as its material began takes the look with which the other
 * begins: its steps would not suit another.
 */
export const exchangeSource = (id: string, source: SourceInput): Edit => changeCoat(id, (coat) => exchanged(coat, source));

const isMade = ({ kind, id }: { kind: string; id?: unknown }) => kind === 'material' && !String(id).startsWith('own:');

function exchanged(coat: Coat, source: SourceInput): Partial<Coat> {
  const before = coat.source as unknown as SourceInput;
  if (!isMade(before) || !isMade(source) || before.id === source.id) return { source: source as Coat['source'] };
  source = before.light && !source.light ? { ...source, light: before.light } : source;
  const begin = (from: SourceInput) => begun(coatSchema.parse({ id: coat.id, source: from, guards: coat.guards }));
  const start = begin({ kind: 'material', id: before.id });
  const look = ({ blend, strength, treatments, limits }: Coat) => JSON.stringify([blend, strength, treatments, limits]);
  if (look(coat) !== look(start)) return { source: source as Coat['source'] };
  const next = begin(source);
  const lay = coat.lay.scale === start.lay.scale ? { ...coat.lay, scale: next.lay.scale } : coat.lay;
  const { blend, strength, treatments, limits, guardAmounts, replaced } = next;
  return { source: next.source, blend, strength, treatments, limits, guardAmounts, replaced, lay };
}

export const setLay = (id: string, change: Partial<Lay>): Edit => changeCoat(id, (c) => ({ lay: { ...c.lay, ...change } }));

/** Values of a coat's treatment of that kind; none when it has no such treatment. */
export const treatmentOf = (coat: Coat, kind: string) => coat.treatments.find((t) => t.kind === kind);

export const setTreatment = (id: string, kind: string, values: Record<string, unknown>): Edit =>
  changeCoat(id, (c) => {
    const next = { ...(treatmentOf(c, kind) ?? {}), ...values, kind } as Coat['treatments'][number];
    const there = c.treatments.some((t) => t.kind === kind);
    return { treatments: there ? c.treatments.map((t) => (t.kind === kind ? next : t)) : [...c.treatments, next] };
  });

export const removeTreatment = (id: string, kind: string): Edit =>
  changeCoat(id, (c) => ({ treatments: c.treatments.filter((t) => t.kind !== kind) }));

type Steps = Coat['treatments'];

/** Changes the list of a coat's treatments: they run in its order. */
const changeSteps = (id: string, change: (steps: Steps) => Steps): Edit => changeCoat(id, (c) => ({ treatments: change(c.treatments) }));

export const addStep = (id: string, values: Record<string, unknown>): Edit =>
  changeSteps(id, (steps) => [...steps, values as Steps[number]].slice(0, 50));

export const changeStep = (id: string, index: number, values: Record<string, unknown>): Edit =>
  changeSteps(id, (steps) => steps.map((s, i) => (i === index ? ({ ...s, ...values } as Steps[number]) : s)));

export const removeStep = (id: string, index: number): Edit => changeSteps(id, (steps) => steps.filter((_, i) => i !== index));

/** Moves a step one place earlier (−1) or later (1); at an end it stays. */
export const moveStep = (id: string, index: number, by: -1 | 1): Edit =>
  changeSteps(id, (steps) => {
    const to = index + by;
    if (to < 0 || to >= steps.length) return steps;
    const next = [...steps];
    [next[index], next[to]] = [next[to], next[index]];
    return next;
  });

/** Adds a stroke to the last part when that holds strokes, else as a new part on top. */
export const addStroke = (id: string, stroke: Stroke): Edit =>
  changeCoat(id, (c) => {
    const parts = c.mask.parts;
    const last = parts[parts.length - 1];
    if (last?.kind === 'strokes' && last.active !== false) {
      const part = { ...last, strokes: [...(last.strokes as Stroke[]), stroke] };
      return { mask: { ...c.mask, parts: [...parts.slice(0, -1), part] } };
    }
    return { mask: { ...c.mask, parts: [...parts, strokesSchema.parse({ kind: 'strokes', strokes: [stroke] }) as (typeof parts)[number]] } };
  });

export const changePart = (id: string, index: number, values: Record<string, unknown> | null): Edit =>
  changeCoat(id, (c) => ({
    mask: { ...c.mask, parts: c.mask.parts.flatMap((p, i) => (i !== index ? [p] : values ? [{ ...p, ...values } as typeof p] : [])) },
  }));

/** Moves a part of a mask one place earlier (−1) or later (1): parts work in their order. */
export const movePartBy = (id: string, index: number, by: -1 | 1): Edit =>
  changeCoat(id, (c) => {
    const parts = [...c.mask.parts];
    const to = index + by;
    if (to < 0 || to >= parts.length) return {};
    [parts[index], parts[to]] = [parts[to], parts[index]];
    return { mask: { ...c.mask, parts } };
  });

export const setMask = (id: string, values: Partial<Coat['mask']>): Edit => changeCoat(id, (c) => ({ mask: { ...c.mask, ...values } }));

/** The same mask on another coat, from then on its own; one that moves with a lay stays on the photo. */
export const copyMask =
  (from: string, to: string): Edit =>
  (piece) => {
    const mask = findCoat(piece, from)?.mask;
    if (!mask) return piece;
    return changeCoat(to, () => ({ mask: { ...mask, anchor: 'photo', base: undefined } }))(piece);
  };

/** Another coat's mask for this one too: what is changed there changes here. */
export const linkMask = (to: string, from: string): Edit =>
  changeCoat(to, (c) => ({
    mask: {
      ...c.mask,
      start: 'none',
      parts: [maskPartByKind('coat').schema.parse({ kind: 'coat', coat: from, op: 'add' }) as Coat['mask']['parts'][number]],
    },
  }));

/** Lets a mask move with its coat's lay from here on, or stay on the photo. */
export const anchorMask = (id: string, anchor: 'photo' | 'lay'): Edit =>
  changeCoat(id, (c) => ({ mask: { ...c.mask, anchor, base: anchor === 'lay' ? c.lay : undefined } }));

export const addPart = (id: string, part: Record<string, unknown>): Edit =>
  changeCoat(id, (c) => ({ mask: { ...c.mask, parts: [...c.mask.parts, part as Coat['mask']['parts'][number]] } }));
