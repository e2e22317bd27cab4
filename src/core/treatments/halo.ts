import * as z from 'zod';
import { parseHex } from '../color/srgb';
import { blurPlane, blurReach } from '../image/blur';
import { enlargeFrom, reducedRegion } from '../image/far';
import { grow } from '../image/tile';
import { colour, share, slider } from '../schema';
import { factorFor } from './small';
import { defineTreatment } from './treatment';
import { layUnder } from './under';

/** Standard deviation, in pixels, at which the glow is blurred. */
const WORKED = 5;
/** The blurred edge is this much stronger than a Gaussian leaves it, so that the glow begins at full where the shape ends. */
const GAIN = 2;

const schema = z.object({
  kind: z.literal('halo'),
  amount: share('Amount', 0.6),
  size: slider('Size', 2, 120, 18, { unit: 'u', step: 1, help: 'How far it spreads.' }),
  colour: colour('Colour of the glow', '#fff0d0'),
});
type Params = z.output<typeof schema>;

const sigmaOf = (p: Params, unit: number) => (p.size * unit) / 2;
const factorOf = (p: Params, unit: number) => factorFor(sigmaOf(p, unit), WORKED);

/** A colour that spreads around what a coat covers, under it. */
export default defineTreatment({
  kind: 'halo',
  label: 'Outer glow',
  words: 'halo aura spread around edge shadow',
  ofSurface: true,
  shows: true,
  schema,
  source: 'source-over of a blurred shape (W3C Compositing, Level 1), common practice',
  shrinks: factorOf,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : blurReach(sigmaOf(p, unit))),
  neutral: (p) => p.amount === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const factor = factorOf(p, unit);
    const sigma = sigmaOf(p, unit) / factor;
    const mark = scratch.mark();
    const soft = scratch.plane(count + 8);
    const alpha = ptr + 3 * stride;
    if (factor === 1) {
      kernels.copyWindow(alpha, width, soft, width, width, height);
      blurPlane(machine, scratch, soft, width, height, sigma);
    } else {
      const within = scratch.mark();
      const small = context.smaller('own', factor, grow(reducedRegion(tile, factor), blurReach(sigma)));
      blurPlane(machine, scratch, small.ptr + 3 * small.stride, small.width, small.height, sigma);
      enlargeFrom(machine, scratch, { ...small, ptr: small.ptr + 3 * small.stride }, factor, { ...tile, ptr: soft, stride: count * 4 }, 1);
      scratch.release(within);
    }
    kernels.mixIn(soft, soft, count, GAIN * p.amount, 0, 0);
    kernels.clampTo(soft, count, 0, p.amount);
    layUnder(context, tile, soft, parseHex(p.colour));
    scratch.release(mark);
  },
});
