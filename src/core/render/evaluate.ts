import { modeById } from '../blend';
import { linearTable } from '../color/srgb';
import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { grow, type Region, type Scratch, type Tile } from '../image/tile';
import { drawMask, maskHalo, type DrawBelow, type KeptMask } from '../mask/draw';
import { fillOfFile, fillPhoto } from '../ready/photo';
import { treat } from '../treatments/run';
import type { RenderContext } from './context';
import { cachedTileBytes, tileRegion, type Plan, type PlannedCoat } from './plan';
import { givesBelow, holds, keep, photoOver, reachOf, readsBelow, redrawn, treatedSource, window } from './source';

/** Draws tile `index` of the plan as RGBA8 at `output`, in rows of `pitch` pixels. Leaves the scratch memory free. */
export function drawTile(machine: Machine, scratch: Scratch, plan: Plan, index: number, output: number, pitch: number): void {
  const region = tileRegion(plan.region, plan.tile, index);
  scratch.reset();
  const context = contextOf(machine, scratch, plan);
  const { readied } = plan;
  if (readied) {
    const at = readied.slot.tiles + index * cachedTileBytes(plan.tile + 2 * readied.margin);
    const stamp = () => void (machine.words[readied.slot.stamps / 4 + index] = readied.slot.stamp);
    context.kept = { region, count: readied.count, margin: readied.margin, holds: holds(machine, readied.slot, index), at, stamp };
  }
  const asked = new Set<string>();
  context.maskOf = (at, id, over) => {
    const coat = plan.coats.find((c) => c.id === id);
    if (!coat || asked.has(id)) return undefined;
    asked.add(id);
    const mask = drawMask(at, coat.mask, over, null);
    asked.delete(id);
    return mask;
  };
  const tile = evaluate(context, plan, index, region);
  // Red where white is reached, blue where black is: both far from what a photo holds there.
  if (plan.clipping) machine.kernels.markClipped(tile.ptr, tile.stride, tile.count, 0.9, 0.1, 0.1, 0.1, 0.2, 0.9);
  machine.kernels.packBytes(tile.ptr, tile.stride, tile.width, tile.height, output, pitch);
}

export function contextOf(machine: Machine, scratch: Scratch, { photo, scale, ready }: Pick<Plan, 'photo' | 'scale' | 'ready'>): RenderContext {
  const { width, height } = ready ?? photo;
  const context: RenderContext = {
    machine,
    scratch,
    photo,
    ready,
    drawPhoto: (tile, drawing = context) => fillPhoto(drawing, tile),
    scale,
    width: width * scale,
    height: height * scale,
    unit: (Math.max(width, height) * scale) / 2000,
  };
  return context;
}

const shown = (coat: PlannedCoat) => coat.visible && coat.strength > 0;

/** Coats that take part in a view, bottom to top. */
function partaking({ coats, view }: Plan): PlannedCoat[] {
  if (view.kind === 'photo') return [];
  if (view.kind === 'without') return coats.filter((c) => c.id !== view.coat);
  if (view.kind === 'upTo') return view.coat === null ? [] : coats.slice(0, coats.findIndex((c) => c.id === view.coat) + 1);
  return coats;
}

function evaluate(context: RenderContext, plan: Plan, index: number, region: Region): Tile {
  const { view } = plan;
  if (view.kind === 'alone' || view.kind === 'mask') {
    const coat = plan.coats.find((c) => c.id === view.coat);
    if (coat) return view.kind === 'mask' ? maskAlone(context, plan, coat, index, region) : coatAlone(context, plan, coat, region);
  }
  const coats = partaking(plan).filter(shown);
  const result = stack(context, plan, coats, index, region);
  if (plan.strength < 1 && coats.length > 0) {
    const photo = photoOver(context, region);
    context.machine.kernels.mixIn(result.ptr, photo.ptr, result.count * 4, plan.strength, 1 - plan.strength, 0);
  }
  if (view.kind === 'guards' && plan.shownGuard) {
    const region = guardTile(context, plan.shownGuard, result);
    if (view.bare) return region;
    context.machine.kernels.tintByMask(result.ptr, result.stride, region.ptr, result.count, ...view.colour, 0.65);
  }
  if (view.kind === 'heat') showHeat(context, result);
  if (view.kind === 'maskOver') {
    const coat = plan.coats.find((c) => c.id === view.coat);
    if (coat) {
      // The colour lies where the coat is held back.
      const mask = wholeMask(context, plan, coat, index, region);
      context.machine.kernels.mixIn(mask, mask, result.count, -1, 0, 1);
      context.machine.kernels.tintByMask(result.ptr, result.stride, mask, result.count, ...view.colour, 0.6);
    }
  }
  return result;
}

