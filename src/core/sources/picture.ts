import * as z from 'zod';
import { fittingSchema } from '../materials/fitting/schema';
import { LACKING } from '../lay/enlarged';
import { share } from '../schema';
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
  grain: share('Fine grain', 0.75, {
    max: 2,
    help: 'Grain like its own, as fine as the photo, so that it does not turn soft.',
    idle: ({ times }) => (typeof times === 'number' && times <= LACKING ? 'It has enough pixels for this photo: nothing is missing.' : undefined),
  }),
});

export default defineSource({
  kind: 'picture',
  label: 'Picture',
  schema: pictureSourceSchema,
  laid: true,
  firstLook: { blend: 'multiply', strength: 0.6 },
  guards: 1,
  file: ({ file }) => file,
  needs: ({ file, fitting, grain }, lay): Record<string, Need> => ({
    picture: { need: 'picture', file, fitting },
    ...(grain > 0 ? { grain: { need: 'grain', file, fitting } } : {}),
    ...facesNeed(lay),
  }),
  fill: (context, tile, { grain }) =>
    fillWhere(context, tile, 'picture', { amount: grain, map: grain > 0 ? context.needed('grain', 'picture').picture : undefined }),
});
