import * as z from 'zod';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';

/** How far a point at the corner of a picture lies from its middle, in u. */
const CORNER = 1415;

/** A faint copy, shifted and turned, as of a plate exposed twice or a print out of register. */
export default defineTreatment({
  kind: 'double',
  label: 'Double image',
  words: 'ghost double exposure misregistered shift copy',
  shows: true,
  schema: z.object({
    kind: z.literal('double'),
    amount: share('Amount', 0.25, { help: 'How strong the copy is.' }),
    right: slider('Right', -120, 120, 16, { unit: 'u', step: 1 }),
    down: slider('Down', -120, 120, 6, { unit: 'u', step: 1 }),
    turn: slider('Turn', -4, 4, 0.5, { unit: '°', step: 0.1 }),
  }),
  source: 'common practice, no source',
  reach: (p, unit) => Math.ceil((Math.hypot(p.right, p.down) + CORNER * Math.sin((Math.abs(p.turn) * Math.PI) / 180)) * unit) + 2,
  neutral: (p) => p.amount === 0,
  apply({ machine, scratch, unit, width: w, height: h }, tile, { amount, right, down, turn }) {
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const [dx, dy] = [scratch.plane(count + 8), scratch.plane(count + 8)];
    const angle = (-turn * Math.PI) / 180;
    const [a, b] = [Math.cos(angle) - 1, -Math.sin(angle)];
    kernels.affineOffsets({
      dx,
      dy,
      w: width,
      h: height,
      cx: w / 2 - tile.x,
      cy: h / 2 - tile.y,
      ox: -right * unit,
      oy: -down * unit,
      a,
      b,
      c: -b,
      d: a,
    });
    const src = scratch.take(count * 16 + 64);
    kernels.interleave(ptr, stride, count, src, 3);
    const copy = scratch.take(4 * stride);
    kernels.displacedBy(src, width, height, dx, dy, copy, stride, 3);
    for (let c = 0; c < 3; c++) kernels.mixIn(ptr + c * stride, copy + c * stride, count, 1 - amount, amount, 0);
    scratch.release(mark);
  },
});
