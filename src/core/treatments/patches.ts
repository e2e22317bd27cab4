import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane } from '../image/blur';
import { flowField } from '../image/flow';
import type { Tile } from '../image/tile';
import { share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { factorFor, finishReach, nearReach, onSmaller, paintFactor, regionOn } from './small';
import { defineTreatment } from './treatment';

/** Least radius of a patch, in pixels, at which it is worked out. */
const LEAST = 3;
/** and about the most: a larger one is worked out smaller still. */
const MOST = 5.5;
/** Standard deviations in u of the surroundings that count as detail. */
const DETAIL = [4, 12];

const schema = z.object({
  kind: z.literal('patches'),
  size: slider('Size', 0, 32, 12, { unit: 'u', step: 0.5, accepts: [0, 80], help: 'How large a patch of paint is.' }),
  along: share('Along edges', 1, { help: 'Stretches patches along the form.' }),
  detail: share('Keep detail', 0.6, { help: 'Smaller patches where the photo is busy.' }),
  passes: slider('Passes', 1, 3, 1, { step: 1, help: 'Each makes the shapes calmer.' }),
  keep: keepField,
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => Math.max(paintFactor(p.size, unit, LEAST), factorFor(p.size * unit, MOST));
/** Pixels around a pixel that all passes read, with `unit` pixels to one u. */
function haloOf(p: Params, unit: number): number {
  const detail = p.detail > 0 ? DETAIL.reduce((sum, d) => sum + nearReach(d * unit), 0) : 0;
  return Math.round(p.passes) * (Math.ceil(p.size * unit * (1 + p.along)) + nearReach(2 * unit + 1) + 2) + detail;
}

/** Patches of paint that follow the form: each pixel takes the mean of the evenest of eight sectors of an ellipse along the edges. */
export default defineTreatment({
  kind: 'patches',
  label: 'Patches of paint',
  words: 'painterly simplify kuwahara paint oil watercolour smooth',
  shows: true,
  added: { keep: 0.5 },
  schema,
  source: 'Kyprianidis, Kang & Döllner 2009, anisotropic Kuwahara filtering; polynomial weights of Kyprianidis, Semmo, Kang & Döllner 2010',
  inputs: faceInput,
  shrinks: factorOf,
  worksSmaller: true,
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? finishReach(factorOf(p, unit)) : haloOf(p, unit)),
  neutral: (p) => p.size === 0,
  apply(context, tile, p) {
    const factor = factorOf(p, context.unit);
    onSmaller(context, tile, factor, haloOf(p, context.unit / factor), (small, unit) => {
      const { scratch } = context;
      const mark = scratch.mark();
      const ease = easeOf(context, small, p, factor, unit);
      for (let pass = 0; pass < Math.round(p.passes); pass++) layPatches(context, small, p, unit, ease);
      scratch.release(mark);
    });
  },
});

/** By how much patches are smaller: where there is detail, and at faces. */
function easeOf(context: DrawContext, tile: Tile, { detail, keep }: Params, factor: number, unit: number): number {
  const { machine, scratch } = context;
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const ease = scratch.plane(count + 8, 1);
  const mark = scratch.mark();
  if (detail > 0) {
    const [luma, soft] = [scratch.plane(count + 8), scratch.plane(count + 8)];
    kernels.lumaPlane(ptr, stride, luma, count);
    kernels.copyWindow(luma, width, soft, width, width, height);
    blurPlane(machine, scratch, soft, width, height, DETAIL[0] * unit);
    kernels.mixIn(luma, soft, count, 1, -1, 0);
    kernels.absolute(luma, count);
    blurPlane(machine, scratch, luma, width, height, DETAIL[1] * unit);
    kernels.smoothstep(luma, count, 4 / 255, 16 / 255);
    kernels.times(ease, luma, count, -detail, 1);
  }
  const faces = keep > 0 ? regionOn(context, 'faces', factor, tile) : null;
  if (faces !== null) kernels.times(ease, faces, count, -0.9 * keep, 1);
  scratch.release(mark);
  return ease;
}

function layPatches({ machine, scratch }: DrawContext, tile: Tile, p: Params, unit: number, ease: number): void {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const radius = p.size * unit;
  const { tx, ty, share: even } = flowField(machine, scratch, tile, 2 * unit + 1);
  const table = scratch.take(kernels.kuwaharaTable());
  const zeta = 2 / Math.max(2, radius);
  kernels.kuwaharaWeights(table, zeta, (zeta + Math.cos(Math.PI / 8)) / Math.sin(Math.PI / 8) ** 2);
  const from = scratch.take(3 * stride);
  machine.bytes.copyWithin(from, ptr, ptr + 3 * stride);
  const squares = scratch.plane(count + 8, 0);
  const square = scratch.plane(count + 8);
  for (let c = 0; c < 3; c++) {
    kernels.multiplied(from + c * stride, from + c * stride, square, count);
    kernels.mixIn(squares, square, count, 1, 1, 0);
  }
  const laid = {
    src: from,
    stride,
    squares,
    w: width,
    h: height,
    tx,
    ty,
    share: even,
    ease,
    radius,
    along: p.along,
    table,
    dst: ptr,
    target: stride,
  };
  machine.inBands(height, (y0, y1) => kernels.kuwahara({ ...laid, y0, y1 }));
  scratch.release(mark);
}
