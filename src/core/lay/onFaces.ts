import type { FacePlace } from '../form/places';
import type { DrawContext } from '../graph/context';
import type { LoadedPicture } from '../graph/needs';
import type { Tile } from '../image/tile';
import { fillPicture } from './enlarged';
import { NOMINAL, type Lay } from './lay';

/** A face that has less of a place than this is left out there. */
const LITTLE = 0.02;

/** The same lay as wide as a face at 100 %, with its middle on the face's and turned with it. */
export const layOnFace = (lay: Lay, { x, y, width, turn }: FacePlace): Lay => ({
  ...lay,
  fit: 'tile',
  scale: (lay.scale * width) / NOMINAL,
  x: lay.x + x - 0.5,
  y: lay.y + y - 0.5,
  turn: lay.turn + turn,
});

/** Fills a tile with a picture that is repeated, on each face as large as that one is; between faces one runs into the other. */
export function fillOnFaces(
  context: Pick<DrawContext, 'machine' | 'scratch' | 'scale' | 'width' | 'height' | 'unit'>,
  tile: Tile,
  loaded: Omit<LoadedPicture, 'kind'>,
  lay: Lay,
  faces: readonly FacePlace[],
): void {
  const near = nearFaces(context, tile, faces);
  if (near.length < 2) return fillPicture(context, tile, loaded, near[0] ? layOnFace(lay, near[0]) : { ...lay, fit: 'tile' });
  const { machine, scratch } = context;
  const { kernels } = machine;
  const mark = scratch.mark();
  const one = scratch.tile(tile);
  const [weight, total] = [scratch.plane(tile.count + 8), scratch.plane(tile.count + 8, 0)];
  const table = scratch.take(near.length * 12);
  for (let c = 0; c < 4; c++) kernels.fill(tile.ptr + c * tile.stride, tile.count, 0);
  for (const face of near) {
    fillPicture(context, one, loaded, layOnFace(lay, face));
    const order = [face, ...near.filter((other) => other !== face)];
    machine.floats.set(
      order.flatMap(({ x, y, width }) => [x * context.width - tile.x, y * context.height - tile.y, width * context.unit]),
      table / 4,
    );
    kernels.fill(weight, tile.count, 1);
    kernels.shareByDistance(weight, tile.width, tile.height, table, order.length);
    kernels.mixIn(total, weight, tile.count, 1, 1, 0);
    for (let c = 0; c < 4; c++) {
      kernels.times(one.ptr + c * one.stride, weight, tile.count, 1, 0);
      kernels.mixIn(tile.ptr + c * tile.stride, one.ptr + c * one.stride, tile.count, 1, 1, 0);
    }
  }
  for (let c = 0; c < 4; c++) kernels.dividedBy(tile.ptr + c * tile.stride, total, tile.count, 1e-6);
  scratch.release(mark);
}

/** Faces that have a part of a tile. */
function nearFaces({ width, height, unit }: Parameters<typeof fillOnFaces>[0], tile: Tile, faces: readonly FacePlace[]): FacePlace[] {
  const places = [
    [0, 0],
    [1, 0],
    [0, 1],
    [1, 1],
    [0.5, 0.5],
  ].map(([x, y]) => [tile.x + x * tile.width, tile.y + y * tile.height] as const);
  const square = (face: FacePlace, [x, y]: readonly [number, number]) =>
    (((x - face.x * width) / (face.width * unit)) ** 2 + ((y - face.y * height) / (face.width * unit)) ** 2) ** 2;
  return faces.filter((face) =>
    places.some((place) => {
      const own = square(face, place);
      const share = faces.reduce(
        (part, other) => (other === face ? part : (part * square(other, place)) / Math.max(1e-9, square(other, place) + own)),
        1,
      );
      return share > LITTLE;
    }),
  );
}

/** How much larger than at its own scale a lay is on the largest face; 1 where there is none. `frame` is the readied photo. */
export const largestOnFaces = (faces: readonly FacePlace[]): number =>
  faces.length > 0 ? Math.max(...faces.map(({ width }) => width)) / NOMINAL : 1;
