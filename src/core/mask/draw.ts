import { blurPlane, blurReach } from '../image/blur';
import { grow, padded, type Region, type Tile } from '../image/tile';
import { Planes } from '../guards/planes';
import { enlargeFrom, reducedContext, reducedRegion } from '../render/far';
import type { RenderContext } from '../render/context';
import { maskPartByKind } from '.';
import { operationNumber, type Loaded } from './part';
import type { Stroke, Strokes } from './parts/strokes';
import { layGrowing, type KeptCover } from './strokes';

interface Part extends Record<string, unknown>, Loaded {
  kind: string;
  op?: keyof typeof operationNumber;
  active?: boolean;
  density?: number;
  feather?: number;
  invert?: boolean;
}

/** A mask as it is planned: parts with their pictures, and what is done with the whole. */
export interface PlannedMask {
  start: 'all' | 'none';
  parts: readonly Record<string, unknown>[];
  density?: number;
  feather?: number;
  expand?: number;
  refine?: number;
  invert?: boolean;
}

/** Radius of the refinement, in u. */
const REFINE = 10;

const working = (mask: PlannedMask) => (mask.parts as readonly Part[]).filter((p) => p.active !== false);

/** Whether a mask depends on what lies below its coat. */
export const maskReadsBelow = (mask: PlannedMask): boolean => working(mask).some((p) => maskPartByKind(p.kind).readsBelow?.(p));

/** A mask that reads further than so many pixels is drawn smaller: what is wide is soft, or has an edge that may be as soft as that. */
const FAR = 72;

/** Deviation of a feather of so many u: from nothing to all over about its width. */
const sigmaOf = (feather: number, unit: number) => (feather * unit) / 3;

/** Whether a mask is so wide that it is drawn smaller. */
export const maskIsFar = (mask: PlannedMask, unit: number): boolean => maskReach(mask, unit) > FAR;

/** How much of what lies below a mask reads around a region; what is wide is drawn smaller, from a drawing of its own. */
export const maskHalo = (mask: PlannedMask, unit: number): number => {
  const reach = maskReadsBelow(mask) ? maskReach(mask, unit) : 0;
  return reach > FAR ? 0 : reach;
};

/** Pixels around a pixel that a mask reads. */
export function maskReach(mask: PlannedMask, unit: number): number {
  const parts = Math.max(0, ...working(mask).map((p) => (maskPartByKind(p.kind).ownFeather ? 0 : blurReach(sigmaOf(p.feather ?? 0, unit)))));
  const expand = Math.ceil(Math.abs(mask.expand ?? 0) * unit);
  const refine = (mask.refine ?? 0) > 0 ? 2 * Math.ceil(REFINE * unit) + 2 : 0;
  return parts + expand + refine + blurReach(sigmaOf(mask.feather ?? 0, unit));
}

/** What is kept of a mask on a tile while strokes are painted: all but the last stroke, and that stroke's own cover. */
export interface KeptMask {
  plane: number;
  holds: boolean;
  keep(): void;
  cover: KeptCover;
}

/** The last stroke of a mask that ends in plain strokes: the one that is being painted. */
export function growing({ parts }: PlannedMask): Stroke | undefined {
  const last = parts[parts.length - 1] as unknown as Strokes | undefined;
  if (last?.kind !== 'strokes' || last.active === false || last.density < 1 || last.feather > 0) return undefined;
  const stroke = last.strokes[last.strokes.length - 1];
  return stroke?.ring ? undefined : stroke;
}

/** Draws what lies below a coat over a region, in the drawing under way or in a smaller one. */
export type DrawBelow = (context: RenderContext, region: Region) => Tile;