/** How far around its pixels a coat reads what lies below, for its own pixels or for its mask. */
function reachBelow(context: Pick<RenderContext, 'unit'>, coat: PlannedCoat): number {
  const own = readsBelow(coat) ? reachOf(context, coat) : 0;
  return Math.max(own, maskHalo(coat.mask, context.unit));
}

/** How far around a tile a plan's drawing reads: the halos of all its coats, and the widest of their sources. */
export function haloOf({ photo, ready, scale, coats }: Plan): number {
  const { width, height } = ready ?? photo;
  const context = { unit: (Math.max(width, height) * scale) / 2000 };
  const own = coats.filter(shown).map((coat) => (readsBelow(coat) ? 0 : reachOf(context, coat)));
  return coats.filter(shown).reduce((sum, coat) => sum + reachBelow(context, coat), Math.max(0, ...own));
}

/** The photo with the coats on it, over a region; halos are added up from the top coat down. */
function stack(context: RenderContext, plan: Plan, coats: PlannedCoat[], index: number, region: Region): Tile {
  const { machine, scratch } = context;
  const halo = coats.reduce((sum, coat) => sum + reachBelow(context, coat), 0);
  const cache = halo === 0 && plan.view.kind !== 'without' ? plan.below : undefined;
  const cached = cache && coats.findIndex((c) => c.id === plan.coats[cache.index]?.id);
  const held = cache && cached !== undefined && cached >= 0 ? holds(machine, cache.slot, index) : false;

  let tile = scratch.tile(grow(region, halo));
  let first = 0;
  if (cache && held && cached !== undefined) {
    machine.kernels.unpack16(cache.slot.tiles + index * cachedTileBytes(plan.tile), tile.ptr, tile.stride, tile.count, 4);
    first = cached;
  } else fillPhoto(context, tile);

  let left = halo;
  for (let i = first; i < coats.length; i++) {
    if (cache && i === cached && !held) keep(machine, cache.slot, index, tile, plan.tile);
    const coat = coats[i];
    const reach = reachBelow(context, coat);
    const mark = scratch.mark();
    left -= reach;
    const target = reach > 0 ? window(context, tile, grow(region, left)) : tile;
    const ground = tile;
    const belowAt: DrawBelow = (at, wanted) => {
      if (at !== context) return stack(at, bare(plan), coats.slice(0, i), index, wanted);
      return ground.width === wanted.width ? ground : window(context, ground, wanted);
    };
    const treated =
      target !== tile && givesBelow(coat)
        ? treat(context, tile, coat.treatments, undefined, redrawn(coat, belowAt))
        : treatedSource(context, plan, coat, index, readsBelow(coat) ? tile : target, belowAt);
    const source = treated.width === target.width ? treated : window(context, treated, grow(region, left));
    const kept = target.width === region.width ? keptMask(context, plan, coat, index) : undefined;
    const mask = drawMask(context, coat.mask, target, belowAt, kept);
    limit(context, coat, mask, target);
    guard(context, coat, mask, target);
    machine.kernels.blend(modeById(coat.blend).kernel, target.ptr, source.ptr, mask, target.stride, target.count, coat.strength);
    if (target === tile) scratch.release(mark);
    else if (i + 1 < coats.length) {
      // What follows needs the memory: the result takes the place of what it was made from, which is larger.
      machine.bytes.copyWithin(tile.ptr, target.ptr, target.ptr + 4 * target.stride);
      scratch.release(tile.ptr + 4 * target.stride);
      tile = { ...target, ptr: tile.ptr };
    } else tile = target;
  }
  return tile;
}

