// Sampling of RGBA8 pictures under a projective map: several reads along the longer side of each pixel's footprint, between two mip levels.
import { ln1 } from './math';
import { readDeep } from './deep';
import { put, readOne } from './sample';

/** The most reads along a footprint: enough for a wall that recedes eight times faster than it is wide. */
const PROBES: f64 = 8;

/** Value at (x, y) of the full size, read from one mip level. */
// @ts-ignore: decorator
@inline
function readLevel(src: usize, w: i32, h: i32, level: i32, x: f64, y: f64, edge: i32, deep: i32): v128 {
  for (let l = 0; l < level; l++) {
    src += (<usize>(w * h * (deep ? 8 : 4)) + 15) & ~15;
    w = (w + 1) >> 1;
    h = (h + 1) >> 1;
    x *= 0.5;
    y *= 0.5;
  }
  return deep ? readDeep(src, w, h, x, y, edge) : readOne(src, w, h, x, y, edge);
}

/**
 * Fills a planar tile: pixel (i, j) shows the picture at (m0·x + m1·y + m2, m3·x + m4·y + m5) / w, w = m6·x + m7·y + m8, where
 * (x, y) = (i + .5, j + .5) and the picture's levels follow one another as in `pictureAt`. Behind the horizon (w ≤ 0) it is clear. edge as in
 * `sampleAffine`. The footprint's axes are the singular values of the map's derivative (Heckbert 1989, §3.5).
 */
export function sampleInPerspective(
  src: usize, w: i32, h: i32, levels: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, edge: i32, deep: i32,
): void {
  let at = dst;
  for (let j = 0; j < th; j++) {
    const y = <f64>j + 0.5;
    for (let i = 0; i < tw; i++, at += 4) {
      const x = <f64>i + 0.5;
      const q = m6 * x + m7 * y + m8;
      if (q <= 1e-9) {
        put(at, stride, f32x4.splat(0));
        continue;
      }
      const k = 1 / q;
      const u = (m0 * x + m1 * y + m2) * k;
      const v = (m3 * x + m4 * y + m5) * k;
      const ux = (m0 - u * m6) * k;
      const vx = (m3 - v * m6) * k;
      const uy = (m1 - u * m7) * k;
      const vy = (m4 - v * m7) * k;
      let cover: f64 = 1;
      if (edge == 0) {
        const ex = min<f64>(u, <f64>w - u) / max<f64>(Math.sqrt(ux * ux + uy * uy), 1e-6);
        const ey = min<f64>(v, <f64>h - v) / max<f64>(Math.sqrt(vx * vx + vy * vy), 1e-6);
        cover = max<f64>(0, min<f64>(1, min<f64>(ex, ey) + 0.5));
        if (cover == 0) {
          put(at, stride, f32x4.splat(0));
          continue;
        }
      }
      const a = ux * ux + vx * vx;
      const b = uy * uy + vy * vy;
      const p = ux * uy + vx * vy;
      const half = (a - b) * 0.5;
      const spread = Math.sqrt(half * half + p * p);
      const major = Math.sqrt((a + b) * 0.5 + spread);
      const minor = Math.sqrt(max<f64>((a + b) * 0.5 - spread, 0));
      const n = max<f64>(1, min<f64>(PROBES, Math.ceil(major / max<f64>(minor, 1))));
      // As for affine maps a little sharper than the strict choice.
      const wanted = max<f64>(0, min<f64>(<f64>(levels - 1), <f64>ln1(<f32>max<f64>(minor, major / n)) * 1.4426950408889634 - 0.25));
      const level = <i32>Math.floor(wanted);
      const mix = <f32>(wanted - <f64>level);
      // The direction on the tile that is stretched most, carried to the picture.
      let dx = half + spread;
      let dy = p;
      if (Math.abs(dx) + Math.abs(dy) < 1e-12) {
        dx = half >= 0 ? 1 : 0;
        dy = half >= 0 ? 0 : 1;
      }
      const length = 1 / Math.sqrt(dx * dx + dy * dy);
      const du = (ux * dx + uy * dy) * length;
      const dv = (vx * dx + vy * dy) * length;
      let sum = f32x4.splat(0);
      for (let s: f64 = 0; s < n; s++) {
        const t = (s + 0.5) / n - 0.5;
        let value = readLevel(src, w, h, level, u + du * t, v + dv * t, edge, deep);
        if (mix > 0.01) {
          const next = readLevel(src, w, h, level + 1, u + du * t, v + dv * t, edge, deep);
          value = f32x4.add(f32x4.mul(value, f32x4.splat(1 - mix)), f32x4.mul(next, f32x4.splat(mix)));
        }
        sum = f32x4.add(sum, value);
      }
      sum = f32x4.mul(sum, f32x4.splat(<f32>(1 / n)));
      put(at, stride, f32x4.replace_lane(sum, 3, f32x4.extract_lane(sum, 3) * <f32>cover));
    }
  }
}
