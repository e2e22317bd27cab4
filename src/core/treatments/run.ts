import { modeById } from '../blend';
import type { DrawContext } from '../graph/context';
import { blurReach } from '../image/blur';
import type { Region, Tile } from '../image/tile';
import { isFar } from '../image/far';
import { treatmentByKind } from '.';
import { applyCurves } from './curve';

type Params = Readonly<Record<string, unknown>>;

/** True when a treatment changes nothing, by its own values or because it is switched off. */
export const isIdle = (p: Params): boolean => p.active === false || p.strength === 0 || treatmentByKind(p.kind as string).neutral(p);

/** True when its result simply takes the place of what was there. */
const isPlain = ({ strength = 1, mode = 'normal' }: Params): boolean => strength === 1 && mode === 'normal';

/** Standard deviation, in pixels, of the Gaussian that a treatment takes; 0 when it takes none. */
const sigmaOf = (params: Params, unit: number): number => treatmentByKind(params.kind as string).softens?.(params, unit) ?? 0;

/** The factor by which the drawing is smaller that a treatment works on; 1 when it works at full size. */
export const shrinkOf = (params: Params, unit: number): number =>
  isIdle(params) ? 1 : (treatmentByKind(params.kind as string).shrinks?.(params, unit) ?? 1);

/** True when a treatment works on a smaller drawing, or takes a Gaussian so wide that it is taken there. */
export const drawsTreatmentSmaller = (params: Params, unit: number): boolean =>
  (!isIdle(params) && isFar(sigmaOf(params, unit))) || shrinkOf(params, unit) > 1;

/** Pixels around a tile that a treatment reads, with `unit` pixels to one u; a Gaussian that is taken on a smaller drawing is not counted. */
export function treatmentReach(params: Params, unit: number): number {
  if (isIdle(params)) return 0;
  const sigma = sigmaOf(params, unit);
  return Math.ceil(treatmentByKind(params.kind as string).reach(params, unit)) + (isFar(sigma) ? 0 : blurReach(sigma));
}

/** True when a treatment reads what it starts from on a smaller drawing alone. */
export function readsSmallerAlone(params: Params, unit: number): boolean {
  return isPlain(params) && !isIdle(params) && treatmentByKind(params.kind as string).replaces?.(params, unit) === true;
}

/** How a treatment that reads what it starts from elsewhere is drawn; undefined for all others. */
export function moverOf(params: Params): ((context: DrawContext, region: Region, own: (region: Region) => Tile) => Tile) | undefined {
  const { moves, move } = treatmentByKind(params.kind as string);
  if (isIdle(params) || !move || !moves?.(params)) return undefined;
  return (context, region, own) => move(context, region, params, own);
}

/** A treatment and the context in which it is drawn. */
export interface Step {
  params: Params;
  context: DrawContext;
}

/** Pixels of a strip: what several operations in a row work on stays in the processor's cache. */
const STRIP = 8192;

/**
 * Applies treatments that read nothing around a pixel, strip by strip; functions of each channel that follow each other as one table.
 * The tile is changed in place.
 */
export function applyInStrips(list: readonly Step[], tile: Tile): void {
  const steps = joined(list);
  // Four rows at a time hold a multiple of four pixels, so that no strip reaches into the next.
  const rows = steps.length > 1 ? Math.max(4, Math.floor(STRIP / tile.width / 4) * 4) : tile.height;
  for (let y = 0; y < tile.height; y += rows) {
    const height = Math.min(rows, tile.height - y);
    const before = y * tile.width;
    const count = y + height < tile.height ? height * tile.width : tile.count - before;
    const strip = { ...tile, y: tile.y + y, height, ptr: tile.ptr + before * 4, count };
    for (const group of steps) {
      if (group.length === 1) applyTreatment(group[0], strip);
      else {
        const params = group.map((step) => step.params);
        applyCurves(group[0].context, strip, params, curvesOf);
      }
    }
  }
}

/** Applies one treatment with its own strength and mode, laid over what it started from. The tile is changed in place. */
export function applyTreatment({ params, context }: Step, tile: Tile): void {
  const treatment = treatmentByKind(params.kind as string);
  if (isPlain(params)) return treatment.apply(context, tile, params);
  const { machine, scratch } = context;
  const { ptr, stride, count } = tile;
  const mark = scratch.mark();
  const before = scratch.take(4 * stride);
  // A strip's planes lie further apart than it is long.
  for (let c = 0; c < 4; c++) machine.bytes.copyWithin(before + c * count * 4, ptr + c * stride, ptr + c * stride + count * 4);
  treatment.apply(context, tile, params);
  layOver(context, { ...tile, ptr: before, stride: count * 4 }, tile, params);
  for (let c = 0; c < 4; c++) machine.bytes.copyWithin(ptr + c * stride, before + c * count * 4, before + (c + 1) * count * 4);
  scratch.release(mark);
}

/**
 * Lays a treatment's result over what it started from, which is changed in place, by the treatment's own strength and mode. Colours are mixed as if both
 * were opaque; alpha is mixed apart.
 */
export function layOver({ machine, scratch }: DrawContext, before: Tile, after: Tile, { strength = 1, mode = 'normal' }: Params): void {
  const { kernels, bytes } = machine;
  const { count } = before;
  const size = count * 4;
  const mark = scratch.mark();
  const alpha = scratch.plane(count);
  bytes.copyWithin(alpha, before.ptr + 3 * before.stride, before.ptr + 3 * before.stride + size);
  kernels.mixIn(alpha, after.ptr + 3 * after.stride, count, 1 - Number(strength), Number(strength), 0);
  const ones = scratch.plane(count, 1);
  const [under, over] = [scratch.take(4 * size), scratch.take(4 * size)];
  for (let c = 0; c < 3; c++) {
    bytes.copyWithin(under + c * size, before.ptr + c * before.stride, before.ptr + c * before.stride + size);
    bytes.copyWithin(over + c * size, after.ptr + c * after.stride, after.ptr + c * after.stride + size);
  }
  for (const at of [under, over]) kernels.fill(at + 3 * size, count, 1);
  kernels.blend(modeById(String(mode)).kernel, under, over, ones, size, count, Number(strength));
  for (let c = 0; c < 3; c++) bytes.copyWithin(before.ptr + c * before.stride, under + c * size, under + (c + 1) * size);
  bytes.copyWithin(before.ptr + 3 * before.stride, alpha, alpha + size);
  scratch.release(mark);
}

/**
 * Applies one treatment to a tile that is larger than what is wanted by the treatment's reach, and cuts it down where the treatment does that itself.
 * Returns the tile at the same place in memory.
 */
export function applyAndMaybeCut(step: Step, tile: Tile): Tile {
  const { applyAndCut } = treatmentByKind(step.params.kind as string);
  if (applyAndCut && isPlain(step.params) && !drawsTreatmentSmaller(step.params, step.context.unit))
    return applyAndCut(step.context, tile, step.params);
  applyTreatment(step, tile);
  return tile;
}

function curvesOf(params: object) {
  const { curves, kind } = treatmentByKind((params as Params).kind as string);
  if (!curves) throw new Error(`${kind} is not a function of each channel.`);
  return curves(params as Params);
}

const isCurves = ({ params }: Step): boolean => isPlain(params) && treatmentByKind(params.kind as string).curves !== undefined;

/** Neighbours that are functions of each channel, together. */
function joined(list: readonly Step[]): Step[][] {
  const groups: Step[][] = [];
  for (const step of list) {
    const last = groups.at(-1);
    if (last && isCurves(step) && isCurves(last[0])) last.push(step);
    else groups.push([step]);
  }
  return groups;
}
