import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurReach, blurTile } from '../image/blur';
import { isFar } from '../image/far';
import { Planes } from '../image/planes';
import { copyPart, cutOut, grow, type Region, type Tile } from '../image/tile';
import { share, slider } from '../schema';
import { showPlane } from './map';
import { defineTreatment } from './treatment';

/** Steps between which a blur is mixed, in parts of the greatest. */
const STEPS = [0.125, 0.25, 0.5, 1];

const schema = z.object({
  kind: z.literal('focus'),
  amount: share('Amount', 1, { max: 2, help: 'Softens the texture where the photo is out of focus.' }),
  ignore: slider('Ignore blur up to', 0, 10, 1, { unit: 'u', step: 0.1, help: 'A photo is never perfectly sharp.' }),
  most: slider('Most blur', 1, 40, 12, { unit: 'u', step: 1, help: 'The texture is never blurred more than this.' }),
  /** Shows how far out of focus the photo is instead. */
  showsMap: z.boolean().optional(),
});
type Params = z.output<typeof schema>;

/** Softens a texture where the photo beneath is out of focus, as if both had been photographed together. */
export default defineTreatment({
  kind: 'focus',
  ofSurface: true,
  label: 'Follow the focus',
  words: 'depth of field blur out of focus soften defocus',
  shows: true,
  schema,
  source: 'Defocus by edges: Zhuo & Sim 2011',
  reach: () => 1,
  // Only where it is taken on a smaller drawing: nearer ones are seen to by `move`.
  softens: (p, unit) => (isFar(p.most * unit) ? p.most * unit : 0),
  inputs: () => ({ focus: 'focus' as const }),
  neutral: (p) => p.amount === 0 && !p.showsMap,
  moves: (p) => !p.showsMap,
  move: soften,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const mark = scratch.mark();
    const focus = context.read('focus', tile).ptr;
    const shown = scratch.plane(tile.count + 8);
    machine.kernels.mixIn(shown, focus, tile.count, 0, 1 / (p.most * unit), 0);
    showPlane(context, tile, shown);
    scratch.release(mark);
  },
});

/** Draws a region, around which no more is read than its softest place needs: where the photo is sharp, nothing. */
function soften(context: DrawContext, { x, y, width, height }: Region, p: Params, own: (region: Region) => Tile): Tile {
  const { machine, scratch, unit } = context;
  const { kernels } = machine;
  const region = { x, y, width, height };
  const mark = scratch.mark();
  const planes = new Planes(machine, scratch, width, height);
  const out = scratch.tile(region);
  const after = scratch.mark();
  const square = planes.copy(context.read('focus', region).ptr);
  // Of two blurs the squares add: what the photo has anyway is taken off.
  kernels.times(square, square, planes.count, 1, 0);
  kernels.mixIn(square, square, planes.count, p.amount ** 2, 0, -((p.amount * p.ignore * unit) ** 2));
  const range = scratch.take(16);
  kernels.rangeOf(square, width * height, range);
  const greatest = machine.floats[range / 4 + 1];
  if (greatest <= 0) {
    scratch.release(mark);
    return own(region);
  }
  const steps = STEPS.map((step, i) => ({ sigma: step * p.most * unit, least: i === 0 ? 0 : (STEPS[i - 1] * p.most * unit) ** 2 }));
  const used = steps.filter(({ least }) => least < greatest);
  const near = used.filter(({ sigma }) => !isFar(sigma));
  const before = own(grow(region, Math.max(0, ...near.map(({ sigma }) => blurReach(sigma)))));
  copyPart(machine, before, out);
  for (const { sigma, least } of used)
    planes.briefly(() => {
      const share = planes.copy(square);
      kernels.mixIn(share, share, planes.count, 1 / (sigma ** 2 - least), 0, -least / (sigma ** 2 - least));
      kernels.clampTo(share, planes.count, 0, 1);
      const soft = isFar(sigma) ? (context.far('own', sigma) as Tile) : cutOut(scratch, blurred(context, before, sigma), region);
      for (let c = 0; c < 3; c++) kernels.lerpTo(out.ptr + c * out.stride, soft.ptr + c * soft.stride, share, out.count);
    });
  scratch.release(after);
  return out;
}

/** A blurred copy of a tile's colours. */
function blurred({ machine, scratch }: DrawContext, tile: Tile, sigma: number): Tile {
  const copy = scratch.tile(tile);
  machine.bytes.copyWithin(copy.ptr, tile.ptr, tile.ptr + 4 * tile.stride);
  blurTile(machine, scratch, copy, sigma);
  return copy;
}
