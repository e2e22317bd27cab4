import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { colour } from '../schema';
import { defineSource } from './source';

export default defineSource({
  kind: 'colour',
  label: 'Colour',
  offers: [
    { label: 'Solid colour', says: 'One colour over everything, to tint or to darken.', words: 'tint sepia wash tone' },
    {
      label: 'White sheet',
      says: 'Hides the photo, and broad brush strokes bring it out.',
      words: 'reveal brush strokes paper margin watercolour',
      params: { colour: '#f7f4ec' },
      look: { blend: 'normal', strength: 1, mask: { parts: [{ kind: 'reveal', op: 'subtract' }] } },
    },
  ],
  schema: z.object({
    kind: z.literal('colour'),
    colour: colour('Colour', '#808080'),
  }),
  firstLook: { blend: 'soft-light', strength: 0.5 },
  guards: 0,
  fill({ machine }, tile, p) {
    [...parseHex(p.colour), 1].forEach((v, i) => machine.kernels.fill(tile.ptr + i * tile.stride, tile.count, v));
  },
});
