import * as z from 'zod';
import { fillPhoto } from '../ready/photo';
import { defineSource } from './source';

export default defineSource({
  kind: 'photo',
  label: 'The photo',
  schema: z.object({ kind: z.literal('photo') }),
  fill: (context, tile) => fillPhoto(context, tile),
});