/** Where a tile's mask is kept while it is painted: a plane of f32, and behind it the number of dabs in the other one. */
function keptMask({ machine }: RenderContext, plan: Plan, coat: PlannedCoat, index: number): KeptMask | undefined {
  if (!plan.stroked || plan.coats[plan.stroked.index]?.id !== coat.id) return undefined;
  const { mask, cover } = plan.stroked;
  const bytes = cachedTileBytes(plan.tile);
  const [plane, coverPlane] = [mask.tiles + index * bytes, cover.tiles + index * bytes];
  // A tile's place holds eight bytes a pixel: half of it is the plane.
  const counter = (coverPlane + bytes / 2) / 4;
  return {
    plane,
    holds: holds(machine, mask, index),
    keep: () => void (machine.words[mask.stamps / 4 + index] = mask.stamp),
    cover: {
      plane: coverPlane,
      count: holds(machine, cover, index) ? machine.words[counter] : 0,
      keep(count) {
        machine.words[counter] = count;
        machine.words[cover.stamps / 4 + index] = cover.stamp;
      },
    },
  };
}

/** A plan for drawing some of it elsewhere, or smaller: without what is kept between drawings of its tiles. */
const bare = (plan: Plan): Plan => ({ ...plan, below: undefined, treated: undefined, stroked: undefined });

function limit({ machine }: RenderContext, coat: PlannedCoat, mask: number, below: Tile): void {
  const [b0, b1, w0, w1] = coat.limits;
  if (b1 <= 0 && w0 >= 1) return;
  machine.kernels.maskLimits(mask, below.ptr, below.stride, below.count, b0, b1, w0, w1);
}

/** Takes the coat back where the guards keep the photo as it is. */
function guard(context: RenderContext, coat: PlannedCoat, mask: number, region: Region): void {
  const { machine, scratch } = context;
  if (!coat.guard || coat.guards <= 0) return;
  const mark = scratch.mark();
  const tile = guardTile(context, coat.guard, region);
  machine.kernels.holdBack(mask, tile.ptr, tile.count, coat.guards);
  scratch.release(mark);
}

function guardTile(context: RenderContext, picture: Picture, { x, y, width, height }: Region): Tile {
  const tile = context.scratch.tile({ x, y, width, height });
  fillOfFile(context, picture, tile);
  return tile;
}

/** Colours of the view of differences: they grow darker as well as redder. */
const heats = [0.98, 0.86, 0.35, 0.9, 0.42, 0.12, 0.42, 0.05, 0.16] as const;

function showHeat(context: RenderContext, result: Tile): void {
  const { machine, scratch } = context;
  const mark = scratch.mark();
  const photo = photoOver(context, result);
  const linear = scratch.take(1024);
  machine.floats.set(linearTable, linear / 4);
  machine.kernels.heat(result.ptr, photo.ptr, result.stride, result.width * result.height, linear, scratch.take(64), ...heats);
  scratch.release(mark);
}

/** The coat as laid and toned, on mid grey where it does not reach. */
function coatAlone(context: RenderContext, plan: Plan, coat: PlannedCoat, region: Region): Tile {
  const { machine, scratch } = context;
  const ground = scratch.tile(region);
  for (let c = 0; c < 4; c++) machine.kernels.fill(ground.ptr + c * ground.stride, ground.count, c === 3 ? 1 : 0.5);
  const below = photoOver(context, grow(region, reachBelow(context, coat)));
  const treated = treatedSource(context, bare(plan), coat, 0, below, photoOver);
  const source = treated.width === region.width ? treated : window(context, treated, region);
  machine.kernels.blend(0, ground.ptr, source.ptr, scratch.plane(ground.count, 1), ground.stride, ground.count, 1);
  return ground;
}

/** A coat's mask by itself: what lies below is drawn where it reads it. */
function wholeMask(context: RenderContext, plan: Plan, coat: PlannedCoat, index: number, region: Region): number {
  const coats = plan.coats.slice(0, plan.coats.indexOf(coat)).filter(shown);
  return drawMask(context, coat.mask, region, (at, wanted) => stack(at, bare(plan), coats, index, wanted));
}

function maskAlone(context: RenderContext, plan: Plan, coat: PlannedCoat, index: number, region: Region): Tile {
  const { machine, scratch } = context;
  const tile = scratch.tile(region);
  const mask = wholeMask(context, plan, coat, index, region);
  for (let c = 0; c < 3; c++) machine.bytes.copyWithin(tile.ptr + c * tile.stride, mask, mask + tile.stride);
  machine.kernels.fill(tile.ptr + 3 * tile.stride, tile.count, 1);
  return tile;
}
