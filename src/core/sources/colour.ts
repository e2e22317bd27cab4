import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { defineSource } from './source';

export default defineSource({
  kind: 'colour',
  label: 'Colour',
  schema: z.object({
    kind: z.literal('colour'),
    colour: z
      .string()
      .regex(/^#[0-9a-fA-F]{6}$/)
      .default('#808080')
      .meta({ control: 'colour', label: 'Colour' }),
  }),
  fill({ machine }, tile, coat) {
    const { colour } = coat.source as unknown as { colour: string };
    [...parseHex(colour), 1].forEach((v, i) => machine.kernels.fill(tile.ptr + i * tile.stride, tile.count, v));
  },
});
