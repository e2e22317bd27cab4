/** A part of a file that says what it is: a chunk of a PNG or a RIFF file, a segment of a JPEG. */
export interface Block {
  type: string;
  data: Uint8Array;
}

export const ascii = (b: Uint8Array, at: number, n: number): string => String.fromCharCode(...b.subarray(at, at + n));
export const viewOf = (b: Uint8Array): DataView => new DataView(b.buffer, b.byteOffset, b.byteLength);

/** The segments of a JPEG before its scan (ITU-T T.81, B.1.1.4); their types are their markers' second bytes, such as "e1". */
function* jpegSegments(b: Uint8Array): Iterable<Block> {
  const view = viewOf(b);
  for (let at = 2; at + 4 <= b.length && b[at] === 0xff && b[at + 1] !== 0xda;) {
    const length = view.getUint16(at + 2);
    yield { type: b[at + 1].toString(16), data: b.subarray(at + 4, at + 2 + length) };
    at += 2 + length;
  }
}

/** The chunks of a PNG (3rd ed., 5.3). */
function* pngChunks(b: Uint8Array): Iterable<Block> {
  const view = viewOf(b);
  for (let at = 8; at + 12 <= b.length;) {
    const length = view.getUint32(at);
    yield { type: ascii(b, at + 4, 4), data: b.subarray(at + 8, at + 8 + length) };
    at += 12 + length;
  }
}

/** The chunks of a WebP (RFC 9649, 2.3). */
function* webpChunks(b: Uint8Array): Iterable<Block> {
  const view = viewOf(b);
  for (let at = 12; at + 8 <= b.length;) {
    const length = view.getUint32(at + 4, true);
    yield { type: ascii(b, at, 4), data: b.subarray(at + 8, at + 8 + length) };
    at += 8 + length + (length & 1);
  }
}

/** The parts of a JPEG, PNG or WebP file; empty for other files. Nothing outside the file is read, even where its lengths are wrong. */
export function blocksOf(b: Uint8Array): Iterable<Block> {
  if (b[0] === 0xff && b[1] === 0xd8) return jpegSegments(b);
  if (b[0] === 0x89 && ascii(b, 1, 3) === 'PNG') return pngChunks(b);
  return ascii(b, 0, 4) === 'RIFF' && ascii(b, 8, 4) === 'WEBP' ? webpChunks(b) : [];
}
