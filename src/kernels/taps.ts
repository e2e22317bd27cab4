// Reading of an opaque RGBA8 picture between its pixels, four places at once, each channel at a place of its own: weights of the four pixels
// across and down come from a table, products are whole numbers.

import { floor4, whole4 } from './math';

/** Steps of a table of weights: a place is known to a four-thousandth of a pixel. */
const STEPS = 2048;

/**
 * Weights of the pixels at −1, 0, 1, 2 for places 0, 1/2048, … 1 past pixel 0: 2049 rows of four i16, 16384 for one, whose sum is always one.
 * By Catmull–Rom, or with `smooth` 0 the straight line between pixels 0 and 1.
 */
export function tapTable(table: usize, smooth: i32): void {
  const one: f32 = 16384;
  for (let i = 0; i <= STEPS; i++) {
    const t: f32 = <f32>i / <f32>STEPS;
    const at = table + (<usize>i << 3);
    const a = smooth ? <i32>nearest<f32>(one * t * (-0.5 + t * (1 - 0.5 * t))) : 0;
    const c = <i32>nearest<f32>(one * (smooth ? t * (0.5 + t * (2 - 1.5 * t)) : t));
    const d = smooth ? <i32>nearest<f32>(one * 0.5 * t * t * (t - 1)) : 0;
    store<i16>(at, <i16>a);
    store<i16>(at, <i16>(16384 - a - c - d), 2);
    store<i16>(at, <i16>c, 4);
    store<i16>(at, <i16>d, 6);
  }
}

/** Whether four places lie so far inside a picture that all their neighbours do. Places count from the corner of the pixel at (0, 0). */
// @ts-ignore: decorator
@inline
export function allInside(x: v128, y: v128, w: i32, h: i32): bool {
  const low = v128.and(f32x4.ge(x, f32x4.splat(1.5)), f32x4.ge(y, f32x4.splat(1.5)));
  const high = v128.and(f32x4.lt(x, f32x4.splat(<f32>w - 2.5)), f32x4.lt(y, f32x4.splat(<f32>h - 2.5)));
  return i32x4.all_true(v128.and(low, high));
}

/** Address of the first of 4 × 4 neighbours. */
// @ts-ignore: decorator
@inline
export function firstOf(x: v128, y: v128, src: usize, pitch: i32): v128 {
  const left = i32x4.shl(floor4(f32x4.sub(x, f32x4.splat(1.5))), 2);
  const top = i32x4.mul(floor4(f32x4.sub(y, f32x4.splat(1.5))), i32x4.splat(pitch));
  return i32x4.add(i32x4.splat(<i32>src), i32x4.add(left, top));
}

/** Offset of a place's weights in the table. */
// @ts-ignore: decorator
@inline
export function rowOf(x: v128): v128 {
  const v = f32x4.sub(x, f32x4.splat(0.5));
  const part = f32x4.sub(v, f32x4.floor(v));
  return i32x4.shl(whole4(f32x4.mul(part, f32x4.splat(<f32>STEPS))), 3);
}

/** Every other 16-bit lane of two. */
// @ts-ignore: decorator
@inline
function woven(a: v128, b: v128): v128 {
  return v128.and(i16x8.shuffle(a, b, 0, 9, 2, 11, 4, 13, 6, 15), i32x4.splat(0x00ff00ff));
}

/** Four pixels of one channel, each summed down: in 1/64 levels. `top` and `bottom` hold the channel of two rows each. */
// @ts-ignore: decorator
@inline
function summed(top: v128, bottom: v128, weights: usize): v128 {
  const sum = i32x4.add(
    i32x4.dot_i16x8_s(top, v128.load32_splat(weights)),
    i32x4.dot_i16x8_s(bottom, v128.load32_splat(weights, 4)),
  );
  return i32x4.shr_s(i32x4.add(sum, i32x4.splat(128)), 8);
}

// @ts-ignore: decorator
@inline
function redDown(p: usize, pitch: usize, weights: usize): v128 {
  const two = p + 2 * pitch;
  return summed(
    woven(v128.load(p), i32x4.shl(v128.load(p + pitch), 16)),
    woven(v128.load(two), i32x4.shl(v128.load(two + pitch), 16)),
    weights,
  );
}

// @ts-ignore: decorator
@inline
function greenDown(p: usize, pitch: usize, weights: usize): v128 {
  const two = p + 2 * pitch;
  return summed(
    woven(i32x4.shr_u(v128.load(p), 8), i32x4.shl(v128.load(p + pitch), 8)),
    woven(i32x4.shr_u(v128.load(two), 8), i32x4.shl(v128.load(two + pitch), 8)),
    weights,
  );
}

// @ts-ignore: decorator
@inline
function blueDown(p: usize, pitch: usize, weights: usize): v128 {
  const two = p + 2 * pitch;
  return summed(
    woven(i32x4.shr_u(v128.load(p), 16), v128.load(p + pitch)),
    woven(i32x4.shr_u(v128.load(two), 16), v128.load(two + pitch)),
    weights,
  );
}

/** Whether 4 × 4 pixels are all opaque: −1 in the highest byte of each lane if so. */
// @ts-ignore: decorator
@inline
export function solid(p: usize, pitch: usize): v128 {
  const two = p + 2 * pitch;
  return v128.and(v128.and(v128.load(p), v128.load(p + pitch)), v128.and(v128.load(two), v128.load(two + pitch)));
}

