import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'photo',
  label: 'The photo',
  offer: 'Copy of the photo',
  schema: z.object({ kind: z.literal('photo') }),
  is: 'photo',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
