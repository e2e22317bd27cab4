import { pictureAt } from '../image/picture';
import type { Planes } from '../image/planes';
import { sampleAffine, type Affine } from '../image/sample';
import { padded } from '../image/tile';

/** Cells of a map of people, in memory of its own. */
export interface PersonMap {
  width: number;
  height: number;
  bytes: Uint8Array;
}

/** Puts a map of people into a plane, read between its cells. `cells` takes pixels of the planes, their own corner counted from 0, to cells. */
export function spreadPerson(planes: Planes, { width, height, bytes }: PersonMap, into: number, cells: Affine): void {
  const { machine, scratch } = planes;
  planes.briefly(() => {
    const coarse = scratch.plane(padded(width, height));
    const at = scratch.take(width * height + 16);
    machine.bytes.set(bytes, at);
    machine.kernels.unpackPlane(at, coarse, width * height);
    const picture = pictureAt(scratch.take(width * height * 4 + 64), width, height, 1);
    machine.kernels.greyPicture(coarse, picture.levels[0], width * height);
    const tile = scratch.tile({ x: 0, y: 0, width: planes.width, height: planes.height });
    sampleAffine(machine, picture, cells, 'extend', tile);
    planes.put(tile.ptr, into);
  });
}
