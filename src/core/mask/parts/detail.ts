import * as z from 'zod';
import { fillOfFile } from '../../ready/photo';
import { share } from '../../schema';
import { definePart, partFields } from '../part';

export const detailSchema = z.object({
  kind: z.literal('detail'),
  least: share('From', 0.2, { help: 'How much detail there must be.' }),
  ...partFields,
});

/** Where the photo has fine detail, by the measure of the guard of that name. */
export default definePart({
  kind: 'detail',
  label: 'Fine detail',
  schema: detailSchema,
  cover(context, plane, region, p) {
    if (!p.picture) return;
    const { machine, scratch } = context;
    const tile = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
    fillOfFile(context, p.picture, tile);
    machine.kernels.smoothstep(tile.ptr, tile.count, p.least * 0.9, Math.min(1, p.least * 0.9 + 0.3));
    machine.kernels.copyWindow(tile.ptr, region.width, plane, region.width, region.width, region.height);
  },
});
