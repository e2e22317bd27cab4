// Sampling of RGBA8 pictures into planar f32 tiles: bilinear under an affine map, and exact area means.
import { whole4 } from './math';

/** One interleaved RGBA8 pixel as four f32 lanes in 0..255. */
// @ts-ignore: decorator
@inline
function pixel(p: usize): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p))));
}

// @ts-ignore: decorator
@inline
export function put(dst: usize, stride: usize, v: v128): void {
  f32.store(dst, f32x4.extract_lane(v, 0));
  f32.store(dst + stride, f32x4.extract_lane(v, 1));
  f32.store(dst + 2 * stride, f32x4.extract_lane(v, 2));
  f32.store(dst + 3 * stride, f32x4.extract_lane(v, 3));
}

/** new·mix + old·(1 − mix). */
// @ts-ignore: decorator
@inline
export function mixed(old: v128, v: v128, mix: f32): v128 {
  return f32x4.add(f32x4.mul(old, f32x4.splat(1 - mix)), f32x4.mul(v, f32x4.splat(mix)));
}

/** Four pixels as lanes of r, g, b, a to four places in a row of each plane; `mix` below 1 blends into what is there. */
// @ts-ignore: decorator
@inline
function putFour(dst: usize, stride: usize, p0: v128, p1: v128, p2: v128, p3: v128, mix: f32): void {
  const low01 = i32x4.shuffle(p0, p1, 0, 4, 1, 5);
  const low23 = i32x4.shuffle(p2, p3, 0, 4, 1, 5);
  const high01 = i32x4.shuffle(p0, p1, 2, 6, 3, 7);
  const high23 = i32x4.shuffle(p2, p3, 2, 6, 3, 7);
  let r = i64x2.shuffle(low01, low23, 0, 2);
  let g = i64x2.shuffle(low01, low23, 1, 3);
  let b = i64x2.shuffle(high01, high23, 0, 2);
  let a = i64x2.shuffle(high01, high23, 1, 3);
  if (mix < 1) {
    r = mixed(v128.load(dst), r, mix);
    g = mixed(v128.load(dst + stride), g, mix);
    b = mixed(v128.load(dst + 2 * stride), b, mix);
    a = mixed(v128.load(dst + 3 * stride), a, mix);
  }
  v128.store(dst, r);
  v128.store(dst + stride, g);
  v128.store(dst + 2 * stride, b);
  v128.store(dst + 3 * stride, a);
}

// @ts-ignore: decorator
@inline
function within(i: i32, size: i32): i32 {
  return max<i32>(0, min<i32>(size - 1, i));
}

// @ts-ignore: decorator
@inline
function wrapped(i: i32, size: i32): i32 {
  const r = i % size;
  return r < 0 ? r + size : r;
}

/** Row or column of the picture that place i shows: 1 wraps, 3 mirrors every other one, else the nearest. */
// @ts-ignore: decorator
@inline
export function shownAt(i: i32, size: i32, edge: i32): i32 {
  if (edge == 1) return wrapped(i, size);
  if (edge != 3) return within(i, size);
  const r = wrapped(i, size << 1);
  return r < size ? r : (size << 1) - 1 - r;
}

/**
 * Bilinear value of four pixels: `upper` and `lower` hold two RGBA8 pixels side by side in their low half, `across` the two
 * weights across in 1/16384 (packed in each 32-bit lane, the left one low), `down` the weight of the lower row times `norm`,
 * `up` that of the upper one. Across in integers: half the work of four floats, and 0.01 of a level exact.
 */
// @ts-ignore: decorator
@inline
function bilinear(upper: v128, lower: v128, across: v128, up: v128, down: v128): v128 {
  const zero = i32x4.splat(0);
  const top = i32x4.dot_i16x8_s(i8x16.shuffle(upper, zero, 0, 16, 4, 16, 1, 16, 5, 16, 2, 16, 6, 16, 3, 16, 7, 16), across);
  const bottom = i32x4.dot_i16x8_s(i8x16.shuffle(lower, zero, 0, 16, 4, 16, 1, 16, 5, 16, 2, 16, 6, 16, 3, 16, 7, 16), across);
  return f32x4.add(f32x4.mul(f32x4.convert_i32x4_s(top), up), f32x4.mul(f32x4.convert_i32x4_s(bottom), down));
}

