import * as z from 'zod';
import { parseHex, srgbToLab } from '../../color/srgb';
import { share, slider } from '../../schema';
import { definePart, partFields } from '../part';
import { ofField } from './looked';

export const coloursSchema = z.object({
  kind: z.literal('colours'),
  of: ofField,
  /** Picked from one or several spots, #rrggbb. */
  picked: z
    .array(z.string().regex(/^#[0-9a-fA-F]{6}$/, 'a colour is written #rrggbb'))
    .max(16)
    .default([]),
  tolerance: slider('Tolerance', 1, 80, 20, { step: 1, help: 'How different a colour may be.' }),
  soft: share('Soft edge', 0.5, { help: 'How softly the selection ends.' }),
  ...partFields,
});

/** Pixels whose colour lies near one of those picked, by the distance in CIE Lab (CIE 1976). */
export default definePart({
  kind: 'colours',
  label: 'Picked colours',
  schema: coloursSchema,
  inputs: ({ of }) => ({ of }),
  cover(context, plane, region, p) {
    const { machine, scratch } = context;
    if (p.picked.length === 0) return;
    const tile = context.read('of', region);
    const table = scratch.take(p.picked.length * 12);
    machine.floats.set(
      p.picked.flatMap((hex) => srgbToLab(parseHex(hex))),
      table / 4,
    );
    machine.kernels.maskNear(plane, tile.ptr, tile.stride, tile.count, table, p.picked.length, p.tolerance * (1 - p.soft), p.tolerance);
  },
});
