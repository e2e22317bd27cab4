import * as z from 'zod';
import type { Need } from '../graph/needs';
import { facesNeed, fillWhere } from './laid';
import { choice } from '../schema';
import { lampFieldsWhere } from '../form/lamp';
import { defineSource } from './source';

/** The light on a material. It stays where it is over the piece, however the material is turned. */
export const materialLightSchema = z.object({
  from: choice(
    'Light on it',
    [
      { value: 'own', label: 'As made' },
      { value: 'side', label: 'From a side' },
      { value: 'none', label: 'Left out' },
    ],
    'own',
    { help: 'Left out, only its colours are there, for light of another step.' },
  ),
  ...lampFieldsWhere(({ from }) => from !== 'side'),
});
const AS_MADE = materialLightSchema.parse({});

export const materialSourceSchema = z.object({
  kind: z.literal('material'),
  /** A generator of the shelf, or `own:…` for an imported file. */
  id: z.string(),
  seed: z.number().int().min(0).max(1e9).default(1),
  /** Width by height in which one that follows the photo’s shape is made; the photo’s own when left out. */
  aspect: z.number().gt(0.01).lt(100).optional(),
  params: z.record(z.string(), z.unknown()).default({}),
  /** As its generator lights it when left out. */
  light: materialLightSchema.optional(),
});

export default defineSource({
  kind: 'material',
  label: 'Material',
  schema: materialSourceSchema,
  laid: true,
  firstLook: { blend: 'multiply', strength: 0.6 },
  guards: 1,
  needs: ({ id, seed, params, aspect, light = AS_MADE }, lay): Record<string, Need> => ({
    material: { need: 'material', id, seed, params, aspect, lay, light },
    ...facesNeed(lay),
  }),
  height: ({ id, seed, params, aspect }, lay): Record<string, Need> => ({
    material: { need: 'material', id, seed, params, aspect, lay, part: 'height' },
    ...facesNeed(lay),
  }),
  fill: (context, tile) => fillWhere(context, tile, 'material'),
});