/** Weights across for fractions fx in 0..1: 16384 − n in the low half of a lane, n in the high one. */
// @ts-ignore: decorator
@inline
function weights(fx: v128): v128 {
  const n = whole4(f32x4.mul(fx, f32x4.splat(16384)));
  return v128.or(i32x4.shl(n, 16), i32x4.sub(i32x4.splat(16384), n));
}

/** 1 / (255 · 16384): from bytes times weights to 0..1. */
// @ts-ignore: decorator
@inline
function norm4(): v128 {
  return f32x4.splat(<f32>(1.0 / (255.0 * 16384.0)));
}

/** Bilinear value at (x, y) of a picture as lanes of r, g, b, a, edges minded. */
// @ts-ignore: decorator
@inline
export function readOne(src: usize, w: i32, h: i32, x: f64, y: f64, edge: i32): v128 {
  const norm = norm4();
  const pitch = <usize>w << 2;
  const sx = x - 0.5;
  const sy = y - 0.5;
  const x0 = <i32>Math.floor(sx);
  const y0 = <i32>Math.floor(sy);
  const xa = shownAt(x0, w, edge);
  const xb = shownAt(x0 + 1, w, edge);
  const ya = shownAt(y0, h, edge);
  const yb = shownAt(y0 + 1, h, edge);
  const r0 = src + <usize>ya * pitch;
  const r1 = src + <usize>yb * pitch;
  const down = f32x4.mul(f32x4.splat(<f32>(sy - <f64>y0)), norm);
  return bilinear(
    v128.load32_lane(r0 + (<usize>xb << 2), v128.load32_zero(r0 + (<usize>xa << 2)), 1),
    v128.load32_lane(r1 + (<usize>xb << 2), v128.load32_zero(r1 + (<usize>xa << 2)), 1),
    weights(f32x4.splat(<f32>(sx - <f64>x0))), f32x4.sub(norm, down), down,
  );
}

/** One pixel of `sampleAffine` at (x, y) of the picture. */
function sampleOne(src: usize, w: i32, h: i32, at: usize, stride: usize, x: f64, y: f64, soft: f64, edge: i32, mix: f32): void {
  let v = readOne(src, w, h, x, y, edge);
  if (edge == 0) {
    const ex = min<f64>(x, <f64>w - x);
    const ey = min<f64>(y, <f64>h - y);
    const cover = <f32>max<f64>(0, min<f64>(1, min<f64>(ex, ey) / soft + 0.5));
    v = f32x4.replace_lane(v, 3, f32x4.extract_lane(v, 3) * cover);
  }
  if (mix < 1) {
    let old = f32x4.splat(f32.load(at));
    old = f32x4.replace_lane(old, 1, f32.load(at + stride));
    old = f32x4.replace_lane(old, 2, f32.load(at + 2 * stride));
    old = f32x4.replace_lane(old, 3, f32.load(at + 3 * stride));
    v = mixed(old, v, mix);
  }
  put(at, stride, v);
}

/** First i ≥ 0 at which k·i + start > low and < high hold from there on (`last` false), or one beyond the last such i. */
// @ts-ignore: decorator
@inline
function bound(k: f64, start: f64, low: f64, high: f64, limit: i32, last: bool): i32 {
  if (k == 0) return start > low && start < high ? (last ? limit : 0) : last ? 0 : limit;
  const p = (low - start) / k;
  const q = (high - start) / k;
  const at = last ? Math.floor(max<f64>(p, q)) : Math.ceil(min<f64>(p, q));
  return <i32>max<f64>(0, min<f64>(<f64>limit, at));
}

/**
 * Bilinear affine sampling of an RGBA8 picture into a planar tile. Tile pixel (i, j) reads the picture at
 * (a·i + c·j + e, b·i + d·j + f) in its own pixels, centres at .5. edge 0: transparent outside with a one-pixel soft border,
 * 1: wrap, 2: extend, 3: every other one mirrored. `mix` below 1 blends into what the tile holds (two mip levels).
 */
