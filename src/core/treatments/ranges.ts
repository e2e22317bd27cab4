import * as z from 'zod';
import { share } from '../schema';
import { defineTreatment } from './treatment';

const both = { min: -1, max: 1 };
export const rangesFields = {
  shadowRed: share('Shadows, red', 0, both),
  shadowGreen: share('Shadows, green', 0, both),
  shadowBlue: share('Shadows, blue', 0, both),
  middleRed: share('Middle tones, red', 0, both),
  middleGreen: share('Middle tones, green', 0, both),
  middleBlue: share('Middle tones, blue', 0, both),
  highlightRed: share('Highlights, red', 0, both),
  highlightGreen: share('Highlights, green', 0, both),
  highlightBlue: share('Highlights, blue', 0, both),
};

/** A full slider moves a channel so far. */
const MOST = 0.3;

/** Colour balance in three ranges of tone; luma is kept. */
export default defineTreatment({
  kind: 'ranges',
  label: 'Colour by tone',
  words: 'split toning fade old film',
  schema: z.object({ kind: z.literal('ranges'), ...rangesFields }),
  source: 'common practice, no source',
  reach: () => 0,
  neutral: (p) => Object.keys(rangesFields).every((key) => p[key as keyof typeof rangesFields] === 0),
  apply({ machine }, tile, p) {
    const { ptr, stride, count } = tile;
    const shadow = [MOST * p.shadowRed, MOST * p.shadowGreen, MOST * p.shadowBlue] as const;
    const middle = [MOST * p.middleRed, MOST * p.middleGreen, MOST * p.middleBlue] as const;
    const highlight = [MOST * p.highlightRed, MOST * p.highlightGreen, MOST * p.highlightBlue] as const;
    machine.kernels.balanceRanges({ tile: ptr, stride, count, shadow, middle, highlight });
  },
});
