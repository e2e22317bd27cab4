import type { Picture } from '../image/picture';
import type { Machine } from '../image/machine';
import { samplePhoto } from '../image/sample';
import { padded, Scratch, type Region } from '../image/tile';
import { drawAccents, drawDetail } from './detail';
import { drawFaces, type Tones } from './faces';
import { faceWidth, type Face } from './finding';
import { drawIrises, eyesExtent, type IrisPlanes } from './irises';
import { headExtent, mouthExtent } from './outlines';
import { drawFocus } from './focus';
import { refine } from './guided';
import { Planes } from '../image/planes';
import { foundIds, type Hint, type FoundId } from './schema';
import { drawSalient } from './salient';
import { drawHead } from './drawHead';
import type { HeadPlanes } from './head';
import { drawBody } from './skin';
import { fromHints } from './hints';
import { spreadPerson, type PersonMap } from './personMap';
import { drawTeeth } from './teeth';

/** Long side of the regions' planes. Their edges are soft, so that they need not be finer. */
export const REGION_SIDE = 800;

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
/** How many pixels wide a face is in the planes on which its mouth and eyes are looked at. */
const FEATURE_SIDE = 300;
/** The same for its skin and hair, and the memory that those take beside the others. */
const HEAD_SIDE = 96;
export const HEAD_SCRATCH = 80 * 2 ** 20;

export const planeOf = (at: number, size: { width: number; height: number }, id: FoundId): number => at + foundIds.indexOf(id) * planeBytes(size);

/** Planes of a window of the photo at one scale: its colours, and its luma with the two colour differences. */
function stage(machine: Machine, scratch: Scratch, photo: Picture, scale: number, window: Region) {
  const planes = new Planes(machine, scratch, window.width, window.height, window.x, window.y);
  const tile = scratch.tile(window);
  scratch.take(64);
  samplePhoto(machine, photo, scale, tile);
  const guide: [number, number, number] = [tile.ptr, tile.ptr + tile.stride, tile.ptr + 2 * tile.stride];
  const tones: Tones = { luma: planes.make(), blue: planes.make(), red: planes.make() };
  machine.kernels.splitLuma(tile.ptr, tile.stride, tile.count, tones.luma, tones.blue, tones.red);
  return { planes, guide, tones };
}

/** Measures all regions of a photo. `target` takes them one after another in the order of `foundIds`, a byte a pixel. */
export function drawRegions(machine: Machine, { photo, faces, person, hints, standsOut }: RegionOrder, target: number, scratchAt: number): void {
  const size = regionSize(photo);
  const { width, height } = size;
  const scratch = new Scratch(machine, scratchAt, scratchAt + regionsScratch(size) + HEAD_SCRATCH);
  const { planes, guide, tones } = stage(machine, scratch, photo, width / photo.width, { x: 0, y: 0, width, height });
  const long = Math.max(width, height);
  const put = (id: FoundId, plane: number) => machine.kernels.packPlane(plane, planeOf(target, size, id), width * height);

  const people = planes.make();
  if (person) spread(planes, person, people, { x: 0, y: 0, width, height });
  refine(planes, guide, people, Math.max(2, width / 100));
  const first = standsOut ? drawSalient(planes, guide, tones) : people;
  planes.briefly(() => put('subject', hints.length > 0 ? fromHints(planes, guide, hints, first) : first));
  planes.briefly(() => put('detail', drawDetail(planes, tones, Math.max(1.5, long / 400))));
  planes.briefly(() => put('unfocused', drawFocus(planes, tones.luma, people)));
  planes.briefly(() => put('accents', drawAccents(planes, tones, Math.max(1, long / 300))));

  const made = drawFaces(planes, faces, long, tones.luma);
  const eyes = { irises: planes.make(), catchlights: planes.make() };
  for (const face of faces)
    lookCloser<keyof IrisPlanes>(planes, photo, face, eyesExtent(face, long), FEATURE_SIDE, eyes, (closer, closeLong) =>
      drawIrises(closer.planes, face, closeLong, closer.tones),
    );
  put('irises', eyes.irises);
  put('catchlights', eyes.catchlights);
  const teeth = planes.make();
  for (const face of faces)
    lookCloser(planes, photo, face, mouthExtent(face, long), FEATURE_SIDE, { teeth }, (closer, closeLong) => {
      const drawn = drawTeeth(closer.planes, face, closeLong, closer.tones);
      if (drawn === null) return null;
      // Half a pixel of the regions' planes: small teeth would be soft to their middle there.
      closer.planes.widen(drawn, (0.5 * closeLong) / long);
      return { teeth: drawn };
    });
  const { skin, body, hair, ears } = skinOf(planes, photo, faces, people);
  for (const feature of [made.eyes, made.brows, made.lips, made.nostrils]) planes.without(skin, feature);
  planes.briefly(() => {
    // The soft rim of hair is not skin.
    const wide = planes.copy(hair);
    planes.widen(wide, long / 160);
    planes.without(body, wide);
  });
  planes.without(body, skin);
  planes.without(body, ears);
  planes.without(skin, ears);
  planes.without(body, made.oval);
  put('teeth', teeth);
  for (const id of ['eyes', 'brows', 'lips', 'nostrils'] as const) put(id, made[id]);
  put('ears', ears);
  put('skin', skin);
  put('body', body);
  put('hair', hair);
}

