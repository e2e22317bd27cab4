// Noise for materials: gradient noise on rotated periodic lattices, cubic B-spline noise for narrow bands, Worley distances.
import { clamp1, hash, hash4, putSome, unit } from './math';

/** Gradient component in −1..1 from one half of a hash. */
// @ts-ignore: decorator
@inline
function gx(h: u32): f32 {
  return <f32>(h & 0xffff) * <f32>(2.0 / 65535.0) - 1;
}

// @ts-ignore: decorator
@inline
function gy(h: u32): f32 {
  return <f32>(h >>> 16) * <f32>(2.0 / 65535.0) - 1;
}

// @ts-ignore: decorator
@inline
function fade(t: f32): f32 {
  return t * t * t * (t * (t * 6 - 15) + 10);
}

// @ts-ignore: decorator
@inline
function modulo(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/** Lattice key: n > 0 folds a lattice turned by integers (a, b) with n = a² + b² onto itself (t·b ≡ −a mod n); px, py fold a straight one. */
// @ts-ignore: decorator
@inline
function key(i: i32, j: i32, n: i32, t: i32, px: i32, py: i32): i32 {
  if (n > 0) {
    const r = (<i64>modulo(j, n) * <i64>t + <i64>i) % <i64>n;
    return <i32>(r < 0 ? r + <i64>n : r);
  }
  const u = px > 0 ? modulo(i, px) : i;
  const v = py > 0 ? modulo(j, py) : j;
  return u * 0x3c6ef35f + v * 0x19660d;
}

/** k mod n where k is seldom far from 0..n: two comparisons instead of a division. */
// @ts-ignore: decorator
@inline
function near(k: i32, n: i32): i32 {
  if (k >= n) k -= n;
  else if (k < 0) k += n;
  return k >= 0 && k < n ? k : modulo(k, n);
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
 * dst += gain · noise over a w × h plane. Lattice coordinates of pixel (i, j) are (ax·X + ay·Y, bx·X + by·Y) with
 * X = (i + .5)·step, Y = (j + .5)·step. Four pixels at a time; the gradients of a cell are kept while pixels stay in it. Reads up to
 * three values beyond the plane.
 */
export function addNoise(
  dst: usize, w: i32, h: i32, step: f64, ax: f64, ay: f64, bx: f64, by: f64,
  n: i32, t: i32, px: i32, py: i32, seed: i32, gain: f32,
): void {
  const du = ax * step;
  const dv = bx * step;
  const one = f32x4.splat(1);
  const zero = i32x4.splat(0);
  let x00 = zero, y00 = zero, x10 = zero, y10 = zero, x01 = zero, y01 = zero, x11 = zero, y11 = zero;
  for (let j = 0; j < h; j++) {
    const y: f64 = (<f64>j + 0.5) * step;
    let u: f64 = ay * y + 0.5 * du;
    let v: f64 = by * y + 0.5 * dv;
    let cellU = f64x2.splat(1e300);
    let cellV = cellU;
    let p = dst + ((<usize>j * <usize>w) << 2);
    for (let i = 0; i < w; i += 4) {
      const u01 = f64x2.add(f64x2.splat(u), f64x2.mul(f64x2.splat(du), f64x2(0, 1)));
      const u23 = f64x2.add(f64x2.splat(u), f64x2.mul(f64x2.splat(du), f64x2(2, 3)));
      const v01 = f64x2.add(f64x2.splat(v), f64x2.mul(f64x2.splat(dv), f64x2(0, 1)));
      const v23 = f64x2.add(f64x2.splat(v), f64x2.mul(f64x2.splat(dv), f64x2(2, 3)));
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
      u += 4 * du;
      v += 4 * dv;
    }
  }
}

/** Sum of twelve uniforms would be slow; four give a bell that is near enough to Gaussian for a blurred field. Variance 1. */
// @ts-ignore: decorator
@inline
function bell(k: i32, seed: i32): f32 {
  const a = hash(k, seed);
  const b = hash(k, seed ^ 0x5bd1e995);
  const sum = <f32>(a & 0xffff) + <f32>(a >>> 16) + <f32>(b & 0xffff) + <f32>(b >>> 16);
  return (sum * <f32>(1.0 / 65535.0) - 2) * 1.7320508;
}

/**
 * dst += gain · white noise of unit variance on a lattice of nx × ny cells over the plane, shaped by a cubic B-spline (a close
 * stand-in for a Gaussian of 0.577 cells), periodic. `rows` is scratch for 4·w floats.
 */
export function addSpline(dst: usize, w: i32, h: i32, nx: f32, ny: f32, px: i32, py: i32, seed: i32, gain: f32, rows: usize): void {
  let have: i32 = i32.MIN_VALUE;
  for (let j = 0; j < h; j++) {
    const v = (<f32>j + 0.5) * ny / <f32>h;
    const jv = <i32>floor<f32>(v);
    const f = v - <f32>jv;
    if (jv != have) {
      for (let k = 0; k < 4; k++) {
        const lattice = jv - 1 + k;
        // A row already held in the ring is kept: slot = lattice row modulo 4.
        if (have != i32.MIN_VALUE && lattice <= have + 2 && lattice >= have - 1) continue;
        const row = rows + ((<usize>(modulo(lattice, 4) * w)) << 2);
        const base = modulo(lattice, py) * 0x2545f49;
        let last: i32 = i32.MIN_VALUE;
        let a: f32 = 0, b: f32 = 0, c: f32 = 0, d: f32 = 0;
        for (let i = 0; i < w; i++) {
          const u = (<f32>i + 0.5) * nx / <f32>w;
          const iu = <i32>floor<f32>(u);
          if (iu != last) {
            if (iu == last + 1) {
              a = b; b = c; c = d;
            } else {
              a = bell(base + modulo(iu - 1, px), seed);
              b = bell(base + modulo(iu, px), seed);
              c = bell(base + modulo(iu + 1, px), seed);
            }
            d = bell(base + modulo(iu + 2, px), seed);
            last = iu;
          }
          const t = u - <f32>iu;
          const o: f32 = 1 - t;
          const t2 = t * t;
          f32.store(row + (<usize>i << 2),
            (o * o * o * a + (3 * t2 * t - 6 * t2 + 4) * b + (3 * o * o * o - 6 * o * o + 4) * c + t2 * t * d) * <f32>(1.0 / 6.0));
        }
      }
      have = jv;
    }
    const o: f32 = 1 - f;
    const f2 = f * f;
    const k0 = f32x4.splat(o * o * o * gain / 6);
    const k1 = f32x4.splat((3 * f2 * f - 6 * f2 + 4) * gain / 6);
    const k2 = f32x4.splat((3 * o * o * o - 6 * o * o + 4) * gain / 6);
    const k3 = f32x4.splat(f2 * f * gain / 6);
    const r0 = rows + ((<usize>(modulo(jv - 1, 4) * w)) << 2);
    const r1 = rows + ((<usize>(modulo(jv, 4) * w)) << 2);
    const r2 = rows + ((<usize>(modulo(jv + 1, 4) * w)) << 2);
    const r3 = rows + ((<usize>(modulo(jv + 2, 4) * w)) << 2);
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) {
      const s = f32x4.add(
        f32x4.add(f32x4.mul(k0, v128.load(r0 + i)), f32x4.mul(k1, v128.load(r1 + i))),
        f32x4.add(f32x4.mul(k2, v128.load(r2 + i)), f32x4.mul(k3, v128.load(r3 + i))),
      );
      v128.store(out + i, f32x4.add(v128.load(out + i), s));
    }
  }
}

/**
 * Worley 1996: distances to the nearest points of a jittered periodic lattice turned by integers (a, b); `cache` is scratch for 168 bytes. Reads warp planes
 * (fractions of the long side) and writes F1, F2, F3 in cells. `sx` stretches the metric along the lattice's first axis.
 */
export function worley(
  f1: usize, f2: usize, f3: usize, w: i32, h: i32, step: f32, a: f32, b: f32, n: i32, t: i32, sx: f32, seed: i32, wx: usize, wy: usize, cache: usize,
): void {
  let ci: i32 = i32.MIN_VALUE;
  let cj: i32 = i32.MIN_VALUE;
  const ramp = f32x4(0.5, 1.5, 2.5, 3.5);
  const wide = f32x4.splat(sx);
  for (let j = 0; j < h; j++) {
    for (let i = 0; i < w; i++) {
      const at = (<usize>(j * w + i)) << 2;
      if (i + 4 <= w && ci != i32.MIN_VALUE) {
        // Four pixels of the cell whose points are at hand.
        const x4 = f32x4.add(f32x4.mul(f32x4.add(f32x4.splat(<f32>i), ramp), f32x4.splat(step)), v128.load(wx + at));
        const y4 = f32x4.add(f32x4.splat((<f32>j + 0.5) * step), v128.load(wy + at));
        const u4 = f32x4.sub(f32x4.mul(f32x4.splat(a), x4), f32x4.mul(f32x4.splat(b), y4));
        const v4 = f32x4.add(f32x4.mul(f32x4.splat(b), x4), f32x4.mul(f32x4.splat(a), y4));
        if (i32x4.all_true(v128.and(f32x4.eq(f32x4.floor(u4), f32x4.splat(<f32>ci)), f32x4.eq(f32x4.floor(v4), f32x4.splat(<f32>cj))))) {
          let n1 = f32x4.splat(1e9), n2 = n1, n3 = n1;
          for (let c = cache, end = cache + 168; c < end; c += 8) {
            const du = f32x4.mul(f32x4.sub(v128.load32_splat(c), u4), wide);
            const dv = f32x4.sub(v128.load32_splat(c + 4), v4);
            const d = f32x4.add(f32x4.mul(du, du), f32x4.mul(dv, dv));
            n3 = f32x4.pmin(n3, f32x4.pmax(n2, d));
            n2 = f32x4.pmin(n2, f32x4.pmax(n1, d));
            n1 = f32x4.pmin(n1, d);
          }
          v128.store(f1 + at, f32x4.sqrt(n1));
          v128.store(f2 + at, f32x4.sqrt(n2));
          v128.store(f3 + at, f32x4.sqrt(n3));
          i += 3;
          continue;
        }
      }
      const x = (<f32>i + 0.5) * step + f32.load(wx + at);
      const y = (<f32>j + 0.5) * step + f32.load(wy + at);
      const u = a * x - b * y;
      const v = b * x + a * y;
      const iu = <i32>floor<f32>(u);
      const iv = <i32>floor<f32>(v);
      if (iu != ci || iv != cj) {
        // The 21 points that can be among the nearest three, kept while pixels stay in one cell.
        ci = iu;
        cj = iv;
        let c = cache;
        for (let q = -2; q <= 2; q++) {
          const base = key(0, iv + q, n, t, 0, 0);
          for (let p = -2; p <= 2; p++) {
            if (p * p + q * q > 5) continue;
            const k = hash(near(iu + p + base, n), seed);
            f32.store(c, <f32>(iu + p) + gx(k) * 0.5 + 0.5);
            f32.store(c + 4, <f32>(iv + q) + gy(k) * 0.5 + 0.5);
            c += 8;
          }
        }
      }
      let d1: f32 = 1e9, d2: f32 = 1e9, d3: f32 = 1e9;
      for (let c = cache, end = cache + 168; c < end; c += 8) {
        const du = (f32.load(c) - u) * sx;
        const dv = f32.load(c + 4) - v;
        const d = du * du + dv * dv;
        if (d < d3) {
          if (d < d1) { d3 = d2; d2 = d1; d1 = d; }
          else if (d < d2) { d3 = d2; d2 = d; }
          else d3 = d;
        }
      }
      f32.store(f1 + at, sqrt<f32>(d1));
      f32.store(f2 + at, sqrt<f32>(d2));
      f32.store(f3 + at, sqrt<f32>(d3));
    }
  }
}

/** Uniform white noise per pixel in −1..1 with a triangular distribution, added with `gain`. */
export function addWhite(dst: usize, count: i32, seed: i32, gain: f32): void {
  for (let i = 0; i < count; i++) {
    const k = hash(i, seed);
    const p = dst + (<usize>i << 2);
    f32.store(p, f32.load(p) + gain * (<f32>(k & 0xffff) + <f32>(k >>> 16) - 65535) * <f32>(1.0 / 65535.0));
  }
}

/** Catmull–Rom a quarter of the way from b to c. */
// @ts-ignore: decorator
@inline
function quarter(a: v128, b: v128, c: v128, d: v128): v128 {
  // t = 1/4: weights −9, 111, 29, −3 in 1/128.
  return f32x4.mul(
    f32x4.add(
      f32x4.add(f32x4.mul(a, f32x4.splat(-9)), f32x4.mul(b, f32x4.splat(111))),
      f32x4.add(f32x4.mul(c, f32x4.splat(29)), f32x4.mul(d, f32x4.splat(-3))),
    ),
    f32x4.splat(1.0 / 128.0),
  );
}

/** The four values two to the left of pixels 1 to 4 of a row, whose values one to the left are given. */
// @ts-ignore: decorator
@inline
function before(from: usize, sw: i32, m: v128, wrap: i32): v128 {
  const first = f32.load(wrap ? from + (<usize>(sw - 1) << 2) : from);
  return f32x4.replace_lane(i32x4.shuffle(m, m, 0, 0, 1, 2), 0, first);
}

/** One pixel of a row widened from sw to w pixels by Catmull–Rom. */
function widen(from: usize, sw: i32, row: usize, w: i32, i: i32, wrap: i32): void {
  const u = (<f32>i + 0.5) * <f32>sw / <f32>w - 0.5;
  const iu = <i32>floor<f32>(u);
  const t = u - <f32>iu;
  const last = sw - 1;
  const a = f32.load(from + (<usize>(wrap ? modulo(iu - 1, sw) : max<i32>(0, iu - 1)) << 2));
  const b = f32.load(from + (<usize>(wrap ? modulo(iu, sw) : max<i32>(0, iu)) << 2));
  const c = f32.load(from + (<usize>(wrap ? modulo(iu + 1, sw) : min<i32>(last, iu + 1)) << 2));
  const d = f32.load(from + (<usize>(wrap ? modulo(iu + 2, sw) : min<i32>(last, iu + 2)) << 2));
  f32.store(row + (<usize>i << 2), b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a))));
}

