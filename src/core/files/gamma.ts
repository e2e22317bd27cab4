const be32 = (b: Uint8Array, at: number) => ((b[at] << 24) | (b[at + 1] << 16) | (b[at + 2] << 8) | b[at + 3]) >>> 0;

/** Bytes at the beginning of a file in which the chunks before its pixels are looked for. */
export const PNG_HEAD = 65536;

/**
 * Where the chunks lie that say how a PNG's values are to be bent (gAMA) and coloured (cHRM), in a file without a profile (iCCP, sRGB, cICP). Browsers
 * follow them, while most programs of the trade and the command line take such a file as sRGB; so are these taken here.
 *
 * @param head the first bytes of a file
 * @returns [start, end) of each, in order; empty for other files
 */
export function gammaChunks(head: Uint8Array): [number, number][] {
  const found: [number, number][] = [];
  if (be32(head, 0) !== 0x89504e47) return found;
  for (let at = 8; at + 12 <= head.length;) {
    const length = be32(head, at);
    const name = String.fromCharCode(...head.subarray(at + 4, at + 8));
    if (name === 'IDAT') break;
    if (['iCCP', 'sRGB', 'cICP'].includes(name)) return [];
    if (name === 'gAMA' || name === 'cHRM') found.push([at, at + 12 + length]);
    at += 12 + length;
  }
  return found;
}
