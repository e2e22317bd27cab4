import * as z from 'zod';
import { share } from '../../schema';
import { definePart, partFields } from '../part';

export const detailSchema = z.object({
  kind: z.literal('detail'),
  least: share('From', 0.2, { help: 'How much detail is needed.' }),
  ...partFields,
});

/** Where the photo has fine detail, by the measure of the guard of that name. */
export default definePart({
  kind: 'detail',
  label: 'Fine detail',
  schema: detailSchema,
  inputs: () => ({ region: { framed: { need: 'guard', amounts: { detail: 1 }, plain: true, waits: true } } }),
  cover(context, plane, region, p) {
    const { kernels } = context.machine;
    const found = context.read('region', region);
    kernels.copyWindow(found.ptr, region.width, plane, region.width, region.width, region.height);
    kernels.smoothstep(plane, found.count, p.least * 0.9, Math.min(1, p.least * 0.9 + 0.3));
  },
});
