import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { Scratch } from '../image/tile';
import { layStrokes } from '../strokes/dabs';
import { Planes } from '../image/planes';
import { planeOf, regionsScratch } from './regions';
import { regionIds, settingsOf, type Guards, type RegionId } from './schema';
import { UNITS } from '../image/unit';

export interface GuardOrder {
  /** Where the found regions' planes lie, and their size. */
  planes: number;
  size: { width: number; height: number };
  settings: Pick<Guards, 'regions'>;
  amounts: Partial<Record<RegionId, number>>;
}

/**
 * Draws how far each place is held back, as a grey picture of the regions' size: of every region as it was found, painted on, widened and
 * feathered, times its amount; where several meet the greatest holds. (Their product would keep lips at 65 % by more, inside a subject.)
 */
export function drawGuard(machine: Machine, { planes: found, size, settings, amounts }: GuardOrder, target: Picture, scratchAt: number): void {
  const { width, height } = size;
  const scratch = new Scratch(machine, scratchAt, scratchAt + regionsScratch(size));
  const planes = new Planes(machine, scratch, width, height);
  const long = Math.max(width, height);
  const whole = planes.make();
  for (const id of regionIds) {
    const amount = amounts[id] ?? 0;
    const region = settingsOf(settings, id);
    if (amount <= 0 || (id === 'painted' && region.strokes.length === 0)) continue;
    planes.briefly(() => {
      const one = planes.make();
      if (id !== 'painted') machine.kernels.unpackPlane(planeOf(found, size, id), one, width * height);
      layStrokes({ machine, scratch, unit: long / UNITS, width, height }, one, { x: 0, y: 0, width, height }, region.strokes);
      planes.widen(one, (region.expand * long) / UNITS);
      planes.blur(one, (region.feather * long) / 4000);
      machine.kernels.mixIn(one, one, planes.count, amount, 0, 0);
      planes.most(whole, one);
    });
  }
  machine.kernels.greyPicture(whole, target.levels[0], width * height);
}
