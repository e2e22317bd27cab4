import * as z from 'zod';
import { toggle } from '../schema';
import { defineSource } from './source';

/**
 * Coats that are treated, masked and blended as one. What its coats are is said by the schema of coats, which this registry lies under. Without `isolated`
 * they lie on what is below the group, so that a group with neutral values changes nothing; with it, or in another mode than normal, they lie on nothing
 * first (isolated groups of W3C Compositing and Blending Level 1).
 */
export default defineSource({
  kind: 'group',
  label: 'Group',
  words: 'folder set bundle',
  schema: z.object({
    kind: z.literal('group'),
    coats: z.array(z.unknown()).max(200).default([]),
    isolated: toggle('Isolated', false, {
      help: 'The coats blend only with each other first; the group then blends with the coats below it. Modes other than Normal always do this.',
    }),
  }),
  is: 'group',
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
});
