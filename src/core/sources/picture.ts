import * as z from 'zod';
import { fillLaid } from './laid';
import { defineSource } from './source';

export const pictureSourceSchema = z.object({
  kind: z.literal('picture'),
  /** File name, relative to the recipe; inside a piece the key of a kept picture. */
  file: z.string(),
});

export default defineSource({ kind: 'picture', label: 'Picture', schema: pictureSourceSchema, laid: true, fill: fillLaid });
