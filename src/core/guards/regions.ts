import { pictureAt, type Picture } from '../image/picture';
import type { Machine } from '../image/machine';
import { sampleAffine, samplePhoto } from '../image/sample';
import { padded, Scratch } from '../image/tile';
import { drawAccents, drawDetail } from './detail';
import { drawFaces, type Tones } from './faces';
import type { Face } from './finding';
import { refine } from './guided';
import { Planes } from '../image/planes';
import { foundIds, type Hint, type FoundId } from './schema';
import { drawSalient } from './salient';
import { drawSkin, type SkinPlanes } from './skin';
import { fromHints } from './hints';

/** Long side of the regions' planes. Their edges are soft, so that they need not be finer. */
export const REGION_SIDE = 800;

/** Cells of a map of people, in memory of its own. */
export interface PersonMap {
  width: number;
  height: number;
  bytes: Uint8Array;
}

export interface RegionOrder {
  photo: Picture;
  faces: Face[];
  person: PersonMap | null;
  hints: Hint[];
  /** The subject is what stands out. */
  standsOut?: boolean;
}

export function regionSize({ width, height }: { width: number; height: number }): { width: number; height: number } {
  const k = Math.min(1, REGION_SIDE / Math.max(width, height));
  return { width: Math.max(1, Math.round(width * k)), height: Math.max(1, Math.round(height * k)) };
}

/** Bytes of one region's plane, one a pixel. */
export const planeBytes = ({ width, height }: { width: number; height: number }): number => Math.ceil((width * height + 16) / 128) * 128;
/** Bytes of all that is found on a photo. */
export const regionsBytes = (size: { width: number; height: number }): number => planeBytes(size) * foundIds.length;
/** Working memory: some forty planes of f32. */
export const regionsScratch = ({ width, height }: { width: number; height: number }): number => (padded(width, height) + 16) * 4 * 52 + 2 ** 20;

export const planeOf = (at: number, size: { width: number; height: number }, id: FoundId): number => at + foundIds.indexOf(id) * planeBytes(size);

/** Planes of the photo at one size: its colours, and its luma with the two colour differences. */
function stage(machine: Machine, scratch: Scratch, photo: Picture, width: number, height: number) {
  const planes = new Planes(machine, scratch, width, height);
  const tile = scratch.tile({ x: 0, y: 0, width, height });
  scratch.take(64);
  samplePhoto(machine, photo, width / photo.width, tile);
  const guide: [number, number, number] = [tile.ptr, tile.ptr + tile.stride, tile.ptr + 2 * tile.stride];
  const tones: Tones = { luma: planes.make(), blue: planes.make(), red: planes.make() };
  machine.kernels.splitLuma(tile.ptr, tile.stride, tile.count, tones.luma, tones.blue, tones.red);
  return { planes, guide, tones };
}

/** Measures all regions of a photo. `target` takes them one after another in the order of `foundIds`, a byte a pixel. */
export function drawRegions(machine: Machine, { photo, faces, person, hints, standsOut }: RegionOrder, target: number, scratchAt: number): void {
  const size = regionSize(photo);
  const { width, height } = size;
  const scratch = new Scratch(machine, scratchAt, scratchAt + regionsScratch(size));
  const { planes, guide, tones } = stage(machine, scratch, photo, width, height);
  const long = Math.max(width, height);
  const put = (id: FoundId, plane: number) => machine.kernels.packPlane(plane, planeOf(target, size, id), width * height);

  const people = planes.make();
  if (person) spread(planes, person, people);
  refine(planes, guide, people, Math.max(2, width / 100));
  const first = standsOut ? drawSalient(planes, guide, tones) : people;
  planes.briefly(() => put('subject', hints.length > 0 ? fromHints(planes, guide, hints, first) : first));
  planes.briefly(() => put('detail', drawDetail(planes, tones, Math.max(1.5, long / 400))));
  planes.briefly(() => put('accents', drawAccents(planes, tones, Math.max(1, long / 300))));

  const made = drawFaces(planes, faces, long, tones);
  const { skin, body, hair } =
    faces.length > 0 ? skinOf(planes, photo, faces, people) : { skin: planes.make(), body: planes.make(), hair: planes.make() };
  // An ear is where one may be and bare skin shows.
  const bare = planes.copy(body);
  planes.blur(bare, long / 250);
  planes.ramp(bare, 0.1, 0.45);
  planes.times(made.ears, bare);
  for (const id of ['eyes', 'brows', 'lips', 'teeth', 'nostrils', 'ears'] as const) put(id, made[id]);
  put('skin', skin);
  put('body', body);
  put('hair', hair);
}

/** Skin and hair are soft and wide: they are measured at half the size. */
function skinOf(planes: Planes, photo: Picture, faces: readonly Face[], people: number): SkinPlanes {
  const { machine, scratch } = planes;
  const out: SkinPlanes = { skin: planes.make(), body: planes.make(), hair: planes.make() };
  planes.briefly(() => {
    const [width, height] = [Math.ceil(planes.width / 2), Math.ceil(planes.height / 2)];
    const small = stage(machine, scratch, photo, width, height);
    const map = scratch.take(planes.count + 16);
    machine.kernels.packPlane(people, map, planes.width * planes.height);
    const person = small.planes.make();
    spread(small.planes, { width: planes.width, height: planes.height, bytes: machine.bytes.slice(map, map + planes.width * planes.height) }, person);
    const long = Math.max(width, height);
    const found = drawSkin(small.planes, faces, long, small.tones, drawFaces(small.planes, faces, long, small.tones), person);
    for (const key of ['skin', 'body', 'hair'] as const) {
      machine.kernels.packPlane(found[key], map, width * height);
      spread(planes, { width, height, bytes: machine.bytes.slice(map, map + width * height) }, out[key]);
    }
  });
  return out;
}

/** Reads a map of bytes at the size of a plane. */
function spread(planes: Planes, { width, height, bytes }: PersonMap, into: number): void {
  const { machine, scratch } = planes;
  planes.briefly(() => {
    const coarse = scratch.plane(padded(width, height));
    const at = scratch.take(width * height + 16);
    machine.bytes.set(bytes, at);
    machine.kernels.unpackPlane(at, coarse, width * height);
    const picture = pictureAt(scratch.take(width * height * 4 + 64), width, height, 1);
    machine.kernels.greyPicture(coarse, picture.levels[0], width * height);
    const tile = scratch.tile({ x: 0, y: 0, width: planes.width, height: planes.height });
    sampleAffine(machine, picture, { a: width / planes.width, b: 0, c: 0, d: height / planes.height, e: 0, f: 0 }, 'extend', tile);
    machine.kernels.copyWindow(tile.ptr, planes.width, into, planes.width, planes.width, planes.height);
  });
}
