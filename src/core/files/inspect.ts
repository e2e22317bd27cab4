import { imageSize } from 'image-size';
import { isTiff, tiffHeader } from './tiffHeader';

export interface Inspected {
  type: 'image/png' | 'image/jpeg' | 'image/webp' | 'image/avif' | 'image/tiff';
  /** As the pixels are stored: orientation is the decoder's. */
  width: number;
  height: number;
  /** 16 bits a channel. */
  deep: boolean;
}

/** A file that Dermatex will not take; the message is one sentence for a person. */
export class BadFile extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'BadFile';
  }
}

export const MEGAPIXELS = 100;
const LONGEST = 30000;

const RAW_ENDINGS =
  /\.(3fr|ari|arw|bay|cap|cr2|cr3|crw|dcr|dng|erf|fff|gpr|iiq|k25|kdc|mef|mos|mrw|nef|nrw|orf|pef|raf|raw|rw2|rwl|sr2|srf|srw|x3f)$/i;

const ascii = (bytes: Uint8Array, at: number, n: number) => String.fromCharCode(...bytes.subarray(at, at + n));

/**
 * Looks at a file's header before anything is decoded: kind, size, and whether it is all there.
 * @throws BadFile with one clear sentence.
 */
export function inspect(bytes: Uint8Array, name: string): Inspected {
  const called = `“${name}”`;
  if (bytes.length === 0) throw new BadFile(`${called} is empty; choose another file.`);
  if (looksRaw(bytes, name)) throw new BadFile(`${called} is a camera’s raw file; develop it to TIFF, PNG or JPEG first and open that.`);
  const type = kindOf(bytes);
  if (!type) throw new BadFile(`${called} is not a PNG, JPEG, WebP, AVIF or TIFF picture; choose one of those.`);
  if (!complete(bytes, type)) throw new BadFile(`${called} is cut short: its end is missing; copy it again from where it came.`);
  const header = headerOf(bytes, type);
  if (!header) throw new BadFile(`${called} cannot be read: its header is damaged; copy it again from where it came.`);
  const { width, height } = header;
  if (!(width > 0 && height > 0)) throw new BadFile(`${called} says it has no size (${width} × ${height}); choose another file.`);
  if (width * height > MEGAPIXELS * 1e6) {
    const mega = ((width * height) / 1e6).toFixed(0);
    throw new BadFile(`${called} says it is ${width} × ${height} (${mega} megapixels); pictures of up to ${MEGAPIXELS} megapixels can be opened.`);
  }
  if (Math.max(width, height) > LONGEST)
    throw new BadFile(`${called} says it is ${width} × ${height}; sides of up to ${LONGEST} pixels can be opened.`);
  if (header.channels === 4 && type === 'image/jpeg')
    throw new BadFile(`${called} is in the colours of print (CMYK); save it in RGB first and open that.`);
  if (type === 'image/tiff' && header.photometric === 5)
    throw new BadFile(`${called} is in the colours of print (CMYK); save it in RGB first and open that.`);
  return { type, width, height, deep: header.deep ?? false };
}

interface Header {
  width: number;
  height: number;
  /** Of a JPEG. */
  channels?: number;
  /** Of a TIFF. */
  photometric?: number;
  /** 16 bits a channel. */
  deep?: boolean;
}

/** Size by the header; null when that is damaged. */
function headerOf(b: Uint8Array, type: Inspected['type']): Header | null {
  // PNG (3rd ed., §11.2.1) gives its bit depth behind the size.
  if (type === 'image/png') return ascii(b, 12, 4) === 'IHDR' ? { width: be32(b, 16), height: be32(b, 20), deep: b[24] === 16 } : null;
  if (type === 'image/tiff') {
    const header = tiffHeader(b);
    return header && { ...header, deep: header.bits.every((bits) => bits === 16) };
  }
  if (type === 'image/jpeg') return frameOf(b);
  try {
    const { width, height } = imageSize(b);
    return { width, height };
  } catch {
    return null;
  }
}

