import type { DrawContext } from '../graph/context';
import { blurPlane, blurReach } from '../image/blur';
import { Planes } from '../image/planes';
import { grow, padded, type Region } from '../image/tile';
import { maskPartByKind } from '.';
import { featherSigma } from './feather';
import { operationNumber } from './part';

type Params = Readonly<Record<string, unknown>>;

/** What is done with the whole of a mask; lengths in u. */
export interface WholeMask {
  density?: number;
  feather?: number;
  expand?: number;
  /** Leaves only a line of this width along the edge; 0 keeps the whole mask. */
  line?: number;
  refine?: number;
  invert?: boolean;
}

/** Radius of the refinement, in u. */
const REFINE = 10;

/** A mask that reads further than so many pixels is drawn smaller: what is wide is soft, or has an edge that may be as soft as that. */
const FAR = 72;

/** Pixels around a pixel that a part's feather reads. */
export const partReach = ({ kind, feather = 0 }: { kind?: unknown; feather?: unknown }, unit: number): number =>
  maskPartByKind(String(kind)).ownFeather ? 0 : blurReach(featherSigma(Number(feather), unit));

/** Pixels around a pixel that what is done with the whole of a mask reads. */
export function wholeReach({ feather = 0, expand = 0, line = 0, refine = 0 }: WholeMask, unit: number): number {
  return (
    Math.ceil((Math.abs(expand) + line / 2) * unit) +
    (line > 0 ? 2 : 0) +
    (refine > 0 ? 2 * Math.ceil(REFINE * unit) + 2 : 0) +
    blurReach(featherSigma(feather, unit))
  );
}

/** True when something is done with the whole of a mask. */
export const treatsWhole = ({ density = 1, feather = 0, expand = 0, line = 0, refine = 0, invert = false }: WholeMask): boolean =>
  density < 1 || line > 0 || feather > 0 || expand !== 0 || refine > 0 || invert;

/**
 * How much smaller a mask is drawn, as a whole factor; 1 when it is drawn as it is. The factor follows from how far the mask reads, so that tiles meet.
 *
 * @param reach - Pixels around a pixel that the mask reads, its parts included.
 */
export const maskReduction = (reach: number): number => (reach > FAR ? 2 ** Math.ceil(Math.log2(reach / FAR)) : 1);

/** What parts say about how they join, where they do. */
interface Joining {
  op?: keyof typeof operationNumber;
  density?: number;
  feather?: number;
  invert?: boolean;
}

/** Joins a part to a mask over a region. `mask` is the address of its plane, which is changed in place. */
export function drawPart(context: DrawContext, mask: number, region: Region, params: Params): void {
  const { draw, cover } = maskPartByKind(params.kind as string);
  if (draw) return draw(context, mask, region, params);
  const { machine, scratch, unit } = context;
  const { op = 'add', density = 1, feather = 0, invert = false } = params as Joining;
  const rim = partReach(params, unit);
  const wide = grow(region, rim);
  const mark = scratch.mark();
  let plane = scratch.plane(padded(wide.width, wide.height) + 8, 0);
  cover?.(context, plane, wide, params);
  if (rim > 0) {
    blurPlane(machine, scratch, plane, wide.width, wide.height, featherSigma(feather, unit));
    const inner = scratch.plane(padded(region.width, region.height) + 8);
    machine.kernels.copyWindow(plane + (rim * wide.width + rim) * 4, wide.width, inner, region.width, region.width, region.height);
    plane = inner;
  }
  machine.kernels.joinPart(mask, plane, padded(region.width, region.height), operationNumber[op], density, +invert);
  scratch.release(mark);
}

/** Does what is done with the whole of a mask, on a plane over a region; as far in from its edges as `wholeReach` says it need not be right. */
export function drawWhole(context: DrawContext, plane: number, region: Region, whole: WholeMask): void {
  const { machine, scratch, unit } = context;
  const { density = 1, feather = 0, expand = 0, line = 0, refine = 0, invert = false } = whole;
  const planes = new Planes(machine, scratch, region.width, region.height);
  if (expand !== 0) planes.widen(plane, expand * unit);
  if (refine > 0) refineOn(context, planes, plane, region, refine);
  if (line > 0) outlineOf(planes, plane, line * unit);
  if (feather > 0) planes.blur(plane, featherSigma(feather, unit));
  if (invert) planes.invert(plane);
  // Density eases the mask towards where the coat is whole.
  if (density < 1) machine.kernels.mixIn(plane, plane, planes.count, density, 0, 1 - density);
}

/** Leaves a line of that width, in pixels, along the mask's edge. */
function outlineOf(planes: Planes, mask: number, width: number): void {
  planes.briefly(() => {
    const inner = planes.copy(mask);
    planes.widen(mask, width / 2);
    planes.widen(inner, -width / 2);
    planes.machine.kernels.mixIn(mask, inner, planes.count, 1, -1, 0);
    planes.machine.kernels.clampTo(mask, planes.count, 0, 1);
  });
}

/** Draws the mask to the photo's edges: the guided filter with its luma (He, Sun & Tang 2013). */
function refineOn(context: DrawContext, planes: Planes, mask: number, region: Region, amount: number): void {
  const { kernels } = planes.machine;
  const radius = Math.max(1, REFINE * context.unit);
  planes.briefly(() => {
    const luma = planes.make();
    planes.briefly(() => {
      const photo = context.read('photo', region);
      kernels.lumaPlane(photo.ptr, photo.stride, luma, photo.count);
    });
    const mean = planes.mean(luma, radius);
    const input = planes.mean(mask, radius);
    const squared = planes.mean(planes.product(luma, luma), radius);
    const product = planes.mean(planes.product(luma, mask), radius);
    kernels.guidedModel(mean, input, squared, product, squared, product, planes.count, 2e-4);
    const slope = planes.mean(squared, radius);
    const offset = planes.mean(product, radius);
    planes.times(luma, slope);
    kernels.mixIn(luma, offset, planes.count, 1, 1, 0);
    kernels.clampTo(luma, planes.count, 0, 1);
    kernels.mixIn(mask, luma, planes.count, 1 - amount, amount, 0);
  });
}
