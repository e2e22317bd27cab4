import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane } from '../image/blur';
import { blurPlaneAlong, flowField } from '../image/flow';
import type { Tile } from '../image/tile';
import { share, slider } from '../schema';
import { factorFor, finishReach, nearReach, onSmaller } from './small';
import { defineTreatment } from './treatment';

/** Radius of the wider blur, in pixels, at which the drawing is worked out. */
const WORKED = 12;
/** The finer lines' radius is this part of it. */
const FINER = 0.25;

const schema = z.object({
  kind: z.literal('pencil'),
  radius: slider('Radius', 2, 40, 14, { unit: 'u', step: 0.5, help: 'Small for thin lines, large for soft tone beside them.' }),
  fine: share('Fine lines', 0.7, { help: 'Adds thin lines to the soft ones.' }),
  along: slider('Along the form', 0, 8, 3, { unit: 'u', step: 0.5, help: 'Draws lines out along the form.' }),
  clean: share('Clean paper', 0.965, { min: 0.7, max: 1, help: 'What is lighter becomes white.' }),
  dark: share('Darkest at', 0.45, { min: 0, max: 0.69, help: 'What is darker becomes black.' }),
  grain: share('Grain', 0.4, { help: 'The tooth of the paper shows in the lines.' }),
  seed: z.number().int().min(0).max(1e9).default(1),
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.radius * unit, WORKED);
const haloOf = (p: Params, unit: number) =>
  nearReach(p.radius * unit) + (p.along > 0 ? Math.ceil(2 * p.along * unit) + 2 * nearReach(3 * unit + 1) : 0) + 4;

/** A pencil drawing: the picture's luma divided by its own blur (colour dodge of the blurred inverse), in two widths. */
export default defineTreatment({
  kind: 'pencil',
  label: 'Pencil',
  words: 'drawing sketch graphite lines charcoal hatching',
  shows: true,
  schema,
  source: 'colour dodge (W3C Compositing, Level 1) with the blurred inverse, common practice, no source; grain after Bousseau et al. 2006',
  shrinks: factorOf,
  replaces: (p, unit) => factorOf(p, unit) > 1,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? finishReach(factorOf(p, unit)) : haloOf(p, unit)),
  neutral: () => false,
  apply(context, tile, p) {
    const factor = factorOf(p, context.unit);
    onSmaller(context, tile, factor, haloOf(p, context.unit / factor), (small, unit) => drawPencil(context, small, p, unit));
    if (p.grain > 0) layGrain(context, tile, p);
  },
});

function drawPencil({ machine, scratch }: DrawContext, tile: Tile, p: Params, unit: number): void {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const [luma, soft, lines] = [scratch.plane(count + 8), scratch.plane(count + 8), scratch.plane(count + 8)];
  kernels.lumaPlane(ptr, stride, luma, count);
  const over = (radius: number, into: number) => {
    kernels.copyWindow(luma, width, soft, width, width, height);
    blurPlane(machine, scratch, soft, width, height, radius * unit);
    kernels.copyWindow(luma, width, into, width, width, height);
    kernels.divided(into, soft, count, 1, TINY);
  };
  over(p.radius, lines);
  if (p.fine > 0) {
    const thin = scratch.plane(count + 8);
    over(p.radius * FINER, thin);
    kernels.mixIn(thin, thin, count, p.fine, 0, 1 - p.fine);
    kernels.extreme(lines, thin, count, 0);
  }
  if (p.along > 0) {
    const { tx, ty } = flowField(machine, scratch, tile, 3 * unit + 1, 3 * unit);
    blurPlaneAlong(machine, scratch, lines, tile, { tx, ty }, p.along * unit);
  }
  kernels.mixIn(lines, lines, count, 1 / (p.clean - p.dark), 0, -p.dark / (p.clean - p.dark));
  kernels.clampTo(lines, count, 0, 1);
  for (let c = 0; c < 3; c++) kernels.copyWindow(lines, width, ptr + c * stride, width, width, height);
  scratch.release(mark);
}

/** Keeps black over black white, far under a level. */
const TINY = 1e-4;

/** Paint that lies on the heights of the paper and leaves its pits: density d becomes d + k·d·(1 − d)·tooth (Bousseau et al. 2006). */
function layGrain({ machine, scratch, unit }: DrawContext, tile: Tile, { grain, seed }: Params): void {
  const { kernels } = machine;
  const { ptr, stride, width, height, count } = tile;
  const mark = scratch.mark();
  const tooth = scratch.plane(count + 8, 0);
  const add = (size: number, key: number, gain: number) => {
    const cell = Math.max(1, size * unit);
    kernels.grain({ dst: tooth, w: width, h: height, x: tile.x, y: tile.y, cell, seed: seed * 31 + key, normal: 1, gain });
  };
  // In an average over a pixel grains finer than it fade.
  add(4.5, 1, 0.24 * Math.min(1, 4.5 * unit));
  add(2.2, 2, 0.16 * Math.min(1, 2.2 * unit));
  for (let c = 0; c < 3; c++) kernels.pigmented(ptr + c * stride, tooth, count, 4.8 * grain);
  scratch.release(mark);
}
