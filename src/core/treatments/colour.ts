import * as z from 'zod';
import { share } from '../schema';
import { defineTreatment } from './treatment';

const bare = (values: Record<string, unknown>) => (values.materialIsGrey ? 'No effect: there is no colour here.' : undefined);

export const colourFields = {
  saturation: share('Saturation', 0, { min: -1, max: 1, help: 'At −100 % the photo is black and white.', idle: bare }),
  vibrance: share('Vibrance', 0, { min: -1, max: 1, help: 'Strengthens pale colours most.', idle: bare }),
  lightness: share('Lightness', 0, { min: -1, max: 1, help: 'Lightens the midtones and keeps the colour.' }),
};

/** Saturation as the W3C saturate filter, weaker on strong colours for vibrance; luma is kept. */
export default defineTreatment({
  kind: 'colour',
  label: 'Colour',
  words: 'saturation vibrance fade',
  schema: z.object({ kind: z.literal('colour'), ...colourFields }),
  source: 'W3C Filter Effects, Level 1, saturate; vibrance is common practice, no source',
  reach: () => 0,
  neutral: (p) => p.saturation === 0 && p.vibrance === 0 && p.lightness === 0,
  apply: ({ machine }, tile, p) => void machine.kernels.colourful(tile.ptr, tile.stride, tile.count, p.saturation, p.vibrance, p.lightness),
});