/** Catmull–Rom enlargement of a periodic or clamped plane, for fields whose finest octave a smaller plane already holds. */
export function enlarge(src: usize, sw: i32, sh: i32, dst: usize, w: i32, h: i32, wrap: i32, rows: usize): void {
  // Rows are widened once each into a ring of four, then mixed downwards.
  let have: i32 = i32.MIN_VALUE;
  for (let j = 0; j < h; j++) {
    const v = (<f32>j + 0.5) * <f32>sh / <f32>h - 0.5;
    const jv = <i32>floor<f32>(v);
    const f = v - <f32>jv;
    if (jv != have) {
      for (let k = -1; k < 3; k++) {
        const r = jv + k;
        if (have != i32.MIN_VALUE && r <= have + 2 && r >= have - 1) continue;
        const row = rows + ((<usize>(modulo(r, 4) * w)) << 2);
        const from = src + ((<usize>((wrap ? modulo(r, sh) : max<i32>(0, min<i32>(sh - 1, r))) * sw)) << 2);
        // Four source pixels away from the ends become eight at a time: doubling has but two sets of weights.
        const from4 = w == 2 * sw && sw > 8 ? 1 : 0;
        const to4 = from4 ? 1 + ((sw - 3) & ~3) : 0;
        if (from4) {
          for (let q = from4; q < to4; q += 4) {
            const at = from + (<usize>q << 2);
            const m = v128.load(at - 4);
            const c = v128.load(at);
            const n = v128.load(at + 4);
            // Pixel 2q lies a quarter before q, pixel 2q + 1 a quarter after.
            const even = quarter(v128.load(at + 4), c, m, q > 1 ? v128.load(at - 8) : before(from, sw, m, wrap));
            const odd = quarter(m, c, n, v128.load(at + 8));
            const out = row + (<usize>q << 3);
            v128.store(out, i32x4.shuffle(even, odd, 0, 4, 1, 5));
            v128.store(out + 16, i32x4.shuffle(even, odd, 2, 6, 3, 7));
          }
        }
        for (let i = 0; i < w; i++) {
          if (i == 2 * from4 && from4) i = 2 * to4;
          widen(from, sw, row, w, i, wrap);
        }
      }
      have = jv;
    }
    const r0 = rows + ((<usize>(modulo(jv - 1, 4) * w)) << 2);
    const r1 = rows + ((<usize>(modulo(jv, 4) * w)) << 2);
    const r2 = rows + ((<usize>(modulo(jv + 1, 4) * w)) << 2);
    const r3 = rows + ((<usize>(modulo(jv + 2, 4) * w)) << 2);
    const k0 = f32x4.splat(0.5 * f * (-1 + f * (2 - f)));
    const k1 = f32x4.splat(1 + 0.5 * f * f * (3 * f - 5));
    const k2 = f32x4.splat(0.5 * f * (1 + f * (4 - 3 * f)));
    const k3 = f32x4.splat(0.5 * f * f * (f - 1));
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) {
      v128.store(out + i, f32x4.add(
        f32x4.add(f32x4.mul(k0, v128.load(r0 + i)), f32x4.mul(k1, v128.load(r1 + i))),
        f32x4.add(f32x4.mul(k2, v128.load(r2 + i)), f32x4.mul(k3, v128.load(r3 + i))),
      ));
    }
  }
}

export function unitHash(k: i32, seed: i32): f32 {
  return clamp1(unit(hash(k, seed)));
}
