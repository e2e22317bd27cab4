// Gradient noise for materials on rotated periodic lattices, and white noise.
import { gx, gy, key, modulo } from './lattice';
import { hash, hash4, putSome } from './math';

// @ts-ignore: decorator
@inline
function fade(t: f32): f32 {
  return t * t * t * (t * (t * 6 - 15) + 10);
}

/** Gradient noise after Perlin 2002 (quintic fade) with free gradients at (x, y), unwrapped; standard deviation about 0.3. */
export function noiseAt(x: f32, y: f32, seed: i32): f32 {
  const i = <i32>floor<f32>(x);
  const j = <i32>floor<f32>(y);
  const fx = x - <f32>i;
  const fy = y - <f32>j;
  const h00 = hash(key(i, j, 0, 0, 0, 0), seed);
  const h10 = hash(key(i + 1, j, 0, 0, 0, 0), seed);
  const h01 = hash(key(i, j + 1, 0, 0, 0, 0), seed);
  const h11 = hash(key(i + 1, j + 1, 0, 0, 0, 0), seed);
  const a = gx(h00) * fx + gy(h00) * fy;
  const b = gx(h10) * (fx - 1) + gy(h10) * fy;
  const c = gx(h01) * fx + gy(h01) * (fy - 1);
  const d = gx(h11) * (fx - 1) + gy(h11) * (fy - 1);
  const u = fade(fx);
  const top = a + (b - a) * u;
  return top + (c + (d - c) * u - top) * fade(fy);
}

/** 1-D gradient noise, standard deviation about 0.45 (×3.2), repeating after `period` cells when that is positive. */
export function line(x: f32, seed: i32, period: i32): f32 {
  const i = <i32>floor<f32>(x);
  const f = x - <f32>i;
  const a = gx(hash(period > 0 ? modulo(i, period) : i, seed));
  const b = gx(hash(period > 0 ? modulo(i + 1, period) : i + 1, seed));
  return (a * f + (b * (f - 1) - a * f) * fade(f)) * 3.2 * 0.55;
}

/** Whole numbers of two pairs of doubles as four integers: the low bits of x + 1.5 · 2⁵². */
// @ts-ignore: decorator
@inline
function integers(low: v128, high: v128): v128 {
  const magic = f64x2.splat(6755399441055744);
  return i32x4.shuffle(f64x2.add(low, magic), f64x2.add(high, magic), 0, 2, 4, 6);
}

/** x mod n for whole x, exact, always 0..n−1. */
// @ts-ignore: decorator
@inline
function floorModulo(x: v128, n: f64): v128 {
  // Half a unit keeps the quotient off whole numbers, where rounding could take the floor one too low.
  const q = f64x2.floor(f64x2.mul(f64x2.add(x, f64x2.splat(0.5)), f64x2.splat(1 / n)));
  return f64x2.sub(x, f64x2.mul(q, f64x2.splat(n)));
}

// @ts-ignore: decorator
@inline
function fold(k: v128, n: v128): v128 {
  return i32x4.sub(k, v128.and(n, i32x4.ge_s(k, n)));
}

// @ts-ignore: decorator
@inline
function fade4(t: v128): v128 {
  const inner = f32x4.add(f32x4.mul(t, f32x4.sub(f32x4.mul(t, f32x4.splat(6)), f32x4.splat(15))), f32x4.splat(10));
  return f32x4.mul(f32x4.mul(f32x4.mul(t, t), t), inner);
}

// @ts-ignore: decorator
@inline
function gx4(h: v128): v128 {
  return f32x4.sub(f32x4.mul(f32x4.convert_i32x4_s(v128.and(h, i32x4.splat(0xffff))), f32x4.splat(2.0 / 65535.0)), f32x4.splat(1));
}

// @ts-ignore: decorator
@inline
function gy4(h: v128): v128 {
  return f32x4.sub(f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(h, 16)), f32x4.splat(2.0 / 65535.0)), f32x4.splat(1));
}

// @ts-ignore: decorator
@inline
function last(v: v128): v128 {
  return i32x4.shuffle(v, v, 3, 3, 3, 3);
}

/**
 * dst += gain · noise over a w × h plane whose first pixel is (x0, y0) of a sheet. Lattice coordinates of pixel (i, j) of the sheet are
 * (ax·X + ay·Y, bx·X + by·Y) with X = (i + .5)·step, Y = (j + .5)·step: they do not depend on where the plane begins. Four pixels at a time; the gradients of a cell are kept while pixels stay in it. Reads up to
 * three values beyond the plane.
 */
