import type { Region } from '../core/image/tile';

/**
 * Standard deviation of the highest octave of a part of an RGBA8 picture, in levels: what is left of its green when the mean of every square of 2 × 2 pixels
 * is taken away (Haar 1910).
 */
export function highestOctave(pixels: Uint8Array, pitch: number, { x, y, width, height }: Region): number {
  const [left, top] = [Math.round(x), Math.round(y)];
  const at = (i: number, j: number) => pixels[((top + j) * pitch + left + i) * 4 + 1];
  let sum = 0;
  let count = 0;
  for (let j = 0; j + 1 < height; j += 2)
    for (let i = 0; i + 1 < width; i += 2) {
      const four = [at(i, j), at(i + 1, j), at(i, j + 1), at(i + 1, j + 1)];
      const mean = (four[0] + four[1] + four[2] + four[3]) / 4;
      for (const v of four) sum += (v - mean) ** 2;
      count += 4;
    }
  return Math.sqrt(sum / count);
}
