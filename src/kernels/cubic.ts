// Reading of an RGBA8 picture between its pixels: bilinear, and by Catmull–Rom, all channels at once or one.

// @ts-ignore: decorator
@inline
export function pixel(p: usize): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p))));
}

// @ts-ignore: decorator
@inline
export function within(i: i32, size: i32): i32 {
  return max<i32>(0, min<i32>(size - 1, i));
}

/** Catmull–Rom weights of the pixels at −1, 0, 1, 2 for a place `t` past pixel 0. */
// @ts-ignore: decorator
@inline
function weights(t: f32): v128 {
  const v = f32x4.splat(t);
  let w = f32x4.mul(v, f32x4(-0.5, 1.5, -1.5, 0.5));
  w = f32x4.mul(v, f32x4.add(w, f32x4(1, -2.5, 2, -0.5)));
  w = f32x4.mul(v, f32x4.add(w, f32x4(-0.5, 0, 0.5, 0)));
  return f32x4.add(w, f32x4(0, 1, 0, 0));
}

/** All channels of a 4 × 4 neighbourhood whose left upper pixel is at `p`, by Catmull–Rom: red, green, blue, alpha in 0..255, not clipped. */
// @ts-ignore: decorator
@inline
function cubicAll(p: usize, pitch: usize, fx: f32, fy: f32): v128 {
  const down = weights(fy);
  const a = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(weights(fx), f32x4.splat(4096))));
  // The same four whole weights twice, for two channels side by side.
  const across = i16x8.narrow_i32x4_s(a, a);
  const zero = i32x4.splat(0);
  let rg = f32x4.splat(0);
  let ba = f32x4.splat(0);
  let row = v128.load(p);
  let k = i32x4.shuffle(down, down, 0, 0, 0, 0);
  rg = f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 0, 16, 4, 16, 8, 16, 12, 16, 1, 16, 5, 16, 9, 16, 13, 16), across)));
  ba = f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 2, 16, 6, 16, 10, 16, 14, 16, 3, 16, 7, 16, 11, 16, 15, 16), across)));
  row = v128.load(p + pitch);
  k = i32x4.shuffle(down, down, 1, 1, 1, 1);
  rg = f32x4.add(rg, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 0, 16, 4, 16, 8, 16, 12, 16, 1, 16, 5, 16, 9, 16, 13, 16), across))));
  ba = f32x4.add(ba, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 2, 16, 6, 16, 10, 16, 14, 16, 3, 16, 7, 16, 11, 16, 15, 16), across))));
  row = v128.load(p + 2 * pitch);
  k = i32x4.shuffle(down, down, 2, 2, 2, 2);
  rg = f32x4.add(rg, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 0, 16, 4, 16, 8, 16, 12, 16, 1, 16, 5, 16, 9, 16, 13, 16), across))));
  ba = f32x4.add(ba, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 2, 16, 6, 16, 10, 16, 14, 16, 3, 16, 7, 16, 11, 16, 15, 16), across))));
  row = v128.load(p + 3 * pitch);
  k = i32x4.shuffle(down, down, 3, 3, 3, 3);
  rg = f32x4.add(rg, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 0, 16, 4, 16, 8, 16, 12, 16, 1, 16, 5, 16, 9, 16, 13, 16), across))));
  ba = f32x4.add(ba, f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(row, zero, 2, 16, 6, 16, 10, 16, 14, 16, 3, 16, 7, 16, 11, 16, 15, 16), across))));
  const sum = f32x4.add(i32x4.shuffle(rg, ba, 0, 2, 4, 6), i32x4.shuffle(rg, ba, 1, 3, 5, 7));
  return f32x4.mul(sum, f32x4.splat(1.0 / 4096.0));
}

