import * as z from 'zod';
import { slider } from '../schema';
import { defineTreatment } from './treatment';

/** Standard deviations of the shift that are provided for. */
const MOST = 4;

/** A small, smooth, random shift, for lines that should not look perfect. */
export default defineTreatment({
  kind: 'ripple',
  ofSurface: true,
  label: 'Hand-drawn wobble',
  words: 'ripple hand drawn displace wave distort wobble',
  shows: true,
  schema: z.object({
    kind: z.literal('ripple'),
    amount: slider('Amount', 0, 12, 1.2, { unit: 'u', step: 0.1, accepts: [0, 60], help: 'How far lines stray.' }),
    size: slider('Size', 8, 200, 50, { unit: 'u', step: 1, help: 'How long a wave is.' }),
    seed: z.number().int().min(0).max(1e9).default(1),
  }),
  source: 'W3C Filter Effects, Level 1, feDisplacementMap, with value noise as its map',
  reach: (p, unit) => Math.ceil(MOST * p.amount * unit) + 2,
  neutral: (p) => p.amount === 0,
  apply({ machine, scratch, unit }, tile, { amount, size, seed }) {
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const offsets = [0, 1].map((axis) => {
      const plane = scratch.plane(count + 8, 0);
      for (const [octave, gain] of [1, 0.4].entries()) {
        const cell = Math.max(1, (size * unit) / 2 ** octave);
        const key = seed * 31 + axis * 7 + octave;
        kernels.grain({ dst: plane, w: width, h: height, x: tile.x, y: tile.y, cell, seed: key, normal: 0, gain: gain * amount * unit });
      }
      kernels.clampTo(plane, count, -MOST * amount * unit, MOST * amount * unit);
      return plane;
    });
    const src = scratch.take(count * 16 + 64);
    kernels.interleave(ptr, stride, count, src, 4);
    kernels.displacedBy(src, width, height, offsets[0], offsets[1], ptr, stride, 4);
    scratch.release(mark);
  },
});
