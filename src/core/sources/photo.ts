import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'photo',
  label: 'The photo',
  offers: [{ label: 'Copy of the photo', says: 'A second copy of the photo, to blend or blur.', words: 'duplicate double glow' }],
  schema: z.object({ kind: z.literal('photo') }),
  is: 'photo',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
