import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'below',
  label: 'Coats below',
  offers: [
    {
      label: 'Adjustment',
      says: 'Light and colour of all the coats below.',
      words: 'treat correct black and white sepia fade curves levels contrast',
    },
  ],
  schema: z.object({ kind: z.literal('below') }),
  is: 'below',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
