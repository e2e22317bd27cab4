import * as z from 'zod';
import { coordinate, regionStrokeSchema } from '../strokes/schema';
import { share, slider } from '../schema';

/** Regions of a photo that coats leave alone, with the amounts that retouchers use (common practice, no source). */
export const regions = [
  { id: 'eyes', label: 'Eyes', amount: 1, face: true },
  { id: 'irises', label: 'Irises', amount: 0, face: true },
  { id: 'catchlights', label: 'Lights in the eyes', amount: 0, face: true },
  { id: 'brows', label: 'Brows', amount: 0.5, face: true },
  { id: 'lips', label: 'Lips', amount: 0.65, face: true },
  { id: 'teeth', label: 'Teeth', amount: 1, face: true },
  { id: 'nostrils', label: 'Nostrils', amount: 1, face: true },
  { id: 'ears', label: 'Ears', amount: 0.5, face: true },
  { id: 'skin', label: 'Face skin', amount: 0, face: true },
  { id: 'body', label: 'Other skin', amount: 0, face: true },
  { id: 'hair', label: 'Hair and hats', amount: 0, face: true },
  { id: 'subject', label: 'Subject', amount: 0.3, face: false },
  { id: 'detail', label: 'Fine detail', amount: 0, face: false },
  { id: 'unfocused', label: 'Out of focus', amount: 0, face: false },
  { id: 'accents', label: 'Colour accents', amount: 0, face: false },
  { id: 'kept', label: 'Kept by a tap', amount: 1, face: false },
  { id: 'painted', label: 'Painted by hand', amount: 1, face: false },
] as const;
export type RegionId = (typeof regions)[number]['id'];
export const regionIds = regions.map((r) => r.id) as [RegionId, ...RegionId[]];
/** Regions that are measured on the photo. Those kept by a tap or painted by hand are made of strokes. */
export type FoundId = Exclude<RegionId, 'kept' | 'painted'>;
export const foundIds = regionIds.filter((id): id is FoundId => id !== 'kept' && id !== 'painted');

/** How one region is guarded: by how much, and how its outline was corrected. Strokes and lengths are relative to the file, like those of spots. */
export const regionSchema = z
  .object({
    amount: share('Amount', 1, { help: 'How far coats are held back here.' }),
    follow: share('Follow the tone', 0, { help: 'Takes on the coats’ tone without their marks.' }),
    expand: slider('Expand', -40, 40, 0, { unit: 'u', step: 1, help: 'Wider or narrower than what was found.' }),
    feather: slider('Feather', 0, 60, 0, { unit: 'u', step: 1 }),
    strokes: z.array(regionStrokeSchema).max(2000).default([]),
  })
  .strict();
export type RegionSettings = z.output<typeof regionSchema>;

/** The same in a stored piece. A field that is missing takes the default amounts above, so no defaults are filled in here. */
const keptRegionSchema = z
  .object({
    amount: regionSchema.shape.amount.unwrap().optional(),
    follow: regionSchema.shape.follow.unwrap().optional(),
    expand: regionSchema.shape.expand.unwrap().optional(),
    feather: regionSchema.shape.feather.unwrap().optional(),
    strokes: regionSchema.shape.strokes.unwrap().optional(),
  })
  .strict();

/** A path in fractions of the file. */
const path = z
  .array(z.tuple([coordinate, coordinate]))
  .min(1)
  .max(5000);

/** Amounts that one coat has of its own, by region. */
export const amountsSchema = z.partialRecord(z.enum(regionIds), z.number().min(0).max(1));
export type Amounts = z.output<typeof amountsSchema>;

export const guardsSchema = z
  .object({
    regions: z.partialRecord(z.enum(regionIds), keptRegionSchema).default({}),
    /** Faces that the user has included or left out whatever their score, by number. */
    faces: z.record(z.string().regex(/^\d+$/), z.boolean()).default({}),
    /** Strokes on the subject and beside it; they replace what was found. */
    hints: z
      .array(z.object({ keep: z.boolean(), points: path }).strict())
      .max(200)
      .default([]),
    /** The person found is the subject, or is not, however sure that is. */
    person: z.boolean().optional(),
    /** Taps and strokes from which a region grows along colours and edges, or that it leaves out: size in u of the file. */
    kept: z
      .array(z.object({ keep: z.boolean(), size: z.number().min(1).max(1000), points: path }).strict())
      .max(200)
      .default([]),
    /** No person was found, and what stands out is taken as the subject. */
    standsOut: z.boolean().default(false),
    /** Strokes along hair and fur, where a cut-out looks for finer edges: size in u of the file. */
    hairs: z
      .array(z.object({ size: z.number().min(1).max(1000), points: path }).strict())
      .max(200)
      .default([]),
  })
  .strict();
export type Guards = z.output<typeof guardsSchema>;
export type Hint = Guards['hints'][number];
export type Kept = Guards['kept'][number];

const defaults = new Map<RegionId, number>(regions.map((r) => [r.id, r.amount]));

const neutralRegion = regionSchema.parse({});

/** The settings of a region; defaults stand in for those that the piece does not give. */
export function settingsOf(guards: Pick<Guards, 'regions'>, id: RegionId): RegionSettings {
  return { ...neutralRegion, amount: defaults.get(id) ?? 1, ...guards.regions[id] };
}

/** Amounts of all regions for a coat that may have its own. */
export function amountsOf(guards: Pick<Guards, 'regions'>, own: Amounts | undefined): Record<RegionId, number> {
  return Object.fromEntries(regionIds.map((id) => [id, own?.[id] ?? guards.regions[id]?.amount ?? defaults.get(id) ?? 0])) as Record<
    RegionId,
    number
  >;
}

/** By how much the tone of coats is held back where regions follow it; null when none does. */
export function toneAmounts(guards: Pick<Guards, 'regions'>, amounts: Record<RegionId, number>): Record<RegionId, number> | null {
  const follows = (id: RegionId) => guards.regions[id]?.follow ?? 0;
  if (!regionIds.some((id) => amounts[id] > 0 && follows(id) > 0)) return null;
  return Object.fromEntries(regionIds.map((id) => [id, amounts[id] * (1 - follows(id))])) as Record<RegionId, number>;
}
