import CRC32 from 'crc-32';
import { ascii, blocksOf, viewOf } from './blocks';
import { captureOfTiff, tiffWithCapture } from './captureTiff';
import { joined, letters } from './joined';
import { isTiff } from './tiffHeader';
import { srgbProfile } from './srgbProfile';

// What a picture's file says besides its pixels: the capture data of the photo that it was made from (Exif 3.0, CIPA DC-008), and that it is in sRGB.

type Kind = 'image/png' | 'image/jpeg' | 'image/webp' | 'image/tiff' | 'image/avif';

/** How a JPEG's segment of Exif, and one of a profile, begin. */
const EXIF = 'Exif\0\0';
const PROFILE = 'ICC_PROFILE\0';
/** Most bytes of a JPEG's segment. */
const SEGMENT = 65_533;

/** The Exif block of a JPEG, a PNG or a WebP; null when it has none, or it is damaged. */
function exifOf(file: Uint8Array): Uint8Array | null {
  for (const { type, data } of blocksOf(file)) {
    const isNamed = ascii(data, 0, EXIF.length) === EXIF;
    if (type === 'eXIf') return data;
    if (type === 'e1' && isNamed) return data.subarray(EXIF.length);
    if (type === 'EXIF') return isNamed ? data.subarray(EXIF.length) : data;
  }
  return null;
}

/**
 * The capture data of a photo as it is passed on to a picture made from it: turned upright, since its pixels are, and without the small picture of how the
 * photo was. Null where the file has none.
 */
export function captureData(file: Uint8Array): Uint8Array<ArrayBuffer> | null {
  const block = isTiff(file) ? captureOfTiff(file) : exifOf(file);
  const order = block && ascii(block, 0, 4);
  if (!block || block.length < 14 || (order !== 'II*\0' && order !== 'MM\0*')) return null;
  // A Buffer's own slice would be a view of the file.
  const out = new Uint8Array(block);
  const view = viewOf(out);
  const little = order === 'II*\0';
  const at = view.getUint32(4, little);
  if (at + 2 > out.length) return null;
  const end = at + 2 + 12 * view.getUint16(at, little);
  if (end + 4 > out.length) return null;
  for (let entry = at + 2; entry < end; entry += 12) if (view.getUint16(entry, little) === 0x0112) view.setUint16(entry + 8, 1, little);
  view.setUint32(end, 0, little);
  return out;
}

/** A chunk of a PNG (3rd ed., §5.3). */
function pngChunk(type: string, data: Uint8Array): Uint8Array {
  const named = joined(letters(type), data);
  const out = joined(new Uint8Array(4), named, new Uint8Array(4));
  viewOf(out).setUint32(0, data.length);
  viewOf(out).setInt32(out.length - 4, CRC32.buf(named));
  return out;
}

function riffChunk(type: string, data: Uint8Array): Uint8Array {
  const out = joined(letters(type), new Uint8Array(4), data, new Uint8Array(data.length & 1));
  viewOf(out).setUint32(4, data.length, true);
  return out;
}

function jpegSegment(marker: number, data: Uint8Array): Uint8Array {
  const out = joined(Uint8Array.of(0xff, marker, 0, 0), data);
  viewOf(out).setUint16(2, data.length + 2);
  return out;
}

/** A WebP with a profile and capture data, in its extended form (RFC 9649, §2.7). */
function webp(b: Uint8Array, width: number, height: number, exif: Uint8Array | null): Uint8Array<ArrayBuffer> {
  const image = [...blocksOf(b)].filter(({ type }) => !['VP8X', 'ICCP', 'EXIF', 'XMP '].includes(type));
  // A lossless picture says in its fifth byte whether it has alpha.
  const isClear = image.some(({ type, data }) => type === 'ALPH' || (type === 'VP8L' && (data[4] & 0x10) !== 0));
  const head = new Uint8Array(10);
  head[0] = 0x20 | (isClear ? 0x10 : 0) | (exif ? 0x08 : 0);
  [width - 1, height - 1].forEach((side, i) => head.set([side & 255, (side >> 8) & 255, side >> 16], 4 + 3 * i));
  const body = joined(
    letters('WEBP'),
    riffChunk('VP8X', head),
    riffChunk('ICCP', srgbProfile()),
    ...image.map(({ type, data }) => riffChunk(type, data)),
    ...(exif ? [riffChunk('EXIF', exif)] : []),
  );
  return riffChunk('RIFF', body) as Uint8Array<ArrayBuffer>;
}

/** Adds an sRGB profile and the capture data, if any, to a picture's file. `writeTiff` already adds the profile to a TIFF. */
export function tagged(
  b: Uint8Array,
  kind: Kind,
  { width, height, exif }: { width: number; height: number; exif: Uint8Array | null },
): Uint8Array<ArrayBuffer> {
  if (kind === 'image/jpeg') {
    const segments = [jpegSegment(0xe2, joined(letters(PROFILE), Uint8Array.of(1, 1), srgbProfile()))];
    if (exif && exif.length + EXIF.length <= SEGMENT) segments.unshift(jpegSegment(0xe1, joined(letters(EXIF), exif)));
    // Behind JFIF's own segment, which comes first.
    const start = b[2] === 0xff && b[3] === 0xe0 ? 4 + viewOf(b).getUint16(4) : 2;
    return joined(b.subarray(0, start), ...segments, b.subarray(start));
  }
  if (kind === 'image/png') {
    const chunks = [pngChunk('sRGB', Uint8Array.of(0)), ...(exif ? [pngChunk('eXIf', exif)] : [])];
    return joined(b.subarray(0, 33), ...chunks, b.subarray(33));
  }
  if (kind === 'image/webp') return webp(b, width, height, exif);
  return kind === 'image/tiff' && exif ? tiffWithCapture(b, exif) : new Uint8Array(b);
}
