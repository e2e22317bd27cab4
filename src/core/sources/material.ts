import * as z from 'zod';
import type { Need } from '../graph/needs';
import { facesNeed, fillWhere } from './laid';
import { defineSource } from './source';

export const materialSourceSchema = z.object({
  kind: z.literal('material'),
  /** A generator of the shelf, or `own:…` for an imported file. */
  id: z.string(),
  seed: z.number().int().min(0).max(1e9).default(1),
  /** Width by height in which one that follows the photo’s shape is made; the photo’s own when left out. */
  aspect: z.number().gt(0.01).lt(100).optional(),
  params: z.record(z.string(), z.unknown()).default({}),
});

export default defineSource({
  kind: 'material',
  label: 'Material',
  schema: materialSourceSchema,
  laid: true,
  firstLook: { blend: 'multiply', strength: 0.6 },
  guards: 1,
  needs: ({ id, seed, params, aspect }, lay): Record<string, Need> => ({
    material: { need: 'material', id, seed, params, aspect, lay },
    ...facesNeed(lay),
  }),
  height: ({ id, seed, params, aspect }, lay): Record<string, Need> => ({
    material: { need: 'material', id, seed, params, aspect, lay, part: 'height' },
    ...facesNeed(lay),
  }),
  fill: (context, tile) => fillWhere(context, tile, 'material'),
});