/** Skin and hair of all heads, and the bare skin of the whole photo at half the size: it is soft and wide. */
function skinOf(planes: Planes, photo: Picture, faces: readonly Face[], people: number): HeadPlanes & { body: number } {
  const { machine, scratch } = planes;
  const out = { skin: planes.make(), body: planes.make(), hair: planes.make(), ears: planes.make(), other: planes.make() };
  if (faces.length === 0) return out;
  const person = packed(planes, people);
  const long = Math.max(planes.width, planes.height);
  for (const face of faces)
    lookCloser<keyof HeadPlanes>(planes, photo, face, headExtent(face, long), HEAD_SIDE, out, (closer, closeLong, k) => {
      const there = closer.planes.make();
      spread(closer.planes, person, there, { x: 0, y: 0, width: planes.width * k, height: planes.height * k });
      return drawHead(closer.planes, face, closeLong, closer.tones, there);
    });
  planes.briefly(() => {
    const half = { x: 0, y: 0, width: Math.ceil(planes.width / 2), height: Math.ceil(planes.height / 2) };
    const small = stage(machine, scratch, photo, half.width / photo.width, half);
    const there = small.planes.make();
    spread(small.planes, person, there, half);
    const body = small.planes.make();
    for (const face of faces)
      small.planes.briefly(() => small.planes.most(body, drawBody(small.planes, face, Math.max(half.width, half.height), small.tones, there)));
    spread(planes, packed(small.planes, body), out.body, { x: 0, y: 0, width: planes.width, height: planes.height });
  });
  planes.without(out.body, out.other);
  return out;
}

/** Looks at a part of the photo at a scale at which a face is `faceSide` pixels wide, and lays what is drawn there into planes of the whole. */
function lookCloser<K extends string>(
  planes: Planes,
  photo: Picture,
  face: Face,
  extent: readonly (readonly [number, number])[],
  faceSide: number,
  out: Record<K, number>,
  draw: (closer: ReturnType<typeof stage>, long: number, k: number) => Record<K, number> | null,
): void {
  const long = Math.max(planes.width, planes.height);
  const k = faceSide / faceWidth(face, long);
  const about = planes.around(extent, 2);
  const window = {
    x: Math.floor(about.x * k),
    y: Math.floor(about.y * k),
    width: Math.max(8, Math.ceil(about.width * k)),
    height: Math.max(8, Math.ceil(about.height * k)),
  };
  planes.briefly(() => {
    const closer = stage(planes.machine, planes.scratch, photo, (planes.width * k) / photo.width, window);
    const drawn = draw(closer, long * k, k);
    if (!drawn) return;
    const read = about.make();
    for (const key of Object.keys(drawn) as K[]) {
      spread(about, packed(closer.planes, drawn[key]), read, {
        x: window.x / k,
        y: window.y / k,
        width: window.width / k,
        height: window.height / k,
      });
      about.mostOf(planes, out[key], read);
    }
  });
}

/** Puts a map of people over an extent of the picture into a plane. */
function spread(planes: Planes, person: PersonMap, into: number, extent: Region): void {
  const [a, d] = [person.width / extent.width, person.height / extent.height];
  spreadPerson(planes, person, into, { a, b: 0, c: 0, d, e: (planes.x - extent.x) * a, f: (planes.y - extent.y) * d });
}

/** A plane as a map of bytes. */
function packed(planes: Planes, plane: number): PersonMap {
  const { machine, scratch, width, height } = planes;
  return planes.briefly(() => {
    const at = scratch.take(width * height + 16);
    machine.kernels.packPlane(plane, at, width * height);
    return { width, height, bytes: machine.bytes.slice(at, at + width * height) };
  });
}
