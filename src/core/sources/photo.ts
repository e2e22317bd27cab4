import * as z from 'zod';
import { samplePhoto } from '../image/sample';
import { defineSource } from './source';

export default defineSource({
  kind: 'photo',
  label: 'The photo',
  schema: z.object({ kind: z.literal('photo') }),
  fill: ({ machine, photo, scale }, tile) => samplePhoto(machine, photo, scale, tile),
});