/** The same where the neighbourhood reaches over the picture's edge, which is extended. */
function cubicEdge(src: usize, w: i32, h: i32, x0: i32, y0: i32, fx: f32, fy: f32): v128 {
  const across = weights(fx);
  const down = weights(fy);
  let sum = f32x4.splat(0);
  for (let j = 0; j < 4; j++) {
    const row = src + (<usize>(within(y0 + j - 1, h) * w) << 2);
    const k: f32 = j == 0 ? f32x4.extract_lane(down, 0) : j == 1 ? f32x4.extract_lane(down, 1) : j == 2 ? f32x4.extract_lane(down, 2) : f32x4.extract_lane(down, 3);
    let v = f32x4.mul(pixel(row + (<usize>within(x0 - 1, w) << 2)), i32x4.shuffle(across, across, 0, 0, 0, 0));
    v = f32x4.add(v, f32x4.mul(pixel(row + (<usize>within(x0, w) << 2)), i32x4.shuffle(across, across, 1, 1, 1, 1)));
    v = f32x4.add(v, f32x4.mul(pixel(row + (<usize>within(x0 + 1, w) << 2)), i32x4.shuffle(across, across, 2, 2, 2, 2)));
    v = f32x4.add(v, f32x4.mul(pixel(row + (<usize>within(x0 + 2, w) << 2)), i32x4.shuffle(across, across, 3, 3, 3, 3)));
    sum = f32x4.add(sum, f32x4.mul(v, f32x4.splat(k)));
  }
  return sum;
}

/** All channels at a place between pixels x0, x0 + 1 and y0, y0 + 1, clipped to 0..255. */
// @ts-ignore: decorator
@inline
export function cubicAt(src: usize, w: i32, h: i32, x0: i32, y0: i32, fx: f32, fy: f32): v128 {
  const edge = x0 < 1 || y0 < 1 || x0 + 2 >= w || y0 + 2 >= h;
  const v = edge ? cubicEdge(src, w, h, x0, y0, fx, fy) : cubicAll(src + (<usize>((y0 - 1) * w + x0 - 1) << 2), <usize>w << 2, fx, fy);
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(255), v));
}

// @ts-ignore: decorator
@inline
export function added(v: v128): f32 {
  const pairs = f32x4.add(v, i32x4.shuffle(v, v, 2, 3, 0, 1));
  return f32x4.extract_lane(pairs, 0) + f32x4.extract_lane(pairs, 1);
}

/** One channel of four pixels times their weights, in two sums. */
// @ts-ignore: decorator
@inline
function redRow(row: usize, across: v128, k: v128): v128 {
  return f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(v128.load(row), i32x4.splat(0), 0, 16, 4, 16, 8, 16, 12, 16, 16, 16, 16, 16, 16, 16, 16, 16), across)));
}

// @ts-ignore: decorator
@inline
function blueRow(row: usize, across: v128, k: v128): v128 {
  return f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(v128.load(row), i32x4.splat(0), 2, 16, 6, 16, 10, 16, 14, 16, 16, 16, 16, 16, 16, 16, 16, 16), across)));
}

// @ts-ignore: decorator
@inline
function greenRow(row: usize, across: v128, k: v128): v128 {
  return f32x4.mul(k, f32x4.convert_i32x4_s(i32x4.dot_i16x8_s(i8x16.shuffle(v128.load(row), i32x4.splat(0), 1, 16, 5, 16, 9, 16, 13, 16, 16, 16, 16, 16, 16, 16, 16, 16), across)));
}

