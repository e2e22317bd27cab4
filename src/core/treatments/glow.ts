import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane, blurReach } from '../image/blur';
import { enlargeFrom, reducedRegion } from '../image/far';
import { grow, type Tile } from '../image/tile';
import { share, slider } from '../schema';
import { factorFor } from './small';
import { defineTreatment } from './treatment';

/** Standard deviation, in pixels, at which the glow is blurred. */
const WORKED = 5;

const schema = z.object({
  kind: z.literal('glow'),
  light: share('Light glow', 0.4, { help: 'Lights spread softly.' }),
  dark: share('Dark glow', 0, { help: 'Shadows spread softly.' }),
  radius: slider('Radius', 4, 80, 24, { unit: 'u', step: 1 }),
  threshold: share('From', 0.45, { help: 'Only what is lighter glows.' }),
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.radius * unit, WORKED);

/** Lights that spread, laid on in linear light, and darks that spread, laid on where they are darker. */
export default defineTreatment({
  kind: 'glow',
  label: 'Glow',
  words: 'bloom soft dream diffuse halation orton light dark',
  shows: true,
  schema,
  source: 'screen and darken of a blurred copy (W3C Compositing, Level 1), common practice; in linear light, our own',
  shrinks: factorOf,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : blurReach(3 * p.radius * unit)),
  neutral: (p) => p.light === 0 && p.dark === 0,
  apply(context, tile, p) {
    const { machine, scratch } = context;
    const { kernels } = machine;
    const mark = scratch.mark();
    const soft = { ...tile, ptr: scratch.take(3 * tile.stride) };
    if (p.light > 0) {
      blurred(context, tile, soft, p, true);
      for (let c = 0; c < 3; c++) kernels.lightened(tile.ptr + c * tile.stride, soft.ptr + c * soft.stride, tile.count, 1.6 * p.light);
    }
    if (p.dark > 0) {
      blurred(context, tile, soft, p, false);
      for (let c = 0; c < 3; c++) {
        const [plane, glow] = [tile.ptr + c * tile.stride, soft.ptr + c * soft.stride];
        kernels.mixIn(glow, glow, tile.count, 1.35, 0, 0.12);
        kernels.clampTo(glow, tile.count, 0, 1);
        kernels.multiplied(glow, plane, glow, tile.count);
        kernels.mixIn(plane, glow, tile.count, 1 - p.dark, p.dark, 0);
      }
    }
    scratch.release(mark);
  },
});

/** The picture, or with `lights` what is light of it in linear light, blurred narrow and wide: put into `out`. */
function blurred(context: DrawContext, tile: Tile, out: Tile, p: Params, lights: boolean): void {
  const { machine, scratch, unit } = context;
  const { kernels } = machine;
  const factor = factorOf(p, unit);
  const sigma = (p.radius * unit) / factor;
  const mark = scratch.mark();
  const small =
    factor > 1
      ? context.smaller('own', factor, grow(reducedRegion(tile, factor), blurReach(3 * sigma)))
      : { ...tile, ptr: scratch.take(3 * tile.stride) };
  if (factor === 1) machine.bytes.copyWithin(small.ptr, tile.ptr, tile.ptr + 3 * tile.stride);
  const { width, height, count } = small;
  if (lights) {
    const weight = scratch.plane(count + 8);
    kernels.lumaPlane(small.ptr, small.stride, weight, count);
    kernels.smoothstep(weight, count, p.threshold, 1.0001);
    for (let c = 0; c < 3; c++) {
      kernels.linearised(small.ptr + c * small.stride, count);
      kernels.multiplied(small.ptr + c * small.stride, weight, small.ptr + c * small.stride, count);
    }
  }
  const wide = scratch.plane(count + 8);
  for (let c = 0; c < 3; c++) {
    const plane = small.ptr + c * small.stride;
    if (lights) {
      kernels.copyWindow(plane, width, wide, width, width, height);
      blurPlane(machine, scratch, wide, width, height, 3 * sigma);
    }
    blurPlane(machine, scratch, plane, width, height, sigma);
    if (lights) kernels.mixIn(plane, wide, count, 0.6, 0.4, 0);
  }
  if (factor > 1) enlargeFrom(machine, scratch, small, factor, out, 3);
  else machine.bytes.copyWithin(out.ptr, small.ptr, small.ptr + 3 * small.stride);
  scratch.release(mark);
}
