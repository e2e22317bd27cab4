// Noise for materials: gradient noise on rotated periodic lattices, cubic B-spline noise for narrow bands, Worley distances.
import { clamp1, hash, unit } from './math';

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

/**
 * dst += gain · noise over a w × h plane. Lattice coordinates of pixel (i, j) are (ax·X + ay·Y, bx·X + by·Y) with
 * X = (i + .5)·step, Y = (j + .5)·step.
 */
export function addNoise(
  dst: usize, w: i32, h: i32, step: f64, ax: f64, ay: f64, bx: f64, by: f64,
  n: i32, t: i32, px: i32, py: i32, seed: i32, gain: f32,
): void {
  const du = ax * step;
  const dv = bx * step;
  for (let j = 0; j < h; j++) {
    const y: f64 = (<f64>j + 0.5) * step;
    let u: f64 = ay * y + 0.5 * du;
    let v: f64 = by * y + 0.5 * dv;
    let ci: i32 = i32.MIN_VALUE;
    let cj: i32 = i32.MIN_VALUE;
    let base0 = 0;
    let base1 = 0;
    let x00: f32 = 0, y00: f32 = 0, x10: f32 = 0, y10: f32 = 0, x01: f32 = 0, y01: f32 = 0, x11: f32 = 0, y11: f32 = 0;
    let p = dst + ((<usize>j * <usize>w) << 2);
    for (let i = 0; i < w; i++) {
      const fu = Math.floor(u);
      const fv = Math.floor(v);
      const iu = <i32>fu;
      const iv = <i32>fv;
      if (iu != ci || iv != cj) {
        if (iv != cj && n > 0) {
          base0 = key(0, iv, n, t, 0, 0);
          base1 = key(0, iv + 1, n, t, 0, 0);
        }
        ci = iu;
        cj = iv;
        const h00 = hash(n > 0 ? near(iu + base0, n) : key(iu, iv, 0, 0, px, py), seed);
        const h10 = hash(n > 0 ? near(iu + 1 + base0, n) : key(iu + 1, iv, 0, 0, px, py), seed);
        const h01 = hash(n > 0 ? near(iu + base1, n) : key(iu, iv + 1, 0, 0, px, py), seed);
        const h11 = hash(n > 0 ? near(iu + 1 + base1, n) : key(iu + 1, iv + 1, 0, 0, px, py), seed);
        x00 = gx(h00); y00 = gy(h00);
        x10 = gx(h10); y10 = gy(h10);
        x01 = gx(h01); y01 = gy(h01);
        x11 = gx(h11); y11 = gy(h11);
      }
      const fx = <f32>(u - fu);
      const fy = <f32>(v - fv);
      const a = x00 * fx + y00 * fy;
      const b = x10 * (fx - 1) + y10 * fy;
      const c = x01 * fx + y01 * (fy - 1);
      const d = x11 * (fx - 1) + y11 * (fy - 1);
      const s = fade(fx);
      const top = a + (b - a) * s;
      f32.store(p, f32.load(p) + gain * (top + (c + (d - c) * s - top) * fade(fy)));
      p += 4;
      u += du;
      v += dv;
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
            last = iu;
            a = bell(base + modulo(iu - 1, px), seed);
            b = bell(base + modulo(iu, px), seed);
            c = bell(base + modulo(iu + 1, px), seed);
            d = bell(base + modulo(iu + 2, px), seed);
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
  for (let j = 0; j < h; j++) {
    for (let i = 0; i < w; i++) {
      const at = (<usize>(j * w + i)) << 2;
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
        for (let i = 0; i < w; i++) {
          const u = (<f32>i + 0.5) * <f32>sw / <f32>w - 0.5;
          const iu = <i32>floor<f32>(u);
          const t = u - <f32>iu;
          let a: f32 = 0, b: f32 = 0, c: f32 = 0, d: f32 = 0;
          if (iu >= 1 && iu + 2 < sw) {
            const p = from + (<usize>iu << 2);
            a = f32.load(p - 4); b = f32.load(p); c = f32.load(p + 4); d = f32.load(p + 8);
          } else {
            a = f32.load(from + (<usize>(wrap ? modulo(iu - 1, sw) : max<i32>(0, iu - 1)) << 2));
            b = f32.load(from + (<usize>(wrap ? modulo(iu, sw) : max<i32>(0, iu)) << 2));
            c = f32.load(from + (<usize>(wrap ? modulo(iu + 1, sw) : min<i32>(sw - 1, iu + 1)) << 2));
            d = f32.load(from + (<usize>(wrap ? modulo(iu + 2, sw) : min<i32>(sw - 1, iu + 2)) << 2));
          }
          f32.store(row + (<usize>i << 2), b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a))));
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
