import * as z from 'zod';
import { blurReach } from '../image/blur';
import { isFar } from '../image/far';
import { Planes } from '../image/planes';
import { share, slider } from '../schema';
import { showPlane } from './map';
import { softened } from './soften';
import { defineTreatment } from './treatment';

/** Steps between which a blur is mixed, in parts of the greatest. */
const STEPS = [0.125, 0.25, 0.5, 1];

const schema = z.object({
  kind: z.literal('focus'),
  amount: share('Amount', 1, { max: 2, help: 'Softens the texture where the photo is out of focus.' }),
  ignore: slider('Ignore blur up to', 0, 10, 1, { unit: 'u', step: 0.1, help: 'A photo is never perfectly sharp.' }),
  most: slider('Softest', 1, 40, 12, { unit: 'u', step: 1, help: 'Further than this it is not softened.' }),
  /** Shows how far out of focus the photo is instead. */
  showsMap: z.boolean().optional(),
});

/** Softens a texture where the photo beneath is out of focus, as if both had been photographed together. */
export default defineTreatment({
  kind: 'focus',
  ofSurface: true,
  label: 'Follow the focus',
  words: 'depth of field blur out of focus soften defocus',
  shows: true,
  schema,
  source: 'Defocus by edges: Zhuo & Sim 2011',
  reach: (p, unit) =>
    Math.max(
      0,
      ...STEPS.map((step) => step * p.most * unit)
        .filter((sigma) => !isFar(sigma))
        .map(blurReach),
    ),
  softens: (p, unit) => p.most * unit,
  inputs: () => ({ focus: 'focus' as const }),
  neutral: (p) => p.amount === 0 && !p.showsMap,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const mark = scratch.mark();
    const planes = new Planes(machine, scratch, tile.width, tile.height);
    const square = planes.copy(context.read('focus', tile).ptr);
    if (p.showsMap) {
      kernels.mixIn(square, square, planes.count, 1 / (p.most * unit), 0, 0);
      showPlane(context, tile, square);
      return scratch.release(mark);
    }
    // Of two blurs the squares add: what the photo has anyway is taken off.
    kernels.times(square, square, planes.count, 1, 0);
    kernels.mixIn(square, square, planes.count, p.amount ** 2, 0, -((p.amount * p.ignore * unit) ** 2));
    const range = scratch.take(16);
    kernels.rangeOf(square, tile.width * tile.height, range);
    const greatest = machine.floats[range / 4 + 1];
    const sigmas = STEPS.map((step) => step * p.most * unit);
    const before = scratch.tile(tile);
    machine.bytes.copyWithin(before.ptr, tile.ptr, tile.ptr + 4 * tile.stride);
    sigmas.forEach((sigma, i) => {
      const least = i === 0 ? 0 : sigmas[i - 1] ** 2;
      if (greatest <= least) return;
      planes.briefly(() => {
        const share = planes.copy(square);
        kernels.mixIn(share, share, planes.count, 1 / (sigma ** 2 - least), 0, -least / (sigma ** 2 - least));
        kernels.clampTo(share, planes.count, 0, 1);
        const soft = softened(context, before, sigma);
        for (let c = 0; c < 3; c++) kernels.lerpTo(tile.ptr + c * tile.stride, soft.ptr + c * soft.stride, share, tile.count);
      });
    });
    scratch.release(mark);
  },
});