export function addNoise(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, step: f64, ax: f64, ay: f64, bx: f64, by: f64,
  n: i32, t: i32, px: i32, py: i32, seed: i32, gain: f32,
): void {
  const du = ax * step;
  const dv = bx * step;
  const one = f32x4.splat(1);
  const zero = i32x4.splat(0);
  let x00 = zero, y00 = zero, x10 = zero, y10 = zero, x01 = zero, y01 = zero, x11 = zero, y11 = zero;
  for (let j = 0; j < h; j++) {
    const y: f64 = (<f64>(y0 + j) + 0.5) * step;
    const rowU = f64x2.splat(ay * y);
    const rowV = f64x2.splat(by * y);
    let cellU = f64x2.splat(1e300);
    let cellV = cellU;
    let p = dst + ((<usize>j * <usize>w) << 2);
    for (let i = 0; i < w; i += 4) {
      const i01 = f64x2.add(f64x2.splat(<f64>(x0 + i)), f64x2(0.5, 1.5));
      const i23 = f64x2.add(i01, f64x2.splat(2));
      const u01 = f64x2.add(rowU, f64x2.mul(f64x2.splat(du), i01));
      const u23 = f64x2.add(rowU, f64x2.mul(f64x2.splat(du), i23));
      const v01 = f64x2.add(rowV, f64x2.mul(f64x2.splat(dv), i01));
      const v23 = f64x2.add(rowV, f64x2.mul(f64x2.splat(dv), i23));
      const iu01 = f64x2.floor(u01);
      const iu23 = f64x2.floor(u23);
      const iv01 = f64x2.floor(v01);
      const iv23 = f64x2.floor(v23);
      const same = i64x2.all_true(v128.and(
        v128.and(f64x2.eq(iu01, cellU), f64x2.eq(iu23, cellU)),
        v128.and(f64x2.eq(iv01, cellV), f64x2.eq(iv23, cellV)),
      ));
      if (!same) {
        let k00 = zero, k10 = zero, k01 = zero, k11 = zero;
        if (n > 0) {
          const period = <f64>n;
          const turn = f64x2.splat(<f64>t);
          const size = i32x4.splat(n);
          const along = i32x4.splat(t);
          k00 = integers(floorModulo(f64x2.add(iu01, f64x2.mul(iv01, turn)), period), floorModulo(f64x2.add(iu23, f64x2.mul(iv23, turn)), period));
          k10 = fold(i32x4.add(k00, i32x4.splat(1)), size);
          k01 = fold(i32x4.add(k00, along), size);
          k11 = fold(i32x4.add(k10, along), size);
        } else {
          const a0 = px > 0 ? integers(floorModulo(iu01, <f64>px), floorModulo(iu23, <f64>px)) : integers(iu01, iu23);
          const b0 = py > 0 ? integers(floorModulo(iv01, <f64>py), floorModulo(iv23, <f64>py)) : integers(iv01, iv23);
          let a1 = i32x4.add(a0, i32x4.splat(1));
          let b1 = i32x4.add(b0, i32x4.splat(1));
          if (px > 0) a1 = fold(a1, i32x4.splat(px));
          if (py > 0) b1 = fold(b1, i32x4.splat(py));
          const left = i32x4.mul(a0, i32x4.splat(0x3c6ef35f));
          const right = i32x4.mul(a1, i32x4.splat(0x3c6ef35f));
          const upper = i32x4.mul(b0, i32x4.splat(0x19660d));
          const lower = i32x4.mul(b1, i32x4.splat(0x19660d));
          k00 = i32x4.add(left, upper);
          k10 = i32x4.add(right, upper);
          k01 = i32x4.add(left, lower);
          k11 = i32x4.add(right, lower);
        }
        const h00 = hash4(k00, seed);
        const h10 = hash4(k10, seed);
        const h01 = hash4(k01, seed);
        const h11 = hash4(k11, seed);
        x00 = gx4(h00); y00 = gy4(h00);
        x10 = gx4(h10); y10 = gy4(h10);
        x01 = gx4(h01); y01 = gy4(h01);
        x11 = gx4(h11); y11 = gy4(h11);
      }
      const fx = i64x2.shuffle(f32x4.demote_f64x2_zero(f64x2.sub(u01, iu01)), f32x4.demote_f64x2_zero(f64x2.sub(u23, iu23)), 0, 2);
      const fy = i64x2.shuffle(f32x4.demote_f64x2_zero(f64x2.sub(v01, iv01)), f32x4.demote_f64x2_zero(f64x2.sub(v23, iv23)), 0, 2);
      const gx1 = f32x4.sub(fx, one);
      const gy1 = f32x4.sub(fy, one);
      const a = f32x4.add(f32x4.mul(x00, fx), f32x4.mul(y00, fy));
      const b = f32x4.add(f32x4.mul(x10, gx1), f32x4.mul(y10, fy));
      const c = f32x4.add(f32x4.mul(x01, fx), f32x4.mul(y01, gy1));
      const d = f32x4.add(f32x4.mul(x11, gx1), f32x4.mul(y11, gy1));
      const s = fade4(fx);
      const top = f32x4.add(a, f32x4.mul(f32x4.sub(b, a), s));
      const bottom = f32x4.add(c, f32x4.mul(f32x4.sub(d, c), s));
      const value = f32x4.add(top, f32x4.mul(f32x4.sub(bottom, top), fade4(fy)));
      putSome(p, f32x4.add(v128.load(p), f32x4.mul(f32x4.splat(gain), value)), w - i);
      if (!same) {
        // The next four most likely start in the cell of the last.
        cellU = f64x2.splat(f64x2.extract_lane(iu23, 1));
        cellV = f64x2.splat(f64x2.extract_lane(iv23, 1));
        x00 = last(x00); y00 = last(y00);
        x10 = last(x10); y10 = last(y10);
        x01 = last(x01); y01 = last(y01);
        x11 = last(x11); y11 = last(y11);
      }
      p += 16;
    }
  }
}
