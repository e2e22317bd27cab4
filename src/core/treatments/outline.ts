import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { Planes } from '../image/planes';
import { choice, colour, share, slider } from '../schema';
import { defineTreatment } from './treatment';

/** A line around what a coat covers: a cut-out, a picture with a clear ground. */
export default defineTreatment({
  kind: 'outline',
  label: 'Outline',
  words: 'stroke border contour edge sticker line around',
  shows: true,
  schema: z.object({
    kind: z.literal('outline'),
    width: slider('Width', 0, 40, 4, { unit: 'u', step: 0.5, accepts: [0, 200], help: 'How wide the line is.' }),
    side: choice(
      'Where',
      [
        { value: 'outside', label: 'Outside' },
        { value: 'middle', label: 'On the edge' },
        { value: 'inside', label: 'Inside' },
      ],
      'outside',
    ),
    colour: colour('Line', '#f6f1e4'),
    amount: share('Amount', 1),
  }),
  source: 'dilation and erosion by a disc (Serra 1982)',
  reach: (p, unit) => Math.ceil(p.width * unit) + 2,
  neutral: (p) => p.width === 0 || p.amount === 0,
  apply({ machine, scratch, unit }, tile, { width, side, colour: line, amount }) {
    const { kernels } = machine;
    const mark = scratch.mark();
    const planes = new Planes(machine, scratch, tile.width, tile.height);
    const { count } = tile;
    const alpha = tile.ptr + 3 * tile.stride;
    const wide = width * unit;
    const out = { outside: wide, middle: wide / 2, inside: 0 }[side];
    const [outer, inner] = [planes.copy(alpha), planes.copy(alpha)];
    planes.widen(outer, out);
    planes.widen(inner, out - wide);
    // What lies between the two is the line.
    kernels.mixIn(inner, outer, count, -amount, amount, 0);
    kernels.clampTo(inner, count, 0, 1);
    parseHex(line).forEach((v, c) => {
      const plane = tile.ptr + c * tile.stride;
      const ink = planes.make(v);
      kernels.lerpTo(plane, ink, inner, count);
    });
    kernels.mixIn(outer, outer, count, amount, 0, 0);
    kernels.extreme(alpha, outer, count, 1);
    scratch.release(mark);
  },
});
