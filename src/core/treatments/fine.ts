import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane } from '../image/blur';
import { blurPlaneAlong, flowField } from '../image/flow';
import { applyModel, modelOf } from '../image/guided';
import type { Tile } from '../image/tile';
import { colour, share, slider } from '../schema';
import { factorFor, nearReach } from './small';
import { foundSmaller, layLines } from './lines';
import { defineTreatment } from './treatment';

/** Width of a line, in pixels, at which lines are looked for. */
const WORKED = 3;

const schema = z.object({
  kind: z.literal('fine'),
  radius: slider('Width', 1, 8, 3, { unit: 'u', step: 0.25, help: 'How wide a line is.' }),
  amount: share('Amount', 0.8, { help: 'How dark lines become.' }),
  floor: slider('Leave out under', 0, 24, 4, { unit: 'levels', step: 0.5, help: 'Edges weaker than this are left out.' }),
  full: slider('Darkest at', 2, 60, 16, { unit: 'levels', step: 1, help: 'Edges this strong are drawn in full.' }),
  colour: colour('Line', '#19171c'),
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.radius * unit, WORKED);
const haloOf = (p: Params, unit: number) => 4 * (Math.ceil(5 * unit) + 2) + 2 * nearReach(2 * unit + 1) + Math.ceil(p.radius * unit + 8 * unit) + 6;

/** Thin lines on white where the picture changes most: the strength of its structure tensor, thinned across the form. */
export default defineTreatment({
  kind: 'fine',
  label: 'Fine lines',
  words: 'lines drawing outline edges contour sketch find edges',
  shows: true,
  schema,
  source: 'structure tensor, thinned by non-maximum suppression (Canny 1986), after a guided filter (He, Sun & Tang 2013)',
  shrinks: factorOf,
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : haloOf(p, unit)),
  neutral: () => false,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const mark = scratch.mark();
    const factor = factorOf(p, unit);
    const there = unit / factor;
    const lines = foundSmaller(context, tile, factor, haloOf(p, there), (small) => strengths(context, small, p, there));
    machine.kernels.mixIn(lines, lines, tile.count, -p.amount, 0, 1);
    layLines(context, tile, lines, p.colour);
    scratch.release(mark);
  },
});

/** How strongly a line is drawn, 0..1: a plane. */
function strengths({ machine, scratch }: DrawContext, tile: Tile, { radius, floor, full }: Params, unit: number): number {
  const { kernels } = machine;
  const { width, height, count } = tile;
  const out = scratch.plane(count + 8);
  const mark = scratch.mark();
  const luma = scratch.plane(count + 8);
  for (let pass = 0; pass < 2; pass++) {
    kernels.lumaPlane(tile.ptr, tile.stride, luma, count);
    applyModel(machine, modelOf(machine, scratch, tile, luma, Math.max(1, 5 * unit), (8 / 255) ** 2), luma, tile);
  }
  const [xx, xy, yy] = Array.from({ length: 3 }, () => scratch.plane(count + 8));
  kernels.structureTensor(tile.ptr, tile.stride, width, height, xx, xy, yy);
  for (const plane of [xx, xy, yy]) blurPlane(machine, scratch, plane, width, height, Math.max(0.7, 0.5 * radius * unit));
  kernels.edgeStrength(xx, xy, yy, count);
  const { tx, ty } = flowField(machine, scratch, tile, 2 * unit + 1, 2 * unit);
  kernels.thinned(xx, width, height, tx, ty, Math.max(1, radius * unit), out);
  blurPlaneAlong(machine, scratch, out, tile, { tx, ty }, 4 * unit);
  // A change a pixel becomes a change a u: the same line however large it is drawn.
  kernels.smoothstep(out, count, floor / 255 / unit / 3, (floor + full) / 255 / unit / 3);
  scratch.release(mark);
  return out;
}
