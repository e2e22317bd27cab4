import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { Scratch } from '../image/tile';
import { layGrowing, layStrokes } from '../strokes/lay';
import type { RegionStroke } from '../strokes/schema';
import { Planes } from '../image/planes';
import { planeOf, regionsScratch } from './regions';
import { growKept } from './kept';
import { laySnapped } from './snapped';
import { regionIds, settingsOf, type Guards, type Kept, type RegionId } from './schema';
import { UNITS } from '../image/unit';

export interface GuardOrder {
  /** Where the found regions' planes lie, and their size. */
  planes: number;
  size: { width: number; height: number };
  settings: Pick<Guards, 'regions'>;
  amounts: Partial<Record<RegionId, number>>;
  /** What was kept by a tap. */
  kept?: readonly Kept[];
  /** Over which that grows, and to whose edges strokes snap. */
  photo?: Picture;
  /** Where planes of the drawing before lie, while a stroke grows. */
  growth?: GuardGrowth;
}

/** Planes of f32 at the regions' size that stay from drawing to drawing while a region's last stroke grows. */
export interface GuardGrowth {
  region: RegionId;
  /** What the other regions hold back. */
  others: number;
  /** The region without its last stroke. */
  before: number;
  /** The cover of the last stroke. */
  cover: number;
  /** Dabs that lie in the cover; at 0 none of the planes has been drawn. */
  count: number;
}

/**
 * Draws how far each place is held back, as a grey picture of the regions' size: of every region as it was found, painted on, widened and
 * feathered, times its amount; where several meet the greatest holds. (Their product would keep lips at 65 % by more, inside a subject.)
 * @returns dabs of the growing stroke that lie in its cover
 */
export function drawGuard(
  machine: Machine,
  { planes: found, size, settings, amounts, kept, photo, growth }: GuardOrder,
  target: Picture,
  scratchAt: number,
): number {
  const { width, height } = size;
  const scratch = new Scratch(machine, scratchAt, scratchAt + regionsScratch(size));
  const planes = new Planes(machine, scratch, width, height);
  const long = Math.max(width, height);
  const region = { x: 0, y: 0, width, height };
  const context = { machine, scratch, unit: long / UNITS, width, height };
  const layAll = (plane: number, strokes: readonly RegionStroke[]) => {
    for (const stroke of strokes) {
      if (stroke.snap && photo) laySnapped(planes, plane, photo, stroke);
      else layStrokes(context, plane, region, [stroke]);
    }
  };
  const painted = (id: RegionId, strokes: readonly RegionStroke[]) => {
    const plane = id === 'kept' && kept && photo ? growKept(machine, scratch, photo, size, kept) : planes.make();
    if (id !== 'painted' && id !== 'kept') machine.kernels.unpackPlane(planeOf(found, size, id), plane, width * height);
    layAll(plane, strokes);
    return plane;
  };
  /** Adds a painted region to what is held back. */
  const hold = (whole: number, id: RegionId, plane: number) => {
    const { expand, feather } = settingsOf(settings, id);
    planes.widen(plane, (expand * long) / UNITS);
    planes.blur(plane, (feather * long) / 4000);
    machine.kernels.mixIn(plane, plane, planes.count, amounts[id] ?? 0, 0, 0);
    planes.most(whole, plane);
  };
  const whole = planes.make();
  const isNew = !growth || growth.count === 0;
  for (const id of isNew ? regionIds : []) {
    const { strokes } = settingsOf(settings, id);
    if ((amounts[id] ?? 0) <= 0 || id === growth?.region) continue;
    if (strokes.length === 0 && (id === 'painted' || (id === 'kept' && !kept))) continue;
    planes.briefly(() => hold(whole, id, painted(id, strokes)));
  }
  let count = 0;
  if (growth) {
    const id = growth.region;
    const { strokes } = settingsOf(settings, id);
    if (isNew) {
      planes.put(whole, growth.others);
      planes.briefly(() => planes.put(painted(id, strokes.slice(0, -1)), growth.before));
    } else planes.put(growth.others, whole);
    const one = planes.copy(growth.before);
    const last = strokes[strokes.length - 1];
    // A stroke that snaps to edges is drawn from its start each time: a new point can change all of its area.
    if (last.snap) {
      layAll(one, [last]);
      count = 1;
    } else layGrowing(context, one, region, last, {}, { plane: growth.cover, count: growth.count, keep: (n) => (count = n) });
    hold(whole, id, one);
  }
  machine.kernels.greyPicture(whole, target.levels[0], width * height);
  return count;
}