export function sampleAffine(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, edge: i32, mix: f32,
): void {
  const norm = norm4();
  // Width of the soft border, in source pixels, is one tile pixel.
  const soft: f64 = max<f64>(Math.sqrt(a * a + b * b), 1e-6);
  const rim: f64 = 2 + soft;
  const pitch = <usize>w << 2;
  for (let j = 0; j < th; j++) {
    const cj: f64 = c * (<f64>j + 0.5);
    const dj: f64 = d * (<f64>j + 0.5);
    let at = dst + ((<usize>(j * tw)) << 2);
    let i = 0;
    // The stretch of the row that reads well inside the picture: no edges to mind, four pixels at a time. The values are the
    // same to the bit.
    const first = max<i32>(bound(a, cj + e, rim, <f64>w - rim, tw, false), bound(b, dj + f, rim, <f64>h - rim, tw, false));
    const last = min<i32>(bound(a, cj + e, rim, <f64>w - rim, tw, true), bound(b, dj + f, rim, <f64>h - rim, tw, true));
    for (const stop = min<i32>(first, tw); i < stop; i++) {
      sampleOne(src, w, h, at, stride, a * (<f64>i + 0.5) + cj + e, b * (<f64>i + 0.5) + dj + f, soft, edge, mix);
      at += 4;
    }
    for (; i + 4 <= last; i += 4) {
      const i01 = f64x2.add(f64x2.splat(<f64>i), f64x2(0.5, 1.5));
      const i23 = f64x2.add(f64x2.splat(<f64>i), f64x2(2.5, 3.5));
      const x01 = f64x2.sub(f64x2.add(f64x2.add(f64x2.mul(f64x2.splat(a), i01), f64x2.splat(cj)), f64x2.splat(e)), f64x2.splat(0.5));
      const x23 = f64x2.sub(f64x2.add(f64x2.add(f64x2.mul(f64x2.splat(a), i23), f64x2.splat(cj)), f64x2.splat(e)), f64x2.splat(0.5));
      const y01 = f64x2.sub(f64x2.add(f64x2.add(f64x2.mul(f64x2.splat(b), i01), f64x2.splat(dj)), f64x2.splat(f)), f64x2.splat(0.5));
      const y23 = f64x2.sub(f64x2.add(f64x2.add(f64x2.mul(f64x2.splat(b), i23), f64x2.splat(dj)), f64x2.splat(f)), f64x2.splat(0.5));
      const xf01 = f64x2.floor(x01);
      const xf23 = f64x2.floor(x23);
      const yf01 = f64x2.floor(y01);
      const yf23 = f64x2.floor(y23);
      const fx = i64x2.shuffle(f32x4.demote_f64x2_zero(f64x2.sub(x01, xf01)), f32x4.demote_f64x2_zero(f64x2.sub(x23, xf23)), 0, 2);
      const fy = i64x2.shuffle(f32x4.demote_f64x2_zero(f64x2.sub(y01, yf01)), f32x4.demote_f64x2_zero(f64x2.sub(y23, yf23)), 0, 2);
      // The low bits of a whole number plus 1.5 · 2⁵² are that number.
      const magic = f64x2.splat(6755399441055744);
      const xi = i32x4.shuffle(f64x2.add(xf01, magic), f64x2.add(xf23, magic), 0, 2, 4, 6);
      const yi = i32x4.shuffle(f64x2.add(yf01, magic), f64x2.add(yf23, magic), 0, 2, 4, 6);
      const place = i32x4.shl(i32x4.add(i32x4.mul(yi, i32x4.splat(w)), xi), 2);
      const across = weights(fx);
      const down = f32x4.mul(fy, norm);
      const up = f32x4.sub(norm, down);
      const p0 = src + <usize>i32x4.extract_lane(place, 0);
      const p1 = src + <usize>i32x4.extract_lane(place, 1);
      const p2 = src + <usize>i32x4.extract_lane(place, 2);
      const p3 = src + <usize>i32x4.extract_lane(place, 3);
      const v0 = bilinear(v128.load64_zero(p0), v128.load64_zero(p0 + pitch), i32x4.shuffle(across, across, 0, 0, 0, 0), f32x4.shuffle(up, up, 0, 0, 0, 0), f32x4.shuffle(down, down, 0, 0, 0, 0));
      const v1 = bilinear(v128.load64_zero(p1), v128.load64_zero(p1 + pitch), i32x4.shuffle(across, across, 1, 1, 1, 1), f32x4.shuffle(up, up, 1, 1, 1, 1), f32x4.shuffle(down, down, 1, 1, 1, 1));
      const v2 = bilinear(v128.load64_zero(p2), v128.load64_zero(p2 + pitch), i32x4.shuffle(across, across, 2, 2, 2, 2), f32x4.shuffle(up, up, 2, 2, 2, 2), f32x4.shuffle(down, down, 2, 2, 2, 2));
      const v3 = bilinear(v128.load64_zero(p3), v128.load64_zero(p3 + pitch), i32x4.shuffle(across, across, 3, 3, 3, 3), f32x4.shuffle(up, up, 3, 3, 3, 3), f32x4.shuffle(down, down, 3, 3, 3, 3));
      putFour(at, stride, v0, v1, v2, v3, mix);
      at += 16;
    }
    for (; i < tw; i++) {
      sampleOne(src, w, h, at, stride, a * (<f64>i + 0.5) + cj + e, b * (<f64>i + 0.5) + dj + f, soft, edge, mix);
      at += 4;
    }
  }
}

