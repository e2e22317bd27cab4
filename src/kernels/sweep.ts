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
  // As far as an edge can reach, whatever its noise.
  const most: f32 = 1.12 * wide + 0.5 * soft;
  const longest: f32 = half + 0.5 * wide + 0.5 * soft;
  const ey: f32 = abs<f32>(ty) * longest + abs<f32>(tx) * most;
  const y0 = max<i32>(0, <i32>floor<f32>(cy - ey)), y1 = min<i32>(h - 1, <i32>ceil<f32>(cy + ey));
  for (let y = y0; y <= y1; y++) {
    const py: f32 = <f32>y - cy;
    // Where this row lies in the band across the stroke and in the one along it.
    let from: f32 = -1e9, to: f32 = 1e9;
    if (abs<f32>(ty) > 1e-4) {
      const a: f32 = (py * tx - most) / ty, b: f32 = (py * tx + most) / ty;
      from = max<f32>(from, min<f32>(a, b));
      to = min<f32>(to, max<f32>(a, b));
    }
    if (abs<f32>(tx) > 1e-4) {
      const a: f32 = (-longest - py * ty) / tx, b: f32 = (longest - py * ty) / tx;
      from = max<f32>(from, min<f32>(a, b));
      to = min<f32>(to, max<f32>(a, b));
    }
    const x0 = max<i32>(0, <i32>floor<f32>(max<f32>(-1, cx + from))), x1 = min<i32>(w - 1, <i32>ceil<f32>(min<f32>(<f32>w, cx + to)));
    for (let x = x0; x <= x1; x++) {
      const at = plane + (<usize>(y * w + x) << 2);
      const there = f32.load(at);
      if (there >= 1) continue;
      const px: f32 = <f32>x - cx;
      const along: f32 = px * tx + py * ty;
      const across: f32 = py * tx - px * ty;
      const gone: f32 = clamp1((along + half) / (2 * half));
      const rim: f32 = clamp1(abs<f32>(across) / wide);
      const thin: f32 = dry * (0.35 + 0.65 * gone * gone + 0.5 * rim * rim);
      const lane: f32 = across / bristle;
      // Only near its ends or where bristles part does a place depend on its strand.
      const inside: f32 = half - 0.9 * wide - abs<f32>(along) - 0.5 * soft;
      const parts: bool = thin * 1.9 > 0.75;
      const strand: f32 = parts || inside < 0 ? noise(lane, 0.5, seed) : 0;
      let edge: f32 = 1;
      // Sides and ends are torn by broad and fine noise.
      if (abs<f32>(across) > 0.9 * wide - 0.5 * soft) {
        const side: f32 = wide * (0.9 + 0.22 * noise(along / (wide * 0.8), across > 0 ? 0.5 : 9.5, seed + 2)) - abs<f32>(across);
        edge = clamp1(side / soft + 0.5);
        if (edge <= 0) continue;
      }
      if (inside < 0) {
        const end: f32 = half - wide * (0.9 * noise(across / (wide * 0.35), along > 0 ? 0.5 : 7.5, seed + 3) + 0.5 * strand - 0.5) - abs<f32>(along);
        edge = min<f32>(edge, clamp1(end / soft + 0.5));
        if (edge <= 0) continue;
      }
      const fine: f32 = parts ? noise(lane, along / (27 * bristle), seed + 1) : 0;
      const alpha: f32 = parts ? edge * clamp1((1 - thin * (0.4 * strand + 0.6 * fine) * 1.9) * 4) : edge;
      if (alpha > there) f32.store(at, alpha);
    }
  }
}
