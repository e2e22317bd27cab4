import { ascii, viewOf } from './blocks';
import { joined, letters } from './joined';
import { isTiff } from './tiffHeader';

// Capture data in TIFF files. It is not one block there: tags that describe the photo are among those of the picture, and the rest is in directories
// of its own (Exif 3.0, CIPA DC-008, 4.6.3; TIFF Revision 6.0, section 2).

/** A tag with its values, in little-endian order. */
interface Entry {
  tag: number;
  type: number;
  count: number;
  data: Uint8Array;
}
interface Capture {
  main: Entry[];
  exif: Entry[];
  gps: Entry[];
}

/** Bytes of a value by its type, and of each number in it: the unit whose bytes are swapped. */
const BYTES: Record<number, number> = { 1: 1, 2: 1, 3: 2, 4: 4, 5: 8, 6: 1, 7: 1, 8: 2, 9: 4, 10: 8, 11: 4, 12: 8 };
const NUMBER: Record<number, number> = { ...BYTES, 5: 4, 10: 4 };
const [EXIF, GPS] = [0x8769, 0x8825];
/** What describes a photo: its text, camera, software, time, artist and copyright. */
const DESCRIBES = [270, 271, 272, 305, 306, 315, 33432];
/** Tags that hold offsets into the file they came from, and so cannot be moved: maker's notes and further directories. */
const BOUND = [37500, 40965];
/** Most bytes of one value, and tags of a directory. */
const LARGEST = 1 << 16;
const MOST = 1000;

/** The tags of a directory; those that lie outside the file are left out. */
function readDirectory(b: Uint8Array, at: number, little: boolean): Entry[] {
  const view = viewOf(b);
  if (at < 8 || at + 2 > b.length) return [];
  const count = Math.min(MOST, view.getUint16(at, little), Math.floor((b.length - at - 2) / 12));
  return Array.from({ length: count }, (_, i) => at + 2 + 12 * i).flatMap((entry): Entry[] => {
    const [tag, type] = [view.getUint16(entry, little), view.getUint16(entry + 2, little)];
    const values = view.getUint32(entry + 4, little);
    const bytes = (BYTES[type] ?? Infinity) * values;
    if (bytes > LARGEST) return [];
    const place = bytes <= 4 ? entry + 8 : view.getUint32(entry + 8, little);
    if (place + bytes > b.length) return [];
    const data = b.slice(place, place + bytes);
    if (!little) for (let k = 0; k < bytes; k += NUMBER[type]) data.subarray(k, k + NUMBER[type]).reverse();
    return [{ tag, type, count: values, data: Uint8Array.from(data) }];
  });
}

const numberOf = (entries: readonly Entry[], tag: number): number => {
  const found = entries.find((entry) => entry.tag === tag && entry.type === 4 && entry.data.length === 4);
  return found ? viewOf(found.data).getUint32(0, true) : 0;
};

/** What a TIFF structure, a file or an Exif block, says of how its photo was taken. */
function readCapture(b: Uint8Array): Capture {
  const little = b[0] === 0x49;
  const all = readDirectory(b, viewOf(b).getUint32(4, little), little);
  const within = (tag: number) => readDirectory(b, numberOf(all, tag), little).filter((entry) => !BOUND.includes(entry.tag));
  return { main: all.filter(({ tag }) => DESCRIBES.includes(tag)), exif: within(EXIF), gps: within(GPS) };
}

const long = (tag: number, value: number): Entry => {
  const data = new Uint8Array(4);
  viewOf(data).setUint32(0, value, true);
  return { tag, type: 4, count: 1, data };
};
const even = (n: number) => n + (n & 1);
const sizeOf = (entries: readonly Entry[]) =>
  6 + 12 * entries.length + entries.reduce((sum, { data }) => sum + (data.length > 4 ? even(data.length) : 0), 0);

/** A directory that lies at a place in its file, and its values behind it. `kept` are tags as they stand already, whose values lie elsewhere. */
function writeDirectory(entries: readonly Entry[], at: number, kept: readonly Uint8Array[] = []): Uint8Array {
  const out = new Uint8Array(sizeOf(entries) + 12 * kept.length);
  const view = viewOf(out);
  const all: (Entry | Uint8Array)[] = [...kept, ...entries];
  const tagOf = (one: Entry | Uint8Array) => (one instanceof Uint8Array ? viewOf(one).getUint16(0, true) : one.tag);
  all.sort((a, b) => tagOf(a) - tagOf(b));
  view.setUint16(0, all.length, true);
  let rest = 6 + 12 * all.length;
  all.forEach((one, i) => {
    const entry = 2 + 12 * i;
    if (one instanceof Uint8Array) return out.set(one, entry);
    view.setUint16(entry, one.tag, true);
    view.setUint16(entry + 2, one.type, true);
    view.setUint32(entry + 4, one.count, true);
    if (one.data.length <= 4) return out.set(one.data, entry + 8);
    view.setUint32(entry + 8, at + rest, true);
    out.set(one.data, rest);
    rest += even(one.data.length);
  });
  return out;
}

/** The directories of capture data one behind another, as they lie in a file from a place on; the main one is the last. */
function writeCapture({ main, exif, gps }: Capture, at: number, kept: readonly Uint8Array[] = []): { bytes: Uint8Array<ArrayBuffer>; main: number } {
  const [atExif, atGps] = [at, at + (exif.length > 0 ? sizeOf(exif) : 0)];
  const atMain = atGps + (gps.length > 0 ? sizeOf(gps) : 0);
  const pointers = [...(exif.length > 0 ? [long(EXIF, atExif)] : []), ...(gps.length > 0 ? [long(GPS, atGps)] : [])];
  const parts = [
    ...(exif.length > 0 ? [writeDirectory(exif, atExif)] : []),
    ...(gps.length > 0 ? [writeDirectory(gps, atGps)] : []),
    writeDirectory([...main, ...pointers], atMain, kept),
  ];
  return { bytes: joined(...parts), main: atMain };
}

/** The capture data of a TIFF file as an Exif block; null when it has none. */
export function captureOfTiff(file: Uint8Array): Uint8Array<ArrayBuffer> | null {
  if (!isTiff(file) || file.length < 8) return null;
  const capture = readCapture(file);
  if (capture.main.length + capture.exif.length + capture.gps.length === 0) return null;
  const { bytes, main } = writeCapture(capture, 8);
  const head = new Uint8Array(8);
  head.set(letters('II*\0'));
  viewOf(head).setUint32(4, main, true);
  return joined(head, bytes);
}

/** A little-endian TIFF file with the capture data of an Exif block: a new first directory behind the rest of the file, which stays where it is. */
export function tiffWithCapture(file: Uint8Array, block: Uint8Array): Uint8Array<ArrayBuffer> {
  if (!isTiff(block) || block.length < 8 || ascii(file, 0, 2) !== 'II') return new Uint8Array(file);
  const view = viewOf(file);
  const at = view.getUint32(4, true);
  const kept = Array.from({ length: view.getUint16(at, true) }, (_, i) => file.subarray(at + 2 + 12 * i, at + 14 + 12 * i));
  const padded = joined(file, new Uint8Array(file.length & 1));
  const { bytes, main } = writeCapture(readCapture(block), padded.length, kept);
  const out = joined(padded, bytes);
  viewOf(out).setUint32(4, main, true);
  return out;
}
