import * as z from 'zod';
import { share, slider } from '../schema';
import { softened } from './soften';
import { defineTreatment } from './treatment';

/** A material taken apart into its fine detail and the colour that it stands on, and put together again by two weights. */
export default defineTreatment({
  kind: 'split',
  label: 'Detail and colour',
  words: 'grain texture clarity',
  shows: true,
  schema: z.object({
    kind: z.literal('split'),
    radius: slider('Finer than', 1, 80, 12, { unit: 'u', step: 1, help: 'Separates fine detail from broad colour.' }),
    detail: share('Detail', 1, { max: 2, help: 'At 0 only the soft colour is left.' }),
    colour: share('Colour', 0, { help: 'At 0 only the detail is left, on mid grey.' }),
  }),
  source: 'split by a Gaussian (frequency separation), common practice, no source',
  reach: () => 0,
  softens: (p, unit) => p.radius * unit,
  neutral: (p) => p.detail === 1 && p.colour === 1,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const mark = scratch.mark();
    const base = softened(context, tile, p.radius * unit);
    for (let c = 0; c < 3; c++)
      machine.kernels.recombine(tile.ptr + c * tile.stride, base.ptr + c * base.stride, tile.count, p.detail, p.colour, 0.5);
    scratch.release(mark);
  },
});
