// Pictures laid over and over without a visible repetition.
import { mixed, put } from './sample';
import { hash, unit } from './math';

/** Triangles to a picture's side: 2√3, after the paper. */
const GRID: f64 = 3.4641016151377544;

/**
 * Fills a tile with a picture (RGBA8, or 16 bits where `deep`) that repeats, mixed from three copies of it with offsets by chance for each corner of a grid of
 * triangles, so that no repetition is seen (Heitz & Neyret 2018). Mixing keeps the variance: mean + Σ w·(v − mean) / √Σ w² (Deliot & Heitz 2019, without their
 * transform of the histogram: it is exact for values spread like a Gaussian). The map is as in `sampleAffine`; `level` pictures of size w × h belong to one.
 */
export function sampleMixed(
  src: usize, w: i32, h: i32, deep: i32, dst: usize, stride: usize, tw: i32, th: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, red: f32, green: f32, blue: f32, seed: i32, mix: f32,
): void {
  const mean = f32x4.replace_lane(f32x4.replace_lane(f32x4.replace_lane(f32x4.splat(0), 0, red), 1, green), 2, blue);
  const low = f32x4.splat(0);
  const high = f32x4.splat(1);
  let at = dst;
  // Offsets of the three corners, which neighbours share.
  let ls = 0x7fffffff, lt = 0, lf = 0;
  let x1: f64 = 0, y1: f64 = 0, x2: f64 = 0, y2: f64 = 0, x3: f64 = 0, y3: f64 = 0;
  const kw = <f64>w / 64, kh = <f64>h / 64;
  for (let j = 0; j < th; j++)
    for (let i = 0; i < tw; i++, at += 4) {
      const x = a * (<f64>i + 0.5) + c * (<f64>j + 0.5) + e;
      const y = b * (<f64>i + 0.5) + d * (<f64>j + 0.5) + f;
      const u = (x / <f64>w) * GRID;
      const v = (y / <f64>h) * GRID;
      // To a lattice whose cells are two triangles each.
      const s = u - 0.57735027 * v;
      const t = 1.15470054 * v;
      const s0 = Math.floor(s);
      const t0 = Math.floor(t);
      const fs = <f32>(s - s0);
      const ft = <f32>(t - t0);
      const rest: f32 = 1 - fs - ft;
      const is = <i32>s0;
      const it = <i32>t0;
      const lower = rest > 0;
      const w1: f32 = lower ? rest : -rest;
      const w2: f32 = lower ? ft : 1 - fs;
      const w3: f32 = lower ? fs : 1 - ft;
      const flip = lower ? 0 : 1;
      if (is != ls || it != lt || flip != lf) {
        ls = is;
        lt = it;
        lf = flip;
        const k1 = corner(is + flip, it + flip), k2 = corner(is, it + 1), k3 = corner(is + 1, it);
        x1 = part(k1, seed) * kw;
        y1 = part(k1, seed + 1) * kh;
        x2 = part(k2, seed) * kw;
        y2 = part(k2, seed + 1) * kh;
        x3 = part(k3, seed) * kw;
        y3 = part(k3, seed + 1) * kh;
      }
      const p1 = read(src, w, h, deep, x + x1, y + y1);
      const p2 = read(src, w, h, deep, x + x2, y + y2);
      const p3 = read(src, w, h, deep, x + x3, y + y3);
      const gain: f32 = 1 / sqrt<f32>(w1 * w1 + w2 * w2 + w3 * w3);
      const sum = f32x4.add(
        f32x4.add(f32x4.mul(f32x4.sub(p1, mean), f32x4.splat(w1)), f32x4.mul(f32x4.sub(p2, mean), f32x4.splat(w2))),
        f32x4.mul(f32x4.sub(p3, mean), f32x4.splat(w3)),
      );
      let out = f32x4.pmax(low, f32x4.pmin(high, f32x4.add(mean, f32x4.mul(sum, f32x4.splat(gain)))));
      const alpha: f32 = w1 * f32x4.extract_lane(p1, 3) + w2 * f32x4.extract_lane(p2, 3) + w3 * f32x4.extract_lane(p3, 3);
      out = f32x4.replace_lane(out, 3, alpha);
      if (mix < 1) {
        let old = f32x4.splat(f32.load(at));
        old = f32x4.replace_lane(old, 1, f32.load(at + stride));
        old = f32x4.replace_lane(old, 2, f32.load(at + 2 * stride));
        old = f32x4.replace_lane(old, 3, f32.load(at + 3 * stride));
        out = mixed(old, out, mix);
      }
      put(at, stride, out);
    }
}

// @ts-ignore: decorator
@inline
function corner(s: i32, t: i32): i32 {
  return s * 73856093 + t * 19349663;
}

