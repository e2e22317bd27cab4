import * as z from 'zod';
import { regions, type RegionId } from '../../guards/schema';
import { fillOfFile } from '../../ready/photo';
import { choice } from '../../schema';
import { definePart, partFields } from '../part';

const options = regions.map((r) => ({ value: r.id as RegionId, label: r.label }));

export const guardPartSchema = z.object({ kind: z.literal('guard'), region: choice('Region', options, 'subject'), ...partFields });

/** A region of the photo as it was found and edited, whole: its guard's amount does not count here. It belongs to the file. */
export default definePart({
  kind: 'guard',
  label: 'Guard',
  schema: guardPartSchema,
  cover(context, plane, region, { picture }) {
    if (!picture) return;
    const { machine, scratch } = context;
    const tile = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
    fillOfFile(context, picture, tile);
    machine.kernels.copyWindow(tile.ptr, region.width, plane, region.width, region.width, region.height);
  },
});
