import * as z from 'zod';
import { fittingSchema } from '../materials/fitting/schema';
import type { Need } from '../graph/needs';
import { facesNeed, fillWhere } from './laid';
import { defineSource } from './source';

export const pictureSourceSchema = z.object({
  kind: z.literal('picture'),
  /** File name, relative to the recipe; inside a piece the key of a kept picture. */
  file: z.string(),
  /** Trimmed, seamless and so on; as it is when left out. */
  fitting: fittingSchema.optional(),
  /** Its size in pixels once it is made to fit, where known. */
  width: z.number().int().positive().optional(),
  height: z.number().int().positive().optional(),
});

export default defineSource({
  kind: 'picture',
  label: 'Picture',
  schema: pictureSourceSchema,
  laid: true,
  firstLook: { blend: 'multiply', strength: 0.6 },
  guards: 1,
  file: ({ file }) => file,
  needs: ({ file, fitting }, lay): Record<string, Need> => ({ picture: { need: 'picture', file, fitting }, ...facesNeed(lay) }),
  fill: (context, tile) => fillWhere(context, tile, 'picture'),
});
