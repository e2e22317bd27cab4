import * as z from 'zod';
import { limits } from '../../schema';
import { definePart, partFields } from '../part';
import { ofField } from './looked';

export const tonesSchema = z.object({ kind: z.literal('tones'), of: ofField, range: limits('Lights and darks', [0.5, 0.7, 1, 1]), ...partFields });

/** Lights and darks: by Rec. 709 luma, 0 below the first of four, 1 from the second to the third, 0 from the fourth. */
export default definePart({
  kind: 'tones',
  label: 'Lights and darks',
  schema: tonesSchema,
  inputs: ({ of }) => ({ of }),
  cover(context, plane, region, p) {
    const { kernels } = context.machine;
    const tile = context.read('of', region);
    kernels.fill(plane, tile.count, 1);
    kernels.maskLimits(plane, tile.ptr, tile.stride, tile.count, ...(p.range as [number, number, number, number]));
  },
});
