import { parseHex } from '../color/srgb';
import type { Grown } from '../graph/context';
import { padded, type Region, type Tile } from '../image/tile';
import { allOf, DAB, dabsIn, type StrokeContext } from './dabs';
import type { Mark, Stroke, Tabled } from './schema';
import { levelTable, tipKey, type Tips } from './tip';

/** How thick a flat tip is to its width. */
const FLAT = 0.33;

/** Planes that a stroke moves by its cover, each towards a value: that of a mask, or the four of a picture. */
type Targets = readonly (readonly [plane: number, value: number])[];

const onMask = (mask: number, { does, level }: Stroke): Targets => [[mask, does === 'put' ? 1 : does === 'take' ? 0 : level]];

/** A mark's own colour, or that of its coat, over what was painted before; colours are premultiplied, so that an eraser moves all four to nothing. */
function onPicture({ ptr, stride }: Tile, { does, colour }: Mark, coat: string): Targets {
  const rgba = does === 'put' ? [...parseHex(colour ?? coat), 1] : [0, 0, 0, 0];
  return rgba.map((value, c) => [ptr + c * stride, value] as const);
}

/**
 * Lays strokes on a plane of a region, in the order they were made; each moves it by its strength at most: to where it goes, or all of them
 * `towards` one value.
 */
export function layStrokes(
  context: StrokeContext,
  mask: number,
  region: Region,
  strokes: readonly Stroke[],
  tips: Tips = {},
  towards?: number,
): void {
  for (const stroke of strokes) lay(context, towards === undefined ? onMask(mask, stroke) : [[mask, towards]], region, stroke, tips);
}

/** Lays one stroke whose cover is kept between drawings: only the dabs that came since are stamped. */
export function layGrowing(context: StrokeContext, mask: number, region: Region, stroke: Stroke & Tabled, tips: Tips, kept: Grown): void {
  grow(context, onMask(mask, stroke), region, stroke, tips, kept);
}

/** Lays marks on a premultiplied picture, in the order they were made; the last one's cover may be kept between drawings. */
export function layMarks(context: StrokeContext, tile: Tile, marks: readonly (Mark & Tabled)[], coat: string, tips: Tips, kept?: Grown): void {
  for (const mark of marks) {
    const targets = onPicture(tile, mark, coat);
    if (kept) grow(context, targets, tile, mark, tips, kept);
    else lay(context, targets, tile, mark, tips);
  }
}

function lay(context: StrokeContext, targets: Targets, region: Region, stroke: Stroke, tips: Tips): void {
  const { strength, ring } = stroke;
  if (!ring) return layOne(context, targets, region, stroke, tips, 1, strength);
  // Half the strength all around, then what is missing to the whole of it in the middle.
  layOne(context, targets, region, stroke, tips, 2, strength / 2);
  layOne(context, targets, region, stroke, tips, 1, strength / 2 / (1 - strength / 2));
}

function layOne(context: StrokeContext, targets: Targets, region: Region, stroke: Stroke, tips: Tips, wider: number, strength: number): void {
  const { scratch } = context;
  const mark = scratch.mark();
  const cover = scratch.plane(padded(region.width, region.height) + 8, 0);
  if (stamp(context, cover, region, stroke, tips, wider, 0)) apply(context, targets, cover, region, strength);
  scratch.release(mark);
}

function grow(context: StrokeContext, targets: Targets, region: Region, stroke: Stroke & Tabled, tips: Tips, kept: Grown): void {
  const all = stroke.table?.count ?? allOf(context, stroke).length / DAB;
  const fresh = kept.count > all;
  if (fresh || kept.count === 0) context.machine.kernels.fill(kept.plane, padded(region.width, region.height), 0);
  stamp(context, kept.plane, region, stroke, tips, 1, fresh ? 0 : kept.count);
  kept.keep(all);
  apply(context, targets, kept.plane, region, stroke.strength);
}

function apply({ machine }: StrokeContext, targets: Targets, cover: number, { width, height }: Region, strength: number): void {
  for (const [plane, value] of targets) machine.kernels.applyStroke(plane, cover, padded(width, height), value, strength);
}

/** Stamps a stroke's dabs from the one numbered `from` on into a cover plane; false when none touches it. */
function stamp(context: StrokeContext, cover: number, region: Region, stroke: Stroke, tips: Tips, wider: number, from: number): boolean {
  const { machine, scratch } = context;
  const dabs = dabsIn(context, stroke, region, wider, from);
  if (dabs.length === 0) return false;
  const mark = scratch.mark();
  const table = scratch.take(dabs.length * 4);
  machine.floats.set(dabs, table / 4);
  const n = dabs.length / DAB;
  const tip = stroke.tip === 'cut' ? tips[tipKey(stroke)] : undefined;
  if (tip) machine.kernels.stampCut(cover, region.width, region.height, table, n, stroke.hardness, levelTable(context, tip), tip.levels.length);
  else machine.kernels.stampDabs(cover, region.width, region.height, table, n, stroke.hardness, stroke.tip === 'flat' ? FLAT : 1);
  scratch.release(mark);
  return true;
}
