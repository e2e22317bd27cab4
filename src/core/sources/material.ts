import * as z from 'zod';
import { fillLaid } from './laid';
import { defineSource } from './source';

export const materialSourceSchema = z.object({
  kind: z.literal('material'),
  /** A generator of the shelf, or `own:…` for an imported file. */
  id: z.string(),
  seed: z.number().int().min(0).max(1e9).default(1),
  params: z.record(z.string(), z.unknown()).default({}),
});

export default defineSource({ kind: 'material', label: 'Material', schema: materialSourceSchema, laid: true, fill: fillLaid });