/** An offset by chance in 64ths of a side: whole pixels on nearly all levels, so that grain of a pixel's size is not softened. */
// @ts-ignore: decorator
@inline
function part(k: i32, seed: i32): f64 {
  return Math.floor(<f64>unit(hash(k, seed)) * 64);
}

/** Bilinear value at (x, y) of a picture that repeats, as lanes of r, g, b, a in 0..1. */
// @ts-ignore: decorator
@inline
function read(src: usize, w: i32, h: i32, deep: i32, x: f64, y: f64): v128 {
  const sx = x - 0.5, sy = y - 0.5;
  const fx0 = Math.floor(sx), fy0 = Math.floor(sy);
  const fx = f32x4.splat(<f32>(sx - fx0)), fy = f32x4.splat(<f32>(sy - fy0));
  // Without a division of whole numbers, which is slow.
  let x0 = <i32>(fx0 - Math.floor(fx0 / <f64>w) * <f64>w), y0 = <i32>(fy0 - Math.floor(fy0 / <f64>h) * <f64>h);
  if (x0 >= w) x0 = 0;
  if (y0 >= h) y0 = 0;
  const x1 = x0 + 1 == w ? 0 : x0 + 1, y1 = y0 + 1 == h ? 0 : y0 + 1;
  let a: v128, b: v128, c: v128, d: v128;
  let norm: f32;
  if (deep) {
    const r0 = src + (<usize>(y0 * w) << 3), r1 = src + (<usize>(y1 * w) << 3);
    const left = <usize>x0 << 3, right = <usize>x1 << 3;
    a = i32x4.extend_low_i16x8_u(v128.load64_zero(r0 + left));
    b = i32x4.extend_low_i16x8_u(v128.load64_zero(r0 + right));
    c = i32x4.extend_low_i16x8_u(v128.load64_zero(r1 + left));
    d = i32x4.extend_low_i16x8_u(v128.load64_zero(r1 + right));
    norm = <f32>(1.0 / 65535.0);
  } else {
    const r0 = src + (<usize>(y0 * w) << 2), r1 = src + (<usize>(y1 * w) << 2);
    const left = <usize>x0 << 2, right = <usize>x1 << 2;
    a = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + left)));
    b = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + right)));
    c = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + left)));
    d = i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + right)));
    norm = <f32>(1.0 / 255.0);
  }
  const fa = f32x4.convert_i32x4_u(a), fb = f32x4.convert_i32x4_u(b), fc = f32x4.convert_i32x4_u(c), fd = f32x4.convert_i32x4_u(d);
  const top = f32x4.add(fa, f32x4.mul(f32x4.sub(fb, fa), fx));
  const low = f32x4.add(fc, f32x4.mul(f32x4.sub(fd, fc), fx));
  return f32x4.mul(f32x4.add(top, f32x4.mul(f32x4.sub(low, top), fy)), f32x4.splat(norm));
}

/** Emboss (feConvolveMatrix of −gain and gain at either end of an offset): ½ + gain·(v(p − d/2) − v(p + d/2)), bilinear; edges wrap or extend. */
export function emboss(src: usize, dst: usize, w: i32, h: i32, dx: f32, dy: f32, gain: f32, wrap: i32): void {
  // Both places lie at the same part of a pixel everywhere.
  const back = floor<f32>(-0.5 * dx), on = floor<f32>(0.5 * dx);
  const up = floor<f32>(-0.5 * dy), down = floor<f32>(0.5 * dy);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const before = linear(src, w, h, i + <i32>back, j + <i32>up, -0.5 * dx - back, -0.5 * dy - up, wrap);
      const after = linear(src, w, h, i + <i32>on, j + <i32>down, 0.5 * dx - on, 0.5 * dy - down, wrap);
      f32.store(dst + (<usize>(j * w + i) << 2), 0.5 + gain * (before - after));
    }
}

// @ts-ignore: decorator
@inline
function placed(i: i32, n: i32, wrap: i32): i32 {
  if (!wrap) return max<i32>(0, min<i32>(n - 1, i));
  const r = i % n;
  return r < 0 ? r + n : r;
}

// @ts-ignore: decorator
@inline
function linear(src: usize, w: i32, h: i32, x0: i32, y0: i32, fx: f32, fy: f32, wrap: i32): f32 {
  const r0 = placed(y0, h, wrap) * w, r1 = placed(y0 + 1, h, wrap) * w;
  const c0 = placed(x0, w, wrap), c1 = placed(x0 + 1, w, wrap);
  const a: f32 = f32.load(src + (<usize>(r0 + c0) << 2)), b: f32 = f32.load(src + (<usize>(r0 + c1) << 2));
  const c: f32 = f32.load(src + (<usize>(r1 + c0) << 2)), d: f32 = f32.load(src + (<usize>(r1 + c1) << 2));
  return (a + (b - a) * fx) * (1 - fy) + (c + (d - c) * fx) * fy;
}
