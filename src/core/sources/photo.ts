import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'photo',
  label: 'The photo',
  offers: [
    { label: 'Copy of the photo', says: 'A second copy of the photo, to blend or blur.', words: 'duplicate double glow' },
    {
      label: 'Ink lines',
      says: 'Dark lines of the photo over everything, as by a pen.',
      words: 'ink pen lines drawing outline comic contour edges',
      look: { blend: 'multiply', strength: 0.9, treatments: [{ kind: 'ink', keep: 0.5 }] },
    },
    {
      label: 'Pencil',
      says: 'The photo drawn in pencil on white.',
      words: 'pencil drawing sketch graphite charcoal lines',
      look: { blend: 'normal', strength: 1, treatments: [{ kind: 'pencil' }] },
    },
  ],
  schema: z.object({ kind: z.literal('photo') }),
  is: 'photo',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
