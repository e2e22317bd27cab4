import * as z from 'zod';
import { laySchema } from '../lay/lay';
import { changeCoat, newCoat, type Edit, type SourceInput } from './edits';
import { coatSchema, type Coat } from './schema';

const { blend, strength, limits, treatments, guards, guardAmounts, replaced } = coatSchema.shape;

/** How a material was set: what suits another photo too. Where it lay and what was painted on it are left out. */
export const settingsSchema = z.object({
  blend,
  strength,
  limits,
  treatments,
  guards,
  guardAmounts,
  replaced,
  lay: laySchema.omit({ x: true, y: true }).strict(),
  params: z.record(z.string(), z.unknown()).default({}),
});
export type MaterialSettings = z.output<typeof settingsSchema>;

/** What a material is known by: its own id, or the key of the file. Null for a coat that starts from something else. */
export function materialOf({ source }: Pick<Coat, 'source'>): string | null {
  const { kind, id, file } = source as { kind: string; id?: string; file?: string };
  return kind === 'material' ? (id ?? null) : kind === 'picture' ? (file ?? null) : null;
}

function settings(coat: Coat): MaterialSettings {
  const { params = {} } = coat.source as { params?: Record<string, unknown> };
  const { x: _x, y: _y, ...lay } = coat.lay;
  const steps = coat.treatments.filter((step) => !('strokes' in step));
  return settingsSchema.parse({ ...coat, lay, treatments: steps, params }) satisfies MaterialSettings;
}

function begun(coat: Coat): MaterialSettings {
  const { kind, id, file, width, height } = coat.source as Record<string, unknown> & { kind: string };
  const source: SourceInput = kind === 'material' ? { kind, id, seed: 1, params: {} } : { kind, file, width, height };
  return settings(newCoat(coat.id, source));
}

/** How a coat's material is set; null while it is as it began, and for a coat of something else. */
export function settingsOf(coat: Coat): MaterialSettings | null {
  if (materialOf(coat) === null) return null;
  const own = settings(coat);
  return JSON.stringify(own) === JSON.stringify(begun(coat)) ? null : own;
}

/** Applies kept settings to a coat. */
export const applySettings = (id: string, { params, lay, ...look }: MaterialSettings): Edit =>
  changeCoat(id, (coat) => ({
    ...look,
    lay: { ...coat.lay, ...lay },
    source: (coat.source.kind === 'material' ? { ...coat.source, params } : coat.source) as Coat['source'],
  }));
