import * as z from 'zod';
import { modeById } from '../blend';
import { parseHex } from '../color/srgb';
import { colour, share } from '../schema';
import { defineTreatment } from './treatment';

/** Hue and saturation of one colour over the whole material, its light and dark kept; then lighter or darker. */
export default defineTreatment({
  kind: 'tint',
  label: 'Tint',
  words: 'sepia colourise colour wash',
  shows: true,
  schema: z.object({
    kind: z.literal('tint'),
    colour: colour('Colour', '#9a7b4f', { help: 'A colour of the photo makes the texture belong to it.' }),
    amount: share('Amount', 0.6),
    lightness: share('Lightness', 0, { min: -1, max: 1 }),
  }),
  source: 'W3C Compositing and Blending Level 1, blend mode "color"',
  reach: () => 0,
  neutral: (p) => p.amount === 0 && p.lightness === 0,
  apply({ machine, scratch }, tile, p) {
    const { kernels } = machine;
    if (p.amount > 0) {
      const mark = scratch.mark();
      // As far apart as the planes it is blended with, which a strip of a tile has further apart than it is long.
      const over = scratch.take(4 * tile.stride);
      const full = scratch.plane(tile.count, 1);
      // The tint is laid on what is there as if that were opaque; alpha stays.
      const alpha = scratch.plane(tile.count);
      machine.bytes.copyWithin(alpha, tile.ptr + 3 * tile.stride, tile.ptr + 3 * tile.stride + tile.count * 4);
      kernels.fill(tile.ptr + 3 * tile.stride, tile.count, 1);
      [...parseHex(p.colour), 1].forEach((v, c) => kernels.fill(over + c * tile.stride, tile.count, v));
      kernels.blend(modeById('color').kernel, tile.ptr, over, full, tile.stride, tile.count, p.amount);
      machine.bytes.copyWithin(tile.ptr + 3 * tile.stride, alpha, alpha + tile.count * 4);
      scratch.release(mark);
    }
    if (p.lightness !== 0) kernels.colourful(tile.ptr, tile.stride, tile.count, 0, 0, p.lightness);
  },
});
