import * as z from 'zod';
import type { Need } from '../../graph/needs';
import { fillLaid } from '../../lay/laid';
import { marksOptions } from '../../materials/material';
import { laySchema, type Lay } from '../../lay/lay';
import { choice, share, slider } from '../../schema';
import { definePart, partFields } from '../part';

export const materialPartSchema = z.object({
  kind: z.literal('material'),
  /** A generator of the shelf; nothing where a picture is read. */
  id: z.string().max(200).default(''),
  /** An imported picture instead: file name, relative to the recipe; inside a piece the key of a kept picture. */
  file: z.string().max(500).optional(),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1)
    .default(1),
  params: z.record(z.string(), z.unknown()).default({}),
  marks: choice('What counts', marksOptions, 'lights', { help: 'Cracks and ink are dark marks on a light ground, dust and scratches light ones.' }),
  scale: slider('Scale', 0.1, 8, 1, { unit: '%', factor: 100, step: 0.01, accepts: [1e-3, 1e3] }),
  turn: slider('Turn', -180, 180, 0, { unit: '°', step: 1 }),
  x: share('Across', 0, { min: -1, max: 1, accepts: [-1e3, 1e3] }),
  y: share('Down', 0, { min: -1, max: 1, accepts: [-1e3, 1e3] }),
  black: share('Black point', 0.35, { help: 'Where the mask begins.' }),
  white: share('White point', 0.65, { help: 'Where the mask is full.' }),
  ...partFields,
});

const layOf = ({ scale, turn, x, y }: z.output<typeof materialPartSchema>): Lay => laySchema.parse({ fit: 'cover', scale, turn, x, y });

/** A material, or an own picture, read as a mask by its lights or its darks: crack net, splatter, dry bristle. It covers the photo. */
export default definePart({
  kind: 'material',
  label: 'Material as mask',
  schema: materialPartSchema,
  needs: (p): Record<string, Need> => ({
    material: p.file ? { need: 'picture', file: p.file } : { need: 'material', id: p.id, seed: p.seed, params: p.params, lay: layOf(p) },
  }),
  cover(context, plane, region, p) {
    const { machine, scratch } = context;
    const tile = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
    fillLaid(context, tile, context.needed('material', 'picture'), layOf(p));
    machine.kernels.lumaPlane(tile.ptr, tile.stride, plane, tile.count);
    if (p.marks === 'darks') machine.kernels.mixIn(plane, plane, tile.count, -1, 0, 1);
    const [from, to] = p.black === p.white ? [p.black - 0.005, p.white + 0.005] : [p.black, p.white];
    machine.kernels.smoothstep(plane, tile.count, from, to);
    machine.kernels.times(plane, tile.ptr + 3 * tile.stride, tile.count, 1, 0);
  },
});
