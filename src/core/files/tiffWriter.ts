import { zlibSync } from 'fflate';
import { srgbProfile } from './srgbProfile';

/** RGBA, 8 or 16 bits a channel. */
export interface TiffPicture {
  pixels: Uint8Array | Uint16Array;
  width: number;
  height: number;
  /** The ICC profile of its colours; sRGB's when left out. */
  profile?: Uint8Array;
}

/** Bytes of one strip before it is packed, at most. */
const STRIP = 1 << 20;
const SHORT = 3;
const LONG = 4;
const RATIONAL = 5;
const UNDEFINED = 7;
/** Bytes of one value of a type, where it has fewer than four. */
const BYTES: Record<number, number> = { [SHORT]: 2, [UNDEFINED]: 1 };
/** Adobe's Deflate (TIFF Technical Note 2, 1995; registered as 8). */
const DEFLATE = 8;
const RGB = 2;
const UNASSOCIATED_ALPHA = 2;
const PER_INCH = 2;

/** The same without alpha where every pixel is opaque, in the order of bytes that the file says. */
function samplesOf({ pixels, width, height }: TiffPicture): { samples: Uint8Array; channels: number; bits: number } {
  const deep = pixels instanceof Uint16Array;
  const most = deep ? 65535 : 255;
  let opaque = true;
  for (let i = 3; i < pixels.length && opaque; i += 4) opaque = pixels[i] === most;
  if (!opaque) return { samples: new Uint8Array(pixels.buffer, pixels.byteOffset, pixels.byteLength), channels: 4, bits: deep ? 16 : 8 };
  const out = deep ? new Uint16Array(width * height * 3) : new Uint8Array(width * height * 3);
  for (let p = 0, q = 0; q < out.length; p += 4, q += 3) {
    out[q] = pixels[p];
    out[q + 1] = pixels[p + 1];
    out[q + 2] = pixels[p + 2];
  }
  return { samples: new Uint8Array(out.buffer), channels: 3, bits: deep ? 16 : 8 };
}

/**
 * A picture as a TIFF file: RGB, with alpha where it has some, in strips packed by Deflate (TIFF Revision 6.0, 1992, sections 2, 6 and 18).
 * Little-endian, as every machine is that runs this.
 */
export function writeTiff(picture: TiffPicture): Uint8Array<ArrayBuffer> {
  const { width, height } = picture;
  const { samples, channels, bits } = samplesOf(picture);
  const row = (width * channels * bits) / 8;
  const rows = Math.max(1, Math.floor(STRIP / row));
  const strips = Array.from({ length: Math.ceil(height / rows) }, (_, i) =>
    zlibSync(samples.subarray(i * rows * row, Math.min(height, (i + 1) * rows) * row)),
  );
  const tags: [number, number, number[]][] = [
    [256, LONG, [width]],
    [257, LONG, [height]],
    [258, SHORT, Array<number>(channels).fill(bits)],
    [259, SHORT, [DEFLATE]],
    [262, SHORT, [RGB]],
    [273, LONG, strips.map(() => 0)],
    [277, SHORT, [channels]],
    [278, LONG, [rows]],
    [279, LONG, strips.map(({ length }) => length)],
    [282, RATIONAL, [72, 1]],
    [283, RATIONAL, [72, 1]],
    [284, SHORT, [1]],
    [296, SHORT, [PER_INCH]],
    ...(channels === 4 ? ([[338, SHORT, [UNASSOCIATED_ALPHA]]] as [number, number, number[]][]) : []),
    // An embedded profile (ICC.1:2022, B.4).
    [34675, UNDEFINED, [...(picture.profile ?? srgbProfile())]],
  ];
  const sizeOf = (type: number, values: number[]) => (BYTES[type] ?? 4) * values.length;
  const directory = 8;
  let rest = directory + 2 + 12 * tags.length + 4;
  // Values of more than four bytes lie behind the directory, then the strips.
  const places = tags.map(([, type, values]) => {
    const size = sizeOf(type, values);
    if (size <= 4) return 0;
    const at = rest;
    rest += size + (size & 1);
    return at;
  });
  let at = rest;
  const offsets = strips.map(({ length }) => {
    const here = at;
    at += length + (length & 1);
    return here;
  });
  tags[5][2] = offsets;
  const file = new Uint8Array(at);
  const view = new DataView(file.buffer);
  view.setUint16(0, 0x4949);
  view.setUint16(2, 42, true);
  view.setUint32(4, directory, true);
  view.setUint16(directory, tags.length, true);
  tags.forEach(([tag, type, values], i) => {
    const entry = directory + 2 + 12 * i;
    view.setUint16(entry, tag, true);
    view.setUint16(entry + 2, type, true);
    view.setUint32(entry + 4, type === RATIONAL ? values.length / 2 : values.length, true);
    const place = places[i] || entry + 8;
    if (places[i]) view.setUint32(entry + 8, place, true);
    values.forEach((value, k) => {
      if (type === UNDEFINED) view.setUint8(place + k, value);
      else if (type === SHORT) view.setUint16(place + 2 * k, value, true);
      else view.setUint32(place + 4 * k, value, true);
    });
  });
  strips.forEach((strip, i) => file.set(strip, offsets[i]));
  return file;
}
