import * as z from 'zod';
import type { InputSpec } from '../graph/node';
import { choice, share, slider, toggle } from '../schema';
import { defineSource } from './source';

export const grainSourceSchema = z.object({
  kind: z.literal('grain'),
  amount: share('Grain', 0.15, { help: 'How strong the grain is.' }),
  size: slider('Size', 0.5, 12, 1.5, { unit: 'u', step: 0.1, help: 'How large a grain is, at least one pixel.' }),
  clumping: share('Clumping', 0.3, { help: 'Gathers the grain into patches.' }),
  colour: share('Colour', 0, { help: 'At 0 the grain is grey.' }),
  spread: choice(
    'Spread',
    [
      { value: 'gaussian', label: 'Gaussian' },
      { value: 'uniform', label: 'Uniform' },
    ],
    'gaussian',
    { help: 'Gaussian has a few strong grains, uniform none.' },
  ),
  even: toggle('Same in darks and lights', true),
  seed: z.number().int().min(0).max(1e9).default(1),
});

/** Weighed by what lies below: film shows its grain in the middle tones. */
const middling = (luma: number) => 0.25 + 3 * luma * (1 - luma);

/** Film grain on mid grey, for overlay, soft and linear light: a coat of its own above everything. */
export default defineSource({
  kind: 'grain',
  label: 'Grain',
  offers: [{ label: 'Grain', says: 'Film grain over the whole picture.', words: 'film noise old', isComplete: true }],
  schema: grainSourceSchema,
  firstLook: { blend: 'overlay', strength: 1 },
  guards: 0,
  inputs: ({ even }): Record<string, InputSpec> => (even ? {} : { below: 'below' }),
  fill(context, tile, { amount, size, clumping, colour, spread, even, seed }) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const own = scratch.plane(count + 8);
    const shared = scratch.plane(count + 8, 0);
    // Grain keeps its look: seen small it is as strong, and a grain is never finer than a pixel.
    const cell = Math.max(1, size * unit);
    const normal = +(spread === 'gaussian');
    const deviation = amount / 3;
    const add = (plane: number, key: number, gain: number) => {
      const [fine, coarse] = [Math.sqrt(1 - 0.6 * clumping), Math.sqrt(0.6 * clumping)];
      kernels.grain({ dst: plane, w: width, h: height, x: tile.x, y: tile.y, cell, seed: seed * 31 + key, normal, gain: gain * fine });
      if (coarse > 0)
        kernels.grain({
          dst: plane,
          w: width,
          h: height,
          x: tile.x,
          y: tile.y,
          cell: cell * 3.7,
          seed: seed * 31 + key + 7,
          normal,
          gain: gain * coarse,
        });
    };
    add(shared, 1, deviation * (1 - colour));
    let weight = 0;
    if (!even) {
      weight = scratch.plane(count + 8);
      const below = context.read('below', tile);
      kernels.lumaPlane(below.ptr, below.stride, weight, count);
      const table = scratch.take(64 * 4);
      machine.floats.set(
        Float32Array.from({ length: 64 }, (_, i) => middling(i / 63)),
        table / 4,
      );
      kernels.applyTable(weight, count, table, 64);
    }
    for (let c = 0; c < 3; c++) {
      const plane = ptr + c * stride;
      kernels.fill(own, count, 0);
      if (colour > 0) add(own, 100 + c * 17, deviation * colour);
      kernels.mixIn(own, shared, count, 1, 1, 0);
      if (weight) kernels.multiplied(own, weight, own, count);
      kernels.fill(plane, count, 0.5);
      kernels.mixIn(plane, own, count, 1, 1, 0);
      kernels.clampTo(plane, count, 0, 1);
    }
    kernels.fill(ptr + 3 * stride, count, 1);
    scratch.release(mark);
  },
});
