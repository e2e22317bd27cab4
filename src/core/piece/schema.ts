import * as z from 'zod';
import { blendNames } from '../blend';
import { amountsSchema, guardsSchema } from '../guards/schema';
import { maskParts } from '../mask';
import { readySchema } from '../ready/schema';
import { share, slider, toggle } from '../schema';
import { laySchema } from '../lay/lay';
import { sourceByKind, sources } from '../sources';
import { spelledSource, spelledTreatment } from './spelling';
import { treatments } from '../treatments';

type Variants = [z.ZodObject, ...z.ZodObject[]];
const variants = (list: readonly { schema: z.ZodObject }[]) => list.map((entry) => entry.schema.strict()) as unknown as Variants;

/** How deep groups can be nested. */
export const DEEPEST = 4;
const others = sources.filter(({ kind }) => kind !== 'group');
/** A source; a group's coats are what `inner` says, and without that there are no groups. */
const sourceSchema = (inner?: () => z.ZodType) => {
  const group = inner && { schema: sourceByKind('group').schema.extend({ coats: z.array(z.lazy(inner)).max(200).default([]) }) };
  return z.preprocess(spelledSource, z.discriminatedUnion('kind', variants(group ? [...others, group] : others)));
};
/** What every treatment of a coat carries besides its own values. */
export const treatmentFields = {
  active: z.boolean().default(true),
  strength: share('Strength', 1, { help: 'How much of this step shows.' }),
  mode: z.enum(blendNames).default('normal'),
};
const treatmentSchema = z.preprocess(
  spelledTreatment,
  z.discriminatedUnion('kind', variants(treatments.map((t) => ({ schema: t.schema.extend(treatmentFields) })))),
);
const partSchema = z.discriminatedUnion('kind', variants(maskParts));

/** What is done with the whole of a mask. */
export const wholeMaskFields = {
  density: share('Density', 1, { help: 'Lower it to let a little of the coat show again.' }),
  feather: slider('Feather', 0, 200, 0, { unit: 'u', step: 1, accepts: [0, 2000] }),
  expand: slider('Expand', -100, 100, 0, { unit: 'u', step: 1, accepts: [-1000, 1000], help: 'Makes the mask wider or narrower.' }),
  line: slider('Only the outline', 0, 60, 0, { unit: 'u', step: 0.5, accepts: [0, 400], help: 'Leaves a line of this width along the edge.' }),
  refine: share('Follow edges', 0, { help: 'Lets the mask follow the edges of the photo.' }),
  invert: toggle('Invert', false),
};

const maskSchema = z
  .object({
    /** Everywhere, or nowhere until something is added. */
    start: z.enum(['all', 'none']).default('all'),
    parts: z.array(partSchema).max(200).default([]),
    ...wholeMaskFields,
    /** On the photo, or moving with the coat's lay from where that was (`base`). */
    anchor: z.enum(['photo', 'lay']).default('photo'),
    base: laySchema.strict().optional(),
  })
  .strict();

/** Tonal limits [b0, b1, w0, w1]: rising. */
const limitsSchema = z
  .tuple([z.number().min(0).max(1), z.number().min(0).max(1), z.number().min(0).max(1), z.number().min(0).max(1)])
  .refine(([b0, b1, w0, w1]) => b0 <= b1 && b1 <= w0 && w0 <= w1, 'limits must rise from left to right');

export const strengthField = share('Strength', 1, { help: 'How much of the coat shows.' });

const coatFields = {
  name: z.string().max(200).optional(),
  visible: z.boolean().default(true),
  /** When true, only whether the coat is shown can be changed by hand. */
  locked: z.boolean().optional(),
  lay: laySchema.strict().default(() => laySchema.parse({})),
  treatments: z.array(treatmentSchema).max(50).default([]),
  blend: z.enum(blendNames).default('normal'),
  strength: strengthField,
  limits: limitsSchema.default([0, 0, 1, 1]),
  mask: maskSchema.default(() => maskSchema.parse({})),
  /** How far the guards hold this coat back, 0..1. */
  guards: z.number().min(0).max(1).default(1),
  /** Amounts of regions that this coat has for itself. */
  guardAmounts: amountsSchema.optional(),
  /** What first controls that are on have replaced, by control: it comes back when they are switched off. */
  replaced: z
    .record(z.string().max(40), z.object({ blend: z.enum(blendNames), strength: strengthField, treatments: z.array(treatmentSchema).max(50) }))
    .optional(),
};

/** The schema of a coat that lies in so many groups. */
const coatWith = <I extends z.ZodType>(id: I, depth = 0) => {
  const inner = (): z.ZodType => (deeper ??= coatWith(id, depth + 1));
  let deeper: z.ZodType | undefined;
  return z.object({ id, ...coatFields, source: sourceSchema(depth < DEEPEST ? inner : undefined) }).strict();
};

/** In a recipe a coat has an id only where another's mask names it. */
export const recipeCoatSchema = coatWith(z.string().max(100).optional());
export const coatSchema = coatWith(z.string());
export type Coat = z.output<typeof coatSchema>;
export type Mask = Coat['mask'];

export const recipeSchema = z
  .object({
    dermatex: z.literal(1),
    name: z.string().max(200).default('Recipe'),
    /** One strength over all coats. */
    strength: share('All coats', 1),
    ready: readySchema.optional(),
    /** Regions that coats leave alone, found again on each photo; nothing is guarded when left out. */
    guards: guardsSchema.strict().optional(),
    coats: z.array(recipeCoatSchema).max(200),
  })
  .strict();
export type Recipe = z.output<typeof recipeSchema>;

/** A picture kept beside the pieces: `key` is the SHA-256 of its file. */
const pictureRefSchema = z.object({ key: z.string(), name: z.string(), width: z.number().int().positive(), height: z.number().int().positive() });
export type PictureRef = z.output<typeof pictureRefSchema>;

export const pieceSchema = z
  .object({
    dermatex: z.literal(1),
    id: z.string(),
    name: z.string().max(200),
    created: z.number(),
    changed: z.number(),
    photo: pictureRefSchema,
    /** Left out when the photo is used as it is. */
    ready: readySchema.optional(),
    /** Left out until faces and people have been looked for. */
    guards: guardsSchema.optional(),
    strength: share('All coats', 1),
    coats: z.array(coatSchema).max(200).default([]),
  })
  .strict();
export type Piece = z.output<typeof pieceSchema>;
