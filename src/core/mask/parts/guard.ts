import * as z from 'zod';
import { regions, type RegionId } from '../../guards/schema';
import { choice } from '../../schema';
import { definePart, partFields } from '../part';

const options = regions.map((r) => ({ value: r.id as RegionId, label: r.label }));

export const guardPartSchema = z.object({ kind: z.literal('guard'), region: choice('Region', options, 'subject'), ...partFields });

/** A region of the photo as it was found and edited, whole: its guard's amount does not count here. It belongs to the file. */
export default definePart({
  kind: 'guard',
  label: 'Guard',
  schema: guardPartSchema,
  inputs: ({ region }) => ({ region: { framed: { need: 'guard', amounts: { [region]: 1 }, waits: true } } }),
  cover(context, plane, region) {
    const found = context.read('region', region);
    context.machine.kernels.copyWindow(found.ptr, region.width, plane, region.width, region.width, region.height);
  },
});