/** A plane 0..1 of where a coat applies. `below`: what lies below it, over the region grown by the mask's halo, when the mask reads it. */
export function drawMask(context: RenderContext, mask: PlannedMask, region: Region, below: DrawBelow | null, kept?: KeptMask): number {
  const { machine, scratch, unit } = context;
  const { kernels } = machine;
  const out = scratch.plane(padded(region.width, region.height) + 8, mask.start === 'all' ? 1 : 0);
  const whole = (mask.density ?? 1) < 1 || (mask.feather ?? 0) > 0 || (mask.expand ?? 0) !== 0 || (mask.refine ?? 0) > 0 || mask.invert;
  if (working(mask).length === 0 && !whole) return out;
  const reach = maskReach(mask, unit);
  if (reach > FAR) return drawReduced(context, mask, region, below, out, 2 ** Math.ceil(Math.log2(reach / FAR)));
  const wide = grow(region, reach);
  const mark = scratch.mark();
  const under = below && maskReadsBelow(mask) ? below(context, wide) : null;
  const planes = new Planes(machine, scratch, wide.width, wide.height);
  const plane = reach > 0 ? planes.make(mask.start === 'all' ? 1 : 0) : out;
  if (kept && reach === 0) drawGrowing(context, planes, plane, region, mask, under, kept);
  else for (const part of working(mask)) drawPart(context, planes, plane, wide, part, under);
  if ((mask.expand ?? 0) !== 0) planes.widen(plane, (mask.expand ?? 0) * unit);
  if ((mask.refine ?? 0) > 0) refineOn(context, planes, plane, wide, mask.refine ?? 0);
  if ((mask.feather ?? 0) > 0) planes.blur(plane, sigmaOf(mask.feather ?? 0, unit));
  if (mask.invert) planes.invert(plane);
  // Density eases the mask towards where the coat is whole.
  const density = mask.density ?? 1;
  if (density < 1) kernels.mixIn(plane, plane, planes.count, density, 0, 1 - density);
  if (plane !== out) {
    const from = plane + (reach * wide.width + reach) * 4;
    kernels.copyWindow(from, wide.width, out, region.width, region.width, region.height);
  }
  scratch.release(mark);
  return out;
}

/** The mask at a whole part of the size, read larger again. Which part does not hang on the tile, so that tiles meet. */
function drawReduced(context: RenderContext, mask: PlannedMask, region: Region, below: DrawBelow | null, out: number, factor: number): number {
  const { scratch, machine } = context;
  const mark = scratch.mark();
  const around = reducedRegion(region, factor);
  const ptr = drawMask(reducedContext(context, factor), mask, around, below);
  const small: Tile = { ...around, ptr, stride: 0, count: padded(around.width, around.height) };
  enlargeFrom(machine, scratch, small, factor, { ...region, ptr: out, stride: 0 }, 1);
  // The curve between the pixels may swing a little beyond what they hold.
  machine.kernels.clampTo(out, padded(region.width, region.height), 0, 1);
  scratch.release(mark);
  return out;
}

function drawGrowing(
  context: RenderContext,
  planes: Planes,
  plane: number,
  region: Region,
  mask: PlannedMask,
  below: Tile | null,
  kept: KeptMask,
): void {
  const parts = working(mask);
  const last = parts[parts.length - 1] as unknown as Strokes & Loaded;
  const stroke = last.strokes[last.strokes.length - 1];
  if (kept.holds) planes.put(kept.plane, plane);
  else {
    const before = { ...last, strokes: last.strokes.slice(0, -1) } as unknown as Part;
    for (const part of [...parts.slice(0, -1), before]) drawPart(context, planes, plane, region, part, below);
    planes.put(plane, kept.plane);
    kept.keep();
  }
  layGrowing(context, plane, region, stroke, last.tips, kept.cover);
}

function drawPart(context: RenderContext, planes: Planes, mask: number, region: Region, part: Part, below: Tile | null): void {
  const { draw, cover, ownFeather } = maskPartByKind(part.kind);
  if (draw) return draw(context, mask, region, part);
  planes.briefly(() => {
    const one = planes.make();
    cover?.(context, one, region, part, below);
    if (!ownFeather && (part.feather ?? 0) > 0)
      blurPlane(planes.machine, planes.scratch, one, region.width, region.height, sigmaOf(part.feather ?? 0, context.unit));
    planes.machine.kernels.joinPart(mask, one, planes.count, operationNumber[part.op ?? 'add'], part.density ?? 1, +(part.invert ?? false));
  });
}

/** Draws the mask to the photo's edges: the guided filter with its luma (He, Sun & Tang 2013). */
function refineOn(context: RenderContext, planes: Planes, mask: number, region: Region, amount: number): void {
  const { kernels } = planes.machine;
  const radius = Math.max(1, REFINE * context.unit);
  planes.briefly(() => {
    const luma = planes.make();
    planes.briefly(() => {
      const photo = context.scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
      context.drawPhoto(photo);
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
