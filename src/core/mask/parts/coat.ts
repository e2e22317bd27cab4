import * as z from 'zod';
import { padded } from '../../image/tile';
import { definePart, partFields } from '../part';

export const coatPartSchema = z.object({
  kind: z.literal('coat'),
  /** The coat whose mask it is. */
  coat: z.string().max(100),
  ...partFields,
});

/** Another coat's mask, as it is at any time. One that leads back to itself is nothing. */
export default definePart({
  kind: 'coat',
  label: 'Mask of another coat',
  schema: coatPartSchema,
  inputs: ({ coat }) => ({ mask: { maskOf: coat } }),
  cover(context, plane, region) {
    const mask = context.read('mask', region);
    context.machine.kernels.mixIn(plane, mask.ptr, padded(region.width, region.height), 0, 1, 0);
  },
});
