import * as z from 'zod';
import { fillLaid } from './laid';
import { defineSource } from './source';

export const pictureSourceSchema = z.object({
  kind: z.literal('picture'),
  /** File name, relative to the recipe; inside a piece the key of a kept picture. */
  file: z.string(),
  /** Its size in pixels, where known. */
  width: z.number().int().positive().optional(),
  height: z.number().int().positive().optional(),
});

export default defineSource({ kind: 'picture', label: 'Picture', schema: pictureSourceSchema, laid: true, fill: fillLaid });
