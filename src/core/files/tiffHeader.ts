/** What a TIFF file says of its first picture (TIFF Revision 6.0, 1992; TIFF Technical Note 2 for the tag numbers of tiles). */
export interface TiffHeader {
  width: number;
  height: number;
  /** Bits of each channel. */
  bits: number[];
  /** How colours are told: 0 and 1 grey, 2 RGB, 3 a palette, 5 print colours, 6 luma and chroma, 8 Lab. */
  photometric: number;
  /** Where the parts of the picture lie: offset and bytes of each strip or tile. */
  parts: [number, number][];
}

const TAG = {
  width: 256,
  height: 257,
  bits: 258,
  photometric: 262,
  stripOffsets: 273,
  stripBytes: 279,
  tileOffsets: 324,
  tileBytes: 325,
} as const;
/** Bytes of one value of a type that a header uses: BYTE, SHORT and LONG. */
const SIZES: Record<number, number> = { 1: 1, 3: 2, 4: 4 };
/** Most values of one tag that are read: strips of one row each, of the tallest picture. */
const MOST = 1 << 16;

export const isTiff = (b: Uint8Array): boolean =>
  (b[0] === 0x49 && b[1] === 0x49 && b[2] === 42 && b[3] === 0) || (b[0] === 0x4d && b[1] === 0x4d && b[2] === 0 && b[3] === 42);

/** Reads the header of a TIFF file; null when it is damaged. Nothing outside the file is read, whatever its offsets say. */
export function tiffHeader(b: Uint8Array): TiffHeader | null {
  if (!isTiff(b) || b.length < 8) return null;
  const view = new DataView(b.buffer, b.byteOffset, b.byteLength);
  const little = b[0] === 0x49;
  const at = view.getUint32(4, little);
  if (at < 8 || at + 2 > b.length) return null;
  const count = view.getUint16(at, little);
  if (at + 2 + 12 * count > b.length) return null;
  const tags = new Map<number, number[]>();
  for (let i = 0; i < count; i++) {
    const entry = at + 2 + 12 * i;
    const values = valuesAt(view, entry, little);
    if (values) tags.set(view.getUint16(entry, little), values);
  }
  const one = (tag: number) => tags.get(tag)?.[0];
  const [width, height] = [one(TAG.width), one(TAG.height)];
  const offsets = tags.get(TAG.stripOffsets) ?? tags.get(TAG.tileOffsets);
  const bytes = tags.get(TAG.stripBytes) ?? tags.get(TAG.tileBytes);
  if (width === undefined || height === undefined || !offsets || offsets.length === 0 || bytes?.length !== offsets.length) return null;
  return {
    width,
    height,
    bits: tags.get(TAG.bits) ?? [1],
    photometric: one(TAG.photometric) ?? 2,
    parts: offsets.map((offset, i) => [offset, bytes[i]]),
  };
}

/** Values of an entry of the directory; null for a type that is not read, or where they lie outside the file. */
function valuesAt(view: DataView, entry: number, little: boolean): number[] | null {
  const type = view.getUint16(entry + 2, little);
  const count = view.getUint32(entry + 4, little);
  const size = SIZES[type];
  if (!size || count > MOST) return null;
  const at = count * size <= 4 ? entry + 8 : view.getUint32(entry + 8, little);
  if (at + count * size > view.byteLength) return null;
  const read = { 1: view.getUint8, 3: view.getUint16, 4: view.getUint32 }[type] as (at: number, little: boolean) => number;
  return Array.from({ length: count }, (_, i) => read.call(view, at + i * size, little));
}
