// Broad strokes of a half-dry brush, as a mask.
import { clamp1 } from './math';

// @ts-ignore: decorator
@inline
function chance(x: i32, y: i32, seed: i32): f32 {
  let h = (x * 0x27d4eb2d) ^ (y * 0x165667b1) ^ (seed * 0x2c1b3c6d);
  h = (h ^ (h >>> 15)) * 0x2c1b3c6d;
  h = (h ^ (h >>> 12)) * 0x297a2d39;
  h ^= h >>> 15;
  return <f32>(h & 0xffffff) * <f32>(1.0 / 16777215.0);
}

/** Value noise, 0..1. */
// @ts-ignore: decorator
@inline
function noise(x: f32, y: f32, seed: i32): f32 {
  const i = <i32>floor<f32>(x), j = <i32>floor<f32>(y);
  const fx: f32 = x - <f32>i, fy: f32 = y - <f32>j;
  const u: f32 = fx * fx * (3 - 2 * fx), v: f32 = fy * fy * (3 - 2 * fy);
  const a = chance(i, j, seed), b = chance(i + 1, j, seed), c = chance(i, j + 1, seed), d = chance(i + 1, j + 1, seed);
  const top: f32 = a + (b - a) * u;
  return top + (c + (d - c) * u - top) * v;
}

/**
 * One broad stroke on a plane, where it is greater: from its middle (cx, cy) `half` pixels along (tx, ty) to both sides and `wide` to its sides, torn at
 * its sides and ends, with bristles of `bristle` pixels that run dry towards its end by `dry`, 0..1. `soft` is how many pixels an edge takes.
 */
export function sweep(
  plane: usize, w: i32, h: i32, cx: f32, cy: f32, tx: f32, ty: f32, half: f32, wide: f32, bristle: f32, dry: f32, soft: f32, seed: i32,
): void {
  const ex: f32 = abs<f32>(tx) * half * 1.1 + abs<f32>(ty) * wide * 1.2 + 2;
  const ey: f32 = abs<f32>(ty) * half * 1.1 + abs<f32>(tx) * wide * 1.2 + 2;
  const x0 = max<i32>(0, <i32>floor<f32>(cx - ex)), x1 = min<i32>(w - 1, <i32>ceil<f32>(cx + ex));
  const y0 = max<i32>(0, <i32>floor<f32>(cy - ey)), y1 = min<i32>(h - 1, <i32>ceil<f32>(cy + ey));
  for (let y = y0; y <= y1; y++)
    for (let x = x0; x <= x1; x++) {
      const px: f32 = <f32>x - cx, py: f32 = <f32>y - cy;
      const along: f32 = px * tx + py * ty;
      const across: f32 = py * tx - px * ty;
      const lane: f32 = across / bristle;
      const strand = noise(lane, 0.5, seed);
      const fine = noise(lane, along / (27 * bristle), seed + 1);
      // Sides and ends are torn by broad and fine noise.
      const side: f32 = wide * (0.9 + 0.22 * noise(along / (wide * 0.8), across > 0 ? 0.5 : 9.5, seed + 2)) - abs<f32>(across);
      const end: f32 = half - wide * (0.9 * noise(across / (wide * 0.35), along > 0 ? 0.5 : 7.5, seed + 3) + 0.5 * strand - 0.5) - abs<f32>(along);
      const edge: f32 = clamp1(min<f32>(side, end) / soft + 0.5);
      if (edge <= 0) continue;
      const gone: f32 = clamp1((along + half) / (2 * half));
      const rim: f32 = clamp1(abs<f32>(across) / wide);
      const thin: f32 = dry * (0.35 + 0.65 * gone * gone + 0.5 * rim * rim);
      const alpha: f32 = edge * clamp1((1 - thin * (0.4 * strand + 0.6 * fine) * 1.9) * 4);
      const at = plane + (<usize>(y * w + x) << 2);
      if (alpha > f32.load(at)) f32.store(at, alpha);
    }
}
