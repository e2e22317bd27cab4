import * as z from 'zod';
import { share, slider } from '../schema';
import { defineTreatment } from './treatment';

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
  // The copy is pulled from where it comes from, so no halo is needed. More than 0, because it is not a function of one pixel.
  reach: () => 1,
  neutral: (p) => p.amount === 0,
  apply(context, tile, { amount, right, down, turn }) {
    const { machine, scratch, unit, width: w, height: h } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const angle = (-turn * Math.PI) / 180;
    const [a, b] = [Math.cos(angle) - 1, -Math.sin(angle)];
    const [ox, oy] = [-right * unit, -down * unit];
    // Where the corners of the tile are read.
    const corners = [
      [tile.x, tile.y],
      [tile.x + width, tile.y],
      [tile.x, tile.y + height],
      [tile.x + width, tile.y + height],
    ].map(([x, y]) => [x + ox + a * (x - w / 2) + b * (y - h / 2), y + oy - b * (x - w / 2) + a * (y - h / 2)]);
    const [xs, ys] = [corners.map(([x]) => x), corners.map(([, y]) => y)];
    const [left, top] = [Math.floor(Math.min(...xs)) - 2, Math.floor(Math.min(...ys)) - 2];
    const from = context.smaller('own', 1, {
      x: left,
      y: top,
      width: Math.ceil(Math.max(...xs)) + 2 - left,
      height: Math.ceil(Math.max(...ys)) + 2 - top,
    });
    const src = scratch.take(from.count * 16 + 64);
    kernels.interleave(from.ptr, from.stride, from.count, src, 3);
    const [dx, dy] = [scratch.plane(count + 8), scratch.plane(count + 8)];
    const shift = { ox: ox + tile.x - left, oy: oy + tile.y - top };
    kernels.affineOffsets({ dx, dy, w: width, h: height, cx: w / 2 - tile.x, cy: h / 2 - tile.y, ...shift, a, b, c: -b, d: a });
    const copy = scratch.take(4 * stride);
    kernels.displacedFrom({ src, sw: from.width, sh: from.height, w: width, h: height, dx, dy, dst: copy, stride, planes: 3 });
    for (let c = 0; c < 3; c++) kernels.mixIn(ptr + c * stride, copy + c * stride, count, 1 - amount, amount, 0);
    scratch.release(mark);
  },
});
