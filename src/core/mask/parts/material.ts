import * as z from 'zod';
import { fillLaid } from '../../lay/laid';
import { laySchema, type Lay } from '../../lay/lay';
import { share, slider } from '../../schema';
import { definePart, partFields } from '../part';

export const materialPartSchema = z.object({
  kind: z.literal('material'),
  id: z.string().max(200),
  seed: z
    .number()
    .int()
    .min(0)
    .max(2 ** 31 - 1)
    .default(1),
  params: z.record(z.string(), z.unknown()).default({}),
  scale: slider('Scale', 0.1, 8, 1, { unit: '%', factor: 100, step: 0.01, accepts: [1e-3, 1e3] }),
  turn: slider('Turn', -180, 180, 0, { unit: '°', step: 1 }),
  x: share('Across', 0, { min: -1, max: 1, accepts: [-1e3, 1e3] }),
  y: share('Down', 0, { min: -1, max: 1, accepts: [-1e3, 1e3] }),
  black: share('Nothing at', 0.35, { help: 'The lightness of the material from which it begins.' }),
  white: share('All at', 0.65, { help: 'Below “Nothing at”, its darks count: cracks, splatter.' }),
  ...partFields,
});

const layOf = ({ scale, turn, x, y }: z.output<typeof materialPartSchema>): Lay => laySchema.parse({ fit: 'cover', scale, turn, x, y });

/** A material read as a mask by its lights: crack net, splatter, dry bristle. It covers the photo. */
export default definePart({
  kind: 'material',
  label: 'Material as mask',
  schema: materialPartSchema,
  needs: (p) => ({ material: { need: 'material', id: p.id, seed: p.seed, params: p.params, lay: layOf(p) } }),
  cover(context, plane, region, p) {
    const { machine, scratch } = context;
    const tile = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
    fillLaid(context, tile, context.needed('material', 'picture'), layOf(p));
    machine.kernels.lumaPlane(tile.ptr, tile.stride, plane, tile.count);
    const [from, to] = p.black === p.white ? [p.black - 0.005, p.white + 0.005] : [p.black, p.white];
    machine.kernels.smoothstep(plane, tile.count, from, to);
    machine.kernels.times(plane, tile.ptr + 3 * tile.stride, tile.count, 1, 0);
  },
});