/** Red, green, blue (and blue again) of one place, 0..1, not clipped. Each channel has its own first pixel, and weights across and down. */
// @ts-ignore: decorator
@inline
export function apart(
  pr: usize, pg: usize, pb: usize, pitch: usize, ar: usize, ag: usize, ab: usize, dr: usize, dg: usize, db: usize,
): v128 {
  const rg = i16x8.narrow_i32x4_s(redDown(pr, pitch, dr), greenDown(pg, pitch, dg));
  const blue = blueDown(pb, pitch, db);
  const across = v128.load64_lane(ag, v128.load64_zero(ar), 1);
  const a = i32x4.dot_i16x8_s(rg, across);
  const b = i32x4.dot_i16x8_s(i16x8.narrow_i32x4_s(blue, blue), v128.load64_splat(ab));
  const sum = i32x4.add(i32x4.shuffle(a, b, 0, 2, 4, 4), i32x4.shuffle(a, b, 1, 3, 5, 5));
  return f32x4.mul(f32x4.convert_i32x4_s(sum), f32x4.splat(<f32>(1.0 / (255.0 * 64.0 * 16384.0))));
}

/** The same where all channels are read at one place. */
// @ts-ignore: decorator
@inline
export function together(p: usize, pitch: usize, across: usize, down: usize): v128 {
  const two = p + 2 * pitch;
  const a = v128.load(p);
  const b = v128.load(p + pitch);
  const c = v128.load(two);
  const d = v128.load(two + pitch);
  const red = summed(woven(a, i32x4.shl(b, 16)), woven(c, i32x4.shl(d, 16)), down);
  const green = summed(woven(i32x4.shr_u(a, 8), i32x4.shl(b, 8)), woven(i32x4.shr_u(c, 8), i32x4.shl(d, 8)), down);
  const blue = summed(woven(i32x4.shr_u(a, 16), b), woven(i32x4.shr_u(c, 16), d), down);
  const k = v128.load64_splat(across);
  const rg = i32x4.dot_i16x8_s(i16x8.narrow_i32x4_s(red, green), k);
  const bb = i32x4.dot_i16x8_s(i16x8.narrow_i32x4_s(blue, blue), k);
  const sum = i32x4.add(i32x4.shuffle(rg, bb, 0, 2, 4, 4), i32x4.shuffle(rg, bb, 1, 3, 5, 5));
  return f32x4.mul(f32x4.convert_i32x4_s(sum), f32x4.splat(<f32>(1.0 / (255.0 * 64.0 * 16384.0))));
}

/** Four places' colours, one a vector, into the planes of a tile, clipped to 0..1; `mix` below 1 blends into what it holds. Alpha is 1. */
// @ts-ignore: decorator
@inline
export function putFour(at: usize, stride: usize, a: v128, b: v128, c: v128, d: v128, mix: f32): void {
  const low = i32x4.shuffle(a, b, 0, 4, 1, 5);
  const high = i32x4.shuffle(c, d, 0, 4, 1, 5);
  const blues = i32x4.shuffle(i32x4.shuffle(a, b, 2, 6, 2, 6), i32x4.shuffle(c, d, 2, 6, 2, 6), 0, 1, 4, 5);
  putPlane(at, i32x4.shuffle(low, high, 0, 1, 4, 5), mix);
  putPlane(at + stride, i32x4.shuffle(low, high, 2, 3, 6, 7), mix);
  putPlane(at + 2 * stride, blues, mix);
  putPlane(at + 3 * stride, f32x4.splat(1), mix);
}

// @ts-ignore: decorator
@inline
function putPlane(at: usize, v: v128, mix: f32): void {
  const inside = f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), v));
  if (mix < 1) v128.store(at, f32x4.add(f32x4.mul(v128.load(at), f32x4.splat(1 - mix)), f32x4.mul(inside, f32x4.splat(mix))));
  else v128.store(at, inside);
}

// @ts-ignore: decorator
@inline
export function lane0(v: v128): usize {
  return <usize>i32x4.extract_lane(v, 0);
}

// @ts-ignore: decorator
@inline
export function lane1(v: v128): usize {
  return <usize>i32x4.extract_lane(v, 1);
}

// @ts-ignore: decorator
@inline
export function lane2(v: v128): usize {
  return <usize>i32x4.extract_lane(v, 2);
}

// @ts-ignore: decorator
@inline
export function lane3(v: v128): usize {
  return <usize>i32x4.extract_lane(v, 3);
}

/** Four pixels, all channels of each read at one place; false, and nothing written, where some are not opaque. */
// @ts-ignore: decorator
@inline
export function fourTogether(src: usize, pitch: usize, at: usize, stride: usize, x: v128, y: v128, taps: usize, mix: f32): bool {
  const first = firstOf(x, y, src, <i32>pitch);
  const p0 = lane0(first);
  const p1 = lane1(first);
  const p2 = lane2(first);
  const p3 = lane3(first);
  const opaque = i32x4.splat(0xff000000);
  const all = v128.and(v128.and(solid(p0, pitch), solid(p1, pitch)), v128.and(solid(p2, pitch), solid(p3, pitch)));
  if (!i32x4.all_true(i32x4.eq(v128.and(all, opaque), opaque))) return false;
  const across = i32x4.add(i32x4.splat(<i32>taps), rowOf(x));
  const down = i32x4.add(i32x4.splat(<i32>taps), rowOf(y));
  putFour(
    at, stride,
    together(p0, pitch, lane0(across), lane0(down)),
    together(p1, pitch, lane1(across), lane1(down)),
    together(p2, pitch, lane2(across), lane2(down)),
    together(p3, pitch, lane3(across), lane3(down)),
    mix,
  );
  return true;
}
