import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { enlargeFrom, reducedRegion } from '../image/far';
import { applyModel, modelOf } from '../image/guided';
import { grow, type Tile } from '../image/tile';
import { share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { factorFor, regionOn } from './small';
import { defineTreatment } from './treatment';

/** Radius, in pixels, at which wider surroundings are looked at on a smaller drawing. */
const WORKED = 12;

const schema = z.object({
  kind: z.literal('smooth'),
  radius: slider('Radius', 1, 24, 6, { unit: 'u', step: 0.5, accepts: [0.5, 80], help: 'How far colours are evened out.' }),
  tolerance: slider('Tolerance', 1, 80, 10, { unit: 'levels', step: 1, help: 'Differences greater than this stay as edges.' }),
  strength: share('Amount', 1),
  passes: slider('Passes', 1, 3, 2, { step: 1, help: 'Several gentle ones keep edges better than a strong one.' }),
  keep: keepField,
});
type Params = z.output<typeof schema>;

const factorOf = (p: Params, unit: number) => factorFor(p.radius * unit, WORKED);
const passesOf = (p: Params) => Math.round(p.passes);
const haloOf = (p: Params, unit: number, more: number) => (passesOf(p) + more) * (2 * Math.ceil(p.radius * unit) + 2);

/** Evens out colours up to edges: a guided filter, guided by its own luma, in several gentle passes. */
export default defineTreatment({
  kind: 'smooth',
  label: 'Smooth, keeping edges',
  words: 'simplify surface blur bilateral edge-preserving skin soften guided',
  shows: true,
  schema,
  source: 'He, Sun & Tang 2013, guided image filtering; on a smaller drawing as in He & Sun 2015, fast guided filter',
  inputs: faceInput,
  shrinks: factorOf,
  reach: (p, unit) => (factorOf(p, unit) > 1 ? 0 : haloOf(p, unit, 0)),
  neutral: (p) => p.strength === 0,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, count } = tile;
    const mark = scratch.mark();
    const factor = factorOf(p, unit);
    const weight = weightOf(context, tile, p);
    const out = scratch.take(3 * stride);
    machine.bytes.copyWithin(out, ptr, ptr + 3 * stride);
    const smooth = { ...tile, ptr: out };
    if (factor === 1) passes(context, smooth, p, unit);
    else enlargedModel(context, smooth, p, factor);
    for (let c = 0; c < 3; c++) {
      if (weight) kernels.lerpTo(ptr + c * stride, out + c * stride, weight, count);
      else kernels.mixIn(ptr + c * stride, out + c * stride, count, 1 - p.strength, p.strength, 0);
    }
    scratch.release(mark);
  },
});

/** How far each pixel is smoothed, where faces are kept; 0 where it is the same everywhere. */
function weightOf(context: DrawContext, tile: Tile, { strength, keep }: Params): number {
  if (keep === 0) return 0;
  const weight = context.scratch.plane(tile.count + 8, strength);
  const mark = context.scratch.mark();
  const faces = regionOn(context, 'faces', 1, tile);
  if (faces !== null) context.machine.kernels.times(weight, faces, tile.count, -0.8 * keep, 1);
  context.scratch.release(mark);
  return weight;
}

const epsOf = ({ tolerance }: Params) => (tolerance / 255) ** 2;

function passes({ machine, scratch }: DrawContext, tile: Tile, p: Params, unit: number): void {
  for (let pass = 0; pass < passesOf(p); pass++) {
    const mark = scratch.mark();
    const luma = scratch.plane(tile.count + 8);
    machine.kernels.lumaPlane(tile.ptr, tile.stride, luma, tile.count);
    applyModel(machine, modelOf(machine, scratch, tile, luma, p.radius * unit, epsOf(p)), luma, tile);
    scratch.release(mark);
  }
}

/** The passes on a smaller drawing; what they come to, as a model of its luma, is enlarged and put on the luma of the whole. */
function enlargedModel(context: DrawContext, tile: Tile, p: Params, factor: number): void {
  const { machine, scratch } = context;
  const { kernels } = machine;
  const mark = scratch.mark();
  const unit = context.unit / factor;
  const small = context.smaller('own', factor, grow(reducedRegion(tile, factor), haloOf(p, unit, 1)));
  const luma = scratch.plane(small.count + 8);
  kernels.lumaPlane(small.ptr, small.stride, luma, small.count);
  passes(context, small, p, unit);
  // Detail that the small drawing cannot show goes with what it shows as flat.
  const model = modelOf(machine, scratch, small, luma, Math.max(1, 0.4 * p.radius * unit), epsOf(p) / 4);
  const here = scratch.plane(tile.count + 8);
  kernels.lumaPlane(tile.ptr, tile.stride, here, tile.count);
  const [slope, offset] = [scratch.plane(tile.count + 8), scratch.plane(tile.count + 8)];
  for (let c = 0; c < 3; c++) {
    enlargeFrom(machine, scratch, { ...small, ptr: model.slope[c] }, factor, { ...tile, ptr: slope }, 1);
    enlargeFrom(machine, scratch, { ...small, ptr: model.offset[c] }, factor, { ...tile, ptr: offset }, 1);
    kernels.modelled(slope, offset, here, tile.ptr + c * tile.stride, tile.count);
  }
  scratch.release(mark);
}
