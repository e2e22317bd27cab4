/** Up to this mean distance between the greatest and least channel, in levels, nobody sees a colour. */
const UNSEEN = 3;

/** Whether RGBA8 pixels have no colour to speak of. */
export function isGrey(rgba: Uint8Array): boolean {
  let sum = 0;
  for (let i = 0; i + 3 < rgba.length; i += 4) {
    const [r, g, b] = [rgba[i], rgba[i + 1], rgba[i + 2]];
    sum += Math.max(r, g, b) - Math.min(r, g, b);
  }
  return sum * 4 <= UNSEEN * rgba.length;
}