function kindOf(b: Uint8Array): Inspected['type'] | null {
  if (b[0] === 0x89 && ascii(b, 1, 3) === 'PNG' && b[4] === 13 && b[5] === 10 && b[6] === 26 && b[7] === 10) return 'image/png';
  if (b[0] === 0xff && b[1] === 0xd8 && b[2] === 0xff) return 'image/jpeg';
  if (ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 4) === 'WEBP') return 'image/webp';
  // ISO/IEC 14496-12, §4.3: the brand, or one of those it is compatible with.
  if (ascii(b, 4, 4) === 'ftyp' && ascii(b, 8, Math.min(be32(b, 0), 64) - 8).includes('avif')) return 'image/avif';
  if (isTiff(b)) return 'image/tiff';
  return null;
}

function looksRaw(b: Uint8Array, name: string): boolean {
  if (RAW_ENDINGS.test(name)) return true;
  // Raw files under another name: makers' own signatures (the TIFF-based ones are told by their endings).
  return (
    ascii(b, 4, 7) === 'ftypcrx' ||
    ascii(b, 0, 4) === 'FOVb' ||
    ascii(b, 0, 4) === 'IIU\0' ||
    ascii(b, 0, 4) === 'IIRO' ||
    ascii(b, 0, 3) === '\0MR' ||
    /^FUJI.{4}CCD-RAW/.test(ascii(b, 0, 15))
  );
}

const be32 = (b: Uint8Array, at: number) => ((b[at] << 24) | (b[at + 1] << 16) | (b[at + 2] << 8) | b[at + 3]) >>> 0;
const le32 = (b: Uint8Array, at: number) => (b[at] | (b[at + 1] << 8) | (b[at + 2] << 16) | (b[at + 3] << 24)) >>> 0;

function complete(b: Uint8Array, type: Inspected['type']): boolean {
  if (type === 'image/webp') return b.length >= 8 + le32(b, 4);
  if (type === 'image/tiff') return tiffHeader(b)?.parts.every(([at, bytes]) => at + bytes <= b.length) ?? true;
  if (type === 'image/avif') return boxesEnd(b) <= b.length;
  if (type === 'image/png') {
    // Walk the chunks (PNG 3rd ed., §5) to IEND.
    for (let at = 8; at + 12 <= b.length;) {
      const length = be32(b, at);
      if (at + 12 + length > b.length) return false;
      if (ascii(b, at + 4, 4) === 'IEND') return true;
      at += 12 + length;
    }
    return false;
  }
  const scan = scanOf(b);
  if (scan === null) return false;
  for (let at = scan; at + 1 < b.length; at++) if (b[at] === 0xff && b[at + 1] === 0xd9) return true;
  return false;
}

/** Where the last of the boxes of an ISO base media file ends (ISO/IEC 14496-12, §4.2). */
function boxesEnd(b: Uint8Array): number {
  let at = 0;
  while (at + 8 <= b.length) {
    const size = be32(b, at);
    // 0 is a box to the file's end, 1 one of more than 4 GB.
    if (size < 8) return b.length;
    at += size;
  }
  return at;
}

/** Visits the segments of a JPEG up to its first scan (ITU-T T.81, annex B); bytes of 0xff may fill the room before a marker. */
function segments(b: Uint8Array, visit: (marker: number, at: number) => void): number | null {
  let at = 2;
  while (at + 4 <= b.length) {
    if (b[at] !== 0xff) return null;
    const marker = b[at + 1];
    if (marker === 0xff) {
      at++;
      continue;
    }
    if (marker === 0xd9 || marker === 0xda) return at;
    // TEM and restart markers stand alone.
    if (marker === 0x01 || (marker >= 0xd0 && marker <= 0xd7)) {
      at += 2;
      continue;
    }
    const length = (b[at + 2] << 8) | b[at + 3];
    if (length < 2) return null;
    visit(marker, at);
    at += 2 + length;
  }
  return null;
}

const scanOf = (b: Uint8Array): number | null => segments(b, () => undefined);

/** The frame header: SOF0 to SOF15, without DHT, JPG and DAC, which lie among them. */
function frameOf(b: Uint8Array): Header | null {
  let frame: Header | null = null;
  segments(b, (marker, at) => {
    if (marker < 0xc0 || marker > 0xcf || [0xc4, 0xc8, 0xcc].includes(marker) || frame) return;
    frame = { height: (b[at + 5] << 8) | b[at + 6], width: (b[at + 7] << 8) | b[at + 8], channels: b[at + 9] };
  });
  return frame;
}
