// How far out of focus the places of a photo are.
import { exp1, ln1 } from './math';

/**
 * How far edges of a picture are out of focus, gathered in cells. `sharp` and `soft` are a luma (0..255) blurred by deviations a and b, pixels of a level that
 * is `size` times smaller than the picture; where the gradient of the first is greatest across an edge and over the noise, the ratio R of both gradients gives
 * the edge's own blur σ² = (b² − a²) / (R² − 1) − a². Kept from `least` to `most` pixels of the level. Each adds its weight, and ln(σ·size + 0.3) times that, to
 * the cell of 4 × 4 pixels of the picture that it lies in, `columns` cells a row: to the first pair of planes by the share `inside`, to the second by the rest.
 */
export function gatherFocus(
  sharp: usize, soft: usize, w: i32, h: i32, size: i32, a: f32, b: f32, least: f32, most: f32, inside: usize, pitch: i32, rows: i32, columns: i32,
  weights: usize, sums: usize, otherWeights: usize, otherSums: usize,
): void {
  for (let j = 1; j + 1 < h; j++)
    for (let i = 1; i + 1 < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const gx: f32 = slopeX(sharp, at), gy: f32 = slopeY(sharp, at, w);
      const square: f32 = gx * gx + gy * gy;
      if (square < 6) continue;
      const across: i32 = abs<f32>(gx) > abs<f32>(gy) ? 1 : w;
      const before = at - (<usize>across << 2), after = at + (<usize>across << 2);
      if (i < 2 || j < 2 || i + 2 >= w || j + 2 >= h) continue;
      if (squareAt(sharp, before, w) > square || squareAt(sharp, after, w) >= square) continue;
      const sx: f32 = slopeX(soft, at), sy: f32 = slopeY(soft, at, w);
      const ratio: f32 = square / max<f32>(1e-6, sx * sx + sy * sy);
      if (ratio <= 1.0001) continue;
      // A difference over two pixels blurs by a box of that width, of variance 1/3.
      const variance: f32 = (b * b - a * a) / (ratio - 1) - a * a - <f32>(1.0 / 3.0);
      const sigma: f32 = sqrt<f32>(max<f32>(0, variance));
      if (sigma < least || sigma > most) continue;
      const x = i * size + (size >> 1), y = j * size + (size >> 1);
      if (x >= pitch || y >= rows) continue;
      const scaled: f32 = sigma * <f32>size;
      const base: f32 = (sigma + 0.4) * sqrt<f32>(sigma + 0.4);
      const weight: f32 = (min<f32>(1, square / 200) * <f32>size) / base;
      const value: f32 = weight * ln1(scaled + 0.3);
      const p: f32 = f32.load(inside + (<usize>(y * pitch + x) << 2));
      const cell = <usize>((y >> 2) * columns + (x >> 2)) << 2;
      // On the subject soft shading is not blur: its sharp edges speak for what lies between them.
      const sharpWins: f32 = p / ((scaled + 0.4) * (scaled + 0.4));
      f32.store(weights + cell, f32.load(weights + cell) + weight * sharpWins);
      f32.store(sums + cell, f32.load(sums + cell) + value * sharpWins);
      f32.store(otherWeights + cell, f32.load(otherWeights + cell) + weight * (1 - p));
      f32.store(otherSums + cell, f32.load(otherSums + cell) + value * (1 - p));
    }
}

// @ts-ignore: decorator
@inline
function slopeX(plane: usize, at: usize): f32 {
  return 0.5 * (f32.load(plane + at + 4) - f32.load(plane + at - 4));
}

// @ts-ignore: decorator
@inline
function slopeY(plane: usize, at: usize, w: i32): f32 {
  const row = <usize>w << 2;
  return 0.5 * (f32.load(plane + at + row) - f32.load(plane + at - row));
}

// @ts-ignore: decorator
@inline
function squareAt(plane: usize, at: usize, w: i32): f32 {
  const x: f32 = slopeX(plane, at), y: f32 = slopeY(plane, at, w);
  return x * x + y * y;
}

/** ln(σ + 0.3) becomes √(σ / most), 0..1. */
export function rootOfBlur(plane: usize, count: i32, most: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const sigma: f32 = exp1(f32.load(plane + i)) - 0.3;
    f32.store(plane + i, sqrt<f32>(max<f32>(0, min<f32>(1, sigma / most))));
  }
}
