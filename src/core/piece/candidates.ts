import { modes } from '../blend';
import { families, materials, materialById } from '../materials';
import { changeCoat, changeStep, exchangeSource, setLay, type Edit, type SourceInput } from './edits';
import type { Coat } from './schema';
import { variationsOf, variedSteps, type Candidate } from './variations';

export type { Candidate };

/** What a contact sheet sets side by side. */
export const subjects = [
  { id: 'modes', label: 'Modes' },
  { id: 'materials', label: 'Materials' },
  { id: 'strengths', label: 'Strengths' },
  { id: 'scales', label: 'Scales' },
  { id: 'lights', label: 'Light' },
  { id: 'step', label: 'A step' },
] as const;
export type Subject = (typeof subjects)[number]['id'];

const percent = (v: number) => `${Math.round(v * 100)} %`;
const STRENGTHS = [0.15, 0.25, 0.35, 0.45, 0.55, 0.65, 0.75, 0.85, 0.95, 1];
/** Of the coat's own scale: steps of half a doubling. */
const SCALES = [0.25, 0.35, 0.5, 0.71, 1, 1.41, 2, 2.83];
const DIRECTIONS = ['top', 'top right', 'right', 'bottom right', 'bottom', 'bottom left', 'left', 'top left'];

/** The family whose materials are compared with a coat's: its own, that of imported pictures, or the first. */
export function familyOf(coat: Coat): string {
  const source = coat.source as { kind: string; id?: string };
  if (source.kind === 'picture') return OWN;
  return source.kind === 'material' ? materialById(source.id ?? '').family : families[0].id;
}

/** Subjects that make sense for a coat. */
export const subjectsFor = (coat: Coat): Subject[] =>
  subjects
    .map((s) => s.id)
    .filter((id) => {
      const { kind } = coat.source as { kind: string };
      if (id === 'materials') return kind === 'material' || kind === 'picture';
      if (id === 'scales') return kind === 'material' || kind === 'picture';
      if (id === 'step') return variedSteps(coat).length > 0;
      return id !== 'lights' || coat.treatments.some((t) => t.kind === 'relief');
    });

/** The family of imported pictures. */
export const OWN = 'own';

/** An imported picture that a coat could start from. */
export interface OwnCandidate {
  key: string;
  name: string;
  source: SourceInput;
}

/** All the ways of one subject in which a coat could be, those tried first for textures leading. `own` are the pictures on the shelf. */
export function candidatesOf(coat: Coat, subject: Subject, family = familyOf(coat), own: readonly OwnCandidate[] = [], step?: string): Candidate[] {
  const { id } = coat;
  switch (subject) {
    case 'modes':
      return [...modes]
        .sort((a, b) => Number(b.triedFirst) - Number(a.triedFirst))
        .map((m) => ({ key: m.id, name: m.label, now: coat.blend === m.id, edit: changeCoat(id, () => ({ blend: m.id })) }));
    case 'materials':
      if (family === OWN) {
        return own.map(({ key, name, source }) => {
          const now = (coat.source as { file?: string }).file === key;
          return { key, name, now, edit: now ? (piece) => piece : exchangeSource(id, source) };
        });
      }
      return materials
        .filter((m) => m.family === family)
        .map((m) => {
          const now = (coat.source as { id?: string }).id === m.id;
          const edit: Edit = now ? (piece) => piece : exchangeSource(id, { kind: 'material', id: m.id, seed: 1, params: {} });
          return { key: m.id, name: m.label, now, edit };
        });
    case 'strengths':
      return STRENGTHS.map((strength) => ({
        key: String(strength),
        name: percent(strength),
        now: Math.abs(coat.strength - strength) < 0.005,
        edit: changeCoat(id, () => ({ strength })),
      }));
    case 'scales':
      return SCALES.map((k) => {
        const scale = Math.round(Math.min(8, Math.max(0.05, coat.lay.scale * k)) * 100) / 100;
        return { key: String(k), name: percent(scale), now: k === 1, edit: k === 1 ? (piece) => piece : setLay(id, { scale }) };
      });
    case 'step':
      return variationsOf(coat, step ?? variedSteps(coat)[0]?.value);
    case 'lights': {
      const at = coat.treatments.findIndex((t) => t.kind === 'relief');
      if (at < 0) return [];
      const from = (coat.treatments[at] as unknown as { direction: number }).direction;
      return DIRECTIONS.map((name, i) => ({
        key: name,
        name: `From the ${name}`,
        now: from === i * 45,
        edit: changeStep(id, at, { direction: i * 45 }),
      }));
    }
  }
}
