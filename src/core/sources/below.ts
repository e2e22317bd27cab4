import * as z from 'zod';
import { defineSource } from './source';

export default defineSource({
  kind: 'below',
  label: 'What lies below',
  offer: 'Adjustment',
  schema: z.object({ kind: z.literal('below') }),
  is: 'below',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
