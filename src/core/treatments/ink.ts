import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane } from '../image/blur';
import { blurPlaneAlong, flowField } from '../image/flow';
import type { Tile } from '../image/tile';
import { colour, share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { factorFor, nearReach, regionOn } from './small';
import { foundSmaller, layLines } from './lines';
import { defineTreatment } from './treatment';
import { wideLuma, wideReach } from './wide';

/** Width of a line, in pixels, at which lines are looked for. */
const WORKED = 1.6;
/** Surroundings, in u, that a dark ground is lightened by; of unevenness; and how far lines are drawn out along the form. */
const [GROUND, ROUGH, ALONG] = [80, 10, 6];
/** Weight of the difference of Gaussians over the mean. */
const SHARP = 12;

const schema = z.object({
  kind: z.literal('ink'),
  width: slider('Width', 1, 4, 2, { unit: 'u', step: 0.1, accepts: [0.5, 12], help: 'How wide a line is.' }),
  black: share('Amount of ink', 0.45, { min: 0.3, max: 0.6, help: 'More turns shadows black.' }),
  crisp: slider('Sharpness', 2, 24, 8, { step: 0.5, help: 'Low leaves grey, high is black and white.' }),
  calm: share('Leave out noise', 0.5, { help: 'Keeps cloth and skies free of stray marks.' }),
  ground: share('Open dark places', 1, { help: 'At 0 dark areas fill with black, as in a woodcut.' }),
  colour: colour('Ink', '#19171c'),
  keep: keepField,
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.width * unit, WORKED);
const haloOf = (p: Params, unit: number) =>
  nearReach(3 * unit + 1) * 2 + Math.ceil(3 * 1.6 * p.width * unit) + Math.ceil(2 * ALONG * unit) + nearReach(ROUGH * unit) + 6;

/** Black lines on white, as by a pen or brush: a difference of Gaussians across the form, drawn out along it, and cut off softly. */
export default defineTreatment({
  kind: 'ink',
  label: 'Ink lines',
  words: 'lines drawing sketch pen outline comic woodcut edges contour',
  shows: true,
  schema,
  source: 'Winnemöller, Kyprianidis & Olsen 2012, XDoG; Kang, Lee & Chui 2009, flow-based difference of Gaussians',
  inputs: faceInput,
  shrinks: (p, unit) => Math.max(factorOf(p, unit), p.ground > 0 && wideReach(GROUND * unit, 1) === 0 ? 2 : 1),
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : haloOf(p, unit) + wideReach(GROUND * unit, 1)),
  neutral: () => false,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const mark = scratch.mark();
    const factor = factorOf(p, unit);
    const there = unit / factor;
    const lines = foundSmaller(context, tile, factor, haloOf(p, there), (small) => difference(context, small, p, factor, there));
    machine.kernels.inked(lines, tile.count, p.black, p.crisp);
    layLines(context, tile, lines, p.colour);
    scratch.release(mark);
  },
});

/** The difference of Gaussians, before it is cut off: a plane of the tile. */
function difference(context: DrawContext, tile: Tile, p: Params, factor: number, unit: number): number {
  const { machine, scratch } = context;
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const out = scratch.plane(count + 8);
  const mark = scratch.mark();
  const luma = scratch.plane(count + 8);
  kernels.lumaPlane(ptr, stride, luma, count);
  const even = scratch.plane(count + 8);
  kernels.copyWindow(luma, width, even, width, width, height);
  // Light made even, or dark grounds would fill with black.
  if (p.ground > 0) {
    kernels.divided(even, wideLuma(context, tile, factor, GROUND * unit), count, 0.72, 0.05);
    kernels.mixIn(even, luma, count, p.ground, 1 - p.ground, 0);
  }
  if (p.calm > 0) {
    const [soft, rough] = [scratch.plane(count + 8), scratch.plane(count + 8)];
    kernels.copyWindow(luma, width, soft, width, width, height);
    kernels.multiplied(luma, luma, rough, count);
    for (const plane of [soft, rough]) blurPlane(machine, scratch, plane, width, height, ROUGH * unit);
    kernels.deviation(soft, rough, count);
    // From there to here unevenness counts as form: higher the calmer it is to be.
    kernels.smoothstep(rough, count, (7 * p.calm) / 255, (18 * p.calm) / 255);
    kernels.fill(soft, count, 0.74);
    kernels.mixIn(even, soft, count, 1, -1, 0);
    kernels.multiplied(even, rough, even, count);
    kernels.mixIn(even, soft, count, 1, 1, 0);
  }
  const { tx, ty } = flowField(machine, scratch, tile, 3 * unit + 1, 3 * unit);
  kernels.differenceAcross(even, width, height, tx, ty, Math.max(0.5, p.width * unit), SHARP, out);
  blurPlaneAlong(machine, scratch, out, tile, { tx, ty }, ALONG * unit);
  const faces = p.keep > 0 ? regionOn(context, 'faces', factor, tile) : null;
  // Less ink in faces: what it is held against is lowered by as much as that.
  if (faces !== null) kernels.mixIn(out, faces, count, 1, 0.12 * p.keep, 0);
  scratch.release(mark);
  return out;
}