/**
 * Exact area averaging: tile pixel (i, j) is the mean of the picture over [ox + (x+i)·r, ox + (x+i+1)·r) × [oy + (y+j)·r, …), 1 ≤ r ≤ 2.
 */
export function sampleArea(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32, x: i32, y: i32, r: f64, ox: f64, oy: f64,
): void {
  const norm = <f32>(1.0 / (255.0 * r * r));
  const left0 = <i32>ox + x;
  const top0 = <i32>oy + y;
  if (r == 1 && <f64>left0 == ox + <f64>x && <f64>top0 == oy + <f64>y) {
    // At full size every pixel is itself; beyond the edge it is the nearest one.
    const k = f32x4.splat(norm);
    const from = max<i32>(0, min<i32>(tw, -left0));
    const to = max<i32>(from, min<i32>(tw, w - left0));
    for (let j = 0; j < th; j++) {
      const row = src + ((<usize>within(top0 + j, h) * <usize>w) << 2);
      const out = dst + ((<usize>(j * tw)) << 2);
      for (let i = 0; i < from; i++) put(out + (<usize>i << 2), stride, f32x4.mul(pixel(row + (<usize>within(left0 + i, w) << 2)), k));
      let p = row + (<usize>(left0 + from) << 2);
      let at = out + (<usize>from << 2);
      let i = from;
      for (; i + 4 <= to; i += 4) {
        const four = v128.load(p);
        const mask = i32x4.splat(255);
        v128.store(at, f32x4.mul(f32x4.convert_i32x4_s(v128.and(four, mask)), k));
        v128.store(at + stride, f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(four, 8), mask)), k));
        v128.store(at + 2 * stride, f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(four, 16), mask)), k));
        v128.store(at + 3 * stride, f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(four, 24)), k));
        p += 16;
        at += 16;
      }
      for (; i < tw; i++) put(out + (<usize>i << 2), stride, f32x4.mul(pixel(row + (<usize>within(left0 + i, w) << 2)), k));
    }
    return;
  }
  for (let j = 0; j < th; j++) {
    const top: f64 = oy + <f64>(y + j) * r;
    const bottom = top + r;
    const j0 = <i32>Math.floor(top + 1e-9);
    const j1 = <i32>Math.ceil(bottom - 1e-9);
    for (let i = 0; i < tw; i++) {
      const left: f64 = ox + <f64>(x + i) * r;
      const right = left + r;
      const i0 = <i32>Math.floor(left + 1e-9);
      const i1 = <i32>Math.ceil(right - 1e-9);
      let sum = f32x4.splat(0);
      for (let v = j0; v < j1; v++) {
        const wy = <f32>(min<f64>(bottom, <f64>(v + 1)) - max<f64>(top, <f64>v));
        const row = src + ((<usize>within(v, h) * <usize>w) << 2);
        for (let u = i0; u < i1; u++) {
          const wx = <f32>(min<f64>(right, <f64>(u + 1)) - max<f64>(left, <f64>u));
          sum = f32x4.add(sum, f32x4.mul(pixel(row + (<usize>within(u, w) << 2)), f32x4.splat(wx * wy)));
        }
      }
      put(dst + ((<usize>(j * tw + i)) << 2), stride, f32x4.mul(sum, f32x4.splat(norm)));
    }
  }
}

