import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurAlong, flowField, sharpenAcross } from '../image/flow';
import type { Tile } from '../image/tile';
import { share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { finishReach, nearReach, onSmaller, paintFactor, regionOn } from './small';
import { defineTreatment } from './treatment';

/** Least length of a stroke (its standard deviation), in pixels, at which it is worked out. */
const LEAST = 2.5;
/** Radius, in u, of the surroundings whose contrast is given back, and most that it is strengthened. */
const WINDOW = 30;
const MOST = 1.5;

const schema = z.object({
  kind: z.literal('flow'),
  length: slider('Length', 0, 24, 8, { unit: 'u', step: 0.5, accepts: [0, 80], help: 'How long strokes are.' }),
  passes: slider('Passes', 1, 4, 3, { step: 1, help: 'Each makes the strokes clearer.' }),
  crisp: share('Crisp edges', 0.6, { help: 'Sharpens edges across the strokes.' }),
  even: share('Even out', 0.5, { help: 'Gives back contrast that the strokes take.' }),
  keep: keepField,
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => paintFactor(p.length, unit, LEAST);
const passesOf = (p: Params) => Math.round(p.passes);

function haloOf(p: Params, unit: number): number {
  const pass = 2 * nearReach(4 * unit) + Math.ceil(2 * p.length * unit) + nearReach(1.5 * unit) + Math.ceil(2 * unit) + 4;
  return passesOf(p) * pass + (p.even > 0 ? Math.ceil(WINDOW * unit) + 2 : 0);
}

/** Strokes along the form: colours are drawn out along the edges, and edges sharpened across them. */
export default defineTreatment({
  kind: 'flow',
  label: 'Strokes along the form',
  words: 'painterly simplify flow brush strokes line integral oil hair',
  shows: true,
  added: { keep: 0.5 },
  schema,
  source: 'Cabral & Leedom 1993, line integral convolution; Kyprianidis & Kang 2011, coherence-enhancing filtering',
  inputs: faceInput,
  shrinks: factorOf,
  worksSmaller: true,
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? finishReach(factorOf(p, unit)) : haloOf(p, unit)),
  neutral: (p) => p.length === 0,
  apply(context, tile, p) {
    const factor = factorOf(p, context.unit);
    onSmaller(context, tile, factor, haloOf(p, context.unit / factor), (small, unit) => {
      const { machine, scratch } = context;
      const { kernels } = machine;
      const { ptr, stride, count } = small;
      const mark = scratch.mark();
      const before = p.even > 0 ? spreadOf(context, small, unit) : null;
      const faces = p.keep > 0 ? regionOn(context, 'faces', factor, small) : null;
      const eased = (by: number) => {
        if (faces === null) return 0;
        const plane = scratch.plane(count + 8, 1);
        kernels.times(plane, faces, count, -by * p.keep, 1);
        return plane;
      };
      const [shorter, softer] = [eased(0.9), eased(0.7)];
      for (let pass = 0; pass < passesOf(p); pass++) {
        const inner = scratch.mark();
        const flow = flowField(machine, scratch, small, 4 * unit, 4 * unit);
        blurAlong(machine, scratch, small, flow, p.length * unit, shorter);
        const across = { soften: 1.5 * unit, probe: 2 * unit + 0.5, reach: Math.max(0.75, 1.5 * unit), amount: p.crisp };
        sharpenAcross(machine, scratch, small, flow, across, softer);
        scratch.release(inner);
      }
      if (before) {
        const after = spreadOf(context, small, unit);
        kernels.evenSpread(ptr, stride, count, after.mean, before.spread, after.spread, p.even, MOST);
      }
      scratch.release(mark);
    });
  },
});

/** Mean and standard deviation of luma around each pixel: planes. */
function spreadOf({ machine, scratch }: DrawContext, { ptr, stride, width, height, count }: Tile, unit: number) {
  const { kernels } = machine;
  const [mean, spread] = [scratch.plane(count + 8), scratch.plane(count + 8)];
  const mark = scratch.mark();
  const [luma, middle] = [scratch.plane(count + 8), scratch.plane(count + 8)];
  const radius = WINDOW * unit;
  const line = scratch.take((width + 2 * Math.ceil(radius) + 32) * 4);
  kernels.lumaPlane(ptr, stride, luma, count);
  kernels.boxMean(luma, mean, width, height, radius, middle, line);
  kernels.multiplied(luma, luma, luma, count);
  kernels.boxMean(luma, spread, width, height, radius, middle, line);
  kernels.deviation(mean, spread, count);
  scratch.release(mark);
  return { mean, spread };
}
