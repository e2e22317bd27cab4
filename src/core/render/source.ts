import { grow, window as cut, type Region, type Tile } from '../image/tile';
import type { Machine } from '../image/machine';
import { maskIsFar, maskReadsBelow, type DrawBelow } from '../mask/draw';
import { fillPhoto } from '../ready/photo';
import { sourceByKind } from '../sources';
import { treatmentByKind } from '../treatments';
import { reachOf as reachOne, softensFar, treat, type Again } from '../treatments/run';
import type { RenderContext } from './context';
import { cachedTileBytes, type CacheSlot, type Plan, type PlannedCoat } from './plan';

/** Whether a coat's pixels depend on what lies below it: by its source, or by one of its treatments. */
export const readsBelow = (coat: Pick<PlannedCoat, 'source' | 'treatments'>): boolean =>
  !!sourceByKind(coat.source.kind as string).readsBelow || coat.treatments.some((t) => treatmentByKind(t.kind as string).readsBelow?.(t));

/** Whether a coat is what lies below, treated, and nothing else of it wants that as it was. */
export const givesBelow = (coat: PlannedCoat): boolean =>
  !!sourceByKind(coat.source.kind as string).isBelow &&
  !maskReadsBelow(coat.mask) &&
  !coat.treatments.some((t) => treatmentByKind(t.kind as string).readsBelow?.(t));

/** Whether something of a coat is drawn smaller, whatever the scale: what it is made of is wanted in smaller sizes too. */
export const drawsSmaller = (coat: Pick<PlannedCoat, 'treatments' | 'mask'>, unit: number): boolean =>
  coat.treatments.some((t) => softensFar(t, unit)) || maskIsFar(coat.mask, unit);

/** Pixels that a coat's treatments read around a tile. */
export function reachOf(context: Pick<RenderContext, 'unit'>, coat: PlannedCoat): number {
  return coat.treatments.reduce((sum, t) => sum + reachOne(t, context.unit, true), 0);
}

/** What the treatments of a coat start from, drawn anew in a smaller drawing. */
export const redrawn =
  (coat: PlannedCoat, belowAt: DrawBelow): Again =>
  (small, of, region, done) => {
    if (of === 'below') return belowAt(small, region);
    return of === 'own' ? sourceAgain(small, coat, region, done, belowAt) : photoOver(small, region);
  };

/** A tile of the readied photo. */
export function photoOver(context: RenderContext, { x, y, width, height }: Region): Tile {
  const photo = context.scratch.tile({ x, y, width, height });
  fillPhoto(context, photo);
  return photo;
}

function sourceAgain(small: RenderContext, coat: PlannedCoat, region: Region, done: Record<string, unknown>[], belowAt: DrawBelow): Tile {
  const wide = grow(
    region,
    done.reduce((sum, t) => sum + reachOne(t, small.unit, true), 0),
  );
  const tile = small.scratch.tile(wide);
  const reads = readsBelow({ source: coat.source, treatments: done as PlannedCoat['treatments'] });
  const below = reads ? belowAt(small, wide) : tile;
  fillSource(small, tile, coat, below, true);
  const treated = treat(small, tile, done, below, redrawn(coat, belowAt));
  return treated.width === region.width ? treated : window(small, treated, region);
}

/** A coat's source, and what it is beyond the frame where a treatment may draw that in. */
function fillSource(context: RenderContext, tile: Tile, coat: PlannedCoat, below: Tile, drawnIn: boolean): void {
  const source = sourceByKind(coat.source.kind as string);
  source.fill(context, tile, coat, below);
  if (!source.readsBelow && coat.treatments.some((t) => t.active && treatmentByKind(t.kind as string).wraps?.(t)))
    wrapAround(context, tile, coat, below);
  else if (source.laid && drawnIn) extend(context, tile);
}

/** A coat's source with its treatments, over the region of `below`; one that reads what lies below may lack the halo that its treatments ate. */
export function treatedSource(context: RenderContext, plan: Plan, coat: PlannedCoat, index: number, below: Tile, belowAt: DrawBelow): Tile {
  const { machine, scratch } = context;
  const reach = readsBelow(coat) ? 0 : reachOf(context, coat);
  const cache = plan.treated && plan.coats[plan.treated.index]?.id === coat.id && !readsBelow(coat) && reach === 0 ? plan.treated : undefined;
  const tile = scratch.tile(grow(below, reach));
  if (cache && holds(machine, cache.slot, index)) {
    machine.kernels.unpack16(cache.slot.tiles + index * cachedTileBytes(plan.tile), tile.ptr, tile.stride, tile.count, 4);
    return tile;
  }
  fillSource(context, tile, coat, below, reachOf(context, coat) > 0);
  const treated = treat(context, tile, coat.treatments, below, redrawn(coat, belowAt));
  if (cache) keep(machine, cache.slot, index, treated, plan.tile);
  return reach > 0 && treated.width !== below.width ? window(context, treated, below) : treated;
}

/** Beyond the frame, the source as it is on the other side. */
function wrapAround(context: RenderContext, tile: Tile, coat: PlannedCoat, below: Tile): void {
  const { machine, scratch } = context;
  const [w, h] = [Math.round(context.width), Math.round(context.height)];
  const source = sourceByKind(coat.source.kind as string);
  for (const dx of [-w, 0, w]) {
    for (const dy of [-h, 0, h]) {
      const x = Math.max(tile.x, dx);
      const y = Math.max(tile.y, dy);
      const width = Math.min(tile.x + tile.width, dx + w) - x;
      const height = Math.min(tile.y + tile.height, dy + h) - y;
      if ((dx === 0 && dy === 0) || width <= 0 || height <= 0) continue;
      const mark = scratch.mark();
      const part = scratch.tile({ x: x - dx, y: y - dy, width, height });
      source.fill(context, part, coat, below);
      const at = ((y - tile.y) * tile.width + x - tile.x) * 4;
      for (let c = 0; c < 4; c++)
        machine.kernels.copyWindow(part.ptr + c * part.stride, width, tile.ptr + c * tile.stride + at, tile.width, width, height);
      scratch.release(mark);
    }
  }
}

/** What a material does not cover beyond the frame takes the value at the frame's edge, so that no treatment draws it in. */
function extend({ machine, width, height }: RenderContext, tile: Tile): void {
  const { x, y } = tile;
  const [right, bottom] = [Math.round(width), Math.round(height)];
  if (x >= 0 && y >= 0 && x + tile.width <= right && y + tile.height <= bottom) return;
  for (let c = 0; c < 4; c++) machine.kernels.extendEdges(tile.ptr + c * tile.stride, tile.width, tile.height, -x, -y, right - x, bottom - y);
}

/** The part of a tile over a smaller region, as a tile of its own. */
export function window({ machine, scratch }: RenderContext, tile: Tile, region: Region): Tile {
  const out = scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
  cut(machine, tile, out);
  return out;
}

export const holds = (machine: Machine, slot: CacheSlot, index: number) => machine.words[slot.stamps / 4 + index] === slot.stamp;

export function keep(machine: Machine, slot: CacheSlot, index: number, tile: Tile, size: number): void {
  machine.kernels.pack16(tile.ptr, tile.stride, slot.tiles + index * cachedTileBytes(size), tile.count, 4);
  machine.words[slot.stamps / 4 + index] = slot.stamp;
}