/** Red (0), green (1) or blue (2) at (x, y) by Catmull–Rom, pixel centres at .5, edge extended. 0..255. */
// @ts-ignore: decorator
@inline
export function cubicOne(src: usize, w: i32, h: i32, x: f32, y: f32, channel: i32): f32 {
  const x0 = <i32>floor<f32>(x - 0.5);
  const y0 = <i32>floor<f32>(y - 0.5);
  const fx: f32 = x - 0.5 - <f32>x0;
  const fy: f32 = y - 0.5 - <f32>y0;
  if (x0 < 1 || y0 < 1 || x0 + 2 >= w || y0 + 2 >= h) {
    const all = f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(255), cubicEdge(src, w, h, x0, y0, fx, fy)));
    return channel == 0 ? f32x4.extract_lane(all, 0) : channel == 1 ? f32x4.extract_lane(all, 1) : f32x4.extract_lane(all, 2);
  }
  const pitch = <usize>w << 2;
  const p = src + (<usize>((y0 - 1) * w + x0 - 1) << 2);
  const down = weights(fy);
  const a = i32x4.trunc_sat_f32x4_s(f32x4.nearest(f32x4.mul(weights(fx), f32x4.splat(4096))));
  const across = i16x8.narrow_i32x4_s(a, a);
  let sum = f32x4.splat(0);
  if (channel == 0) {
    sum = f32x4.add(redRow(p, across, i32x4.shuffle(down, down, 0, 0, 0, 0)), redRow(p + pitch, across, i32x4.shuffle(down, down, 1, 1, 1, 1)));
    sum = f32x4.add(sum, redRow(p + 2 * pitch, across, i32x4.shuffle(down, down, 2, 2, 2, 2)));
    sum = f32x4.add(sum, redRow(p + 3 * pitch, across, i32x4.shuffle(down, down, 3, 3, 3, 3)));
  } else if (channel == 1) {
    sum = f32x4.add(greenRow(p, across, i32x4.shuffle(down, down, 0, 0, 0, 0)), greenRow(p + pitch, across, i32x4.shuffle(down, down, 1, 1, 1, 1)));
    sum = f32x4.add(sum, greenRow(p + 2 * pitch, across, i32x4.shuffle(down, down, 2, 2, 2, 2)));
    sum = f32x4.add(sum, greenRow(p + 3 * pitch, across, i32x4.shuffle(down, down, 3, 3, 3, 3)));
  } else {
    sum = f32x4.add(blueRow(p, across, i32x4.shuffle(down, down, 0, 0, 0, 0)), blueRow(p + pitch, across, i32x4.shuffle(down, down, 1, 1, 1, 1)));
    sum = f32x4.add(sum, blueRow(p + 2 * pitch, across, i32x4.shuffle(down, down, 2, 2, 2, 2)));
    sum = f32x4.add(sum, blueRow(p + 3 * pitch, across, i32x4.shuffle(down, down, 3, 3, 3, 3)));
  }
  const value = f32x4.splat((f32x4.extract_lane(sum, 0) + f32x4.extract_lane(sum, 1)) * <f32>(1.0 / 4096.0));
  return f32x4.extract_lane(f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(255), value)), 0);
}

/** The four pixels around a place: two of one row, two of the next. */
// @ts-ignore: decorator
@inline
export function four(src: usize, w: i32, h: i32, x0: i32, y0: i32): v128 {
  if (x0 >= 0 && y0 >= 0 && x0 + 1 < w && y0 + 1 < h) {
    const p = src + (<usize>(y0 * w + x0) << 2);
    return v128.load64_lane(p + (<usize>w << 2), v128.load64_zero(p), 1);
  }
  const xa = <usize>within(x0, w) << 2;
  const xb = <usize>within(x0 + 1, w) << 2;
  const ra = src + (<usize>(within(y0, h) * w) << 2);
  const rb = src + (<usize>(within(y0 + 1, h) * w) << 2);
  return i32x4(load<i32>(ra + xa), load<i32>(ra + xb), load<i32>(rb + xa), load<i32>(rb + xb));
}

/** How much each of the four counts. */
// @ts-ignore: decorator
@inline
export function shares(fx: f32, fy: f32): v128 {
  return f32x4.mul(f32x4(1 - fx, fx, 1 - fx, fx), f32x4(1 - fy, 1 - fy, fy, fy));
}

/** One channel bilinearly. 0..255. */
// @ts-ignore: decorator
@inline
export function linearAt(src: usize, w: i32, h: i32, x: f32, y: f32, channel: i32): f32 {
  const x0 = <i32>floor<f32>(x - 0.5);
  const y0 = <i32>floor<f32>(y - 0.5);
  const v = v128.and(i32x4.shr_u(four(src, w, h, x0, y0), channel << 3), i32x4.splat(255));
  return added(f32x4.mul(f32x4.convert_i32x4_s(v), shares(x - 0.5 - <f32>x0, y - 0.5 - <f32>y0)));
}

// @ts-ignore: decorator
@inline
export function put(at: usize, v: f32, mix: f32): void {
  f32.store(at, mix < 1 ? f32.load(at) * (1 - mix) + v * mix : v);
}
