// Sampling of the photo under a projective map: Catmull–Rom where it is shown at its own size, bilinear on a mip level where smaller.
import { clamp4, putSome } from './math';

// @ts-ignore: decorator
@inline
function pixel(p: usize): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p))));
}

// @ts-ignore: decorator
@inline
function within(i: i32, size: i32): i32 {
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
function cubicAt(src: usize, w: i32, h: i32, x0: i32, y0: i32, fx: f32, fy: f32): v128 {
  const edge = x0 < 1 || y0 < 1 || x0 + 2 >= w || y0 + 2 >= h;
  const v = edge ? cubicEdge(src, w, h, x0, y0, fx, fy) : cubicAll(src + (<usize>((y0 - 1) * w + x0 - 1) << 2), <usize>w << 2, fx, fy);
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(255), v));
}

/**
 * RGBA8 picture into a planar tile: tile pixel (i, j) reads it at ((m0·X + m1·Y + m2) / w, (m3·X + m4·Y + m5) / w), w = m6·X + m7·Y + m8,
 * X = i + .5, Y = j + .5, in its own pixels with centres at .5. Outside, the edge is extended, or with `clear` alpha falls to 0 over a pixel.
 * `mix` below 1 blends into what the tile holds (two mip levels). `smooth` reads 4 × 4 pixels by Catmull–Rom instead of 2 × 2.
 */
export function sampleProjected(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
): void {
  const norm = f32x4.splat(1.0 / 255.0);
  const pitch = <usize>w << 2;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i++) {
      const X: f64 = <f64>i + 0.5;
      const k: f64 = 1 / (m6 * X + m7 * Y + m8);
      const x: f64 = (m0 * X + m1 * Y + m2) * k;
      const y: f64 = (m3 * X + m4 * Y + m5) * k;
      // Far outside every pixel is the edge's; kept near, so that integers do not overflow.
      const sx: f64 = max<f64>(-8, min<f64>(<f64>w + 8, x)) - 0.5;
      const sy: f64 = max<f64>(-8, min<f64>(<f64>h + 8, y)) - 0.5;
      const x0 = <i32>Math.floor(sx);
      const y0 = <i32>Math.floor(sy);
      const fx = <f32>(sx - <f64>x0);
      const fy = <f32>(sy - <f64>y0);
      const xb = <usize>within(x0, w) << 2;
      const xc = <usize>within(x0 + 1, w) << 2;
      const rb = src + <usize>within(y0, h) * pitch;
      const rc = src + <usize>within(y0 + 1, h) * pitch;
      let v = f32x4.splat(0);
      if (smooth) {
        v = f32x4.mul(cubicAt(src, w, h, x0, y0, fx, fy), norm);
      } else {
        const across = f32x4.splat(fx);
        const b = pixel(rb + xb);
        const c = pixel(rc + xb);
        const top = f32x4.add(b, f32x4.mul(across, f32x4.sub(pixel(rb + xc), b)));
        const bottom = f32x4.add(c, f32x4.mul(across, f32x4.sub(pixel(rc + xc), c)));
        v = f32x4.mul(f32x4.add(top, f32x4.mul(f32x4.splat(fy), f32x4.sub(bottom, top))), norm);
      }
      let alpha: f32 = f32x4.extract_lane(v, 3);
      if (clear) {
        const inside: f64 = min<f64>(min<f64>(x, <f64>w - x), min<f64>(y, <f64>h - y)) + 0.5;
        alpha *= <f32>max<f64>(0, min<f64>(1, inside));
      }
      const at = dst + ((<usize>(j * tw + i)) << 2);
      put(at, f32x4.extract_lane(v, 0), mix);
      put(at + stride, f32x4.extract_lane(v, 1), mix);
      put(at + 2 * stride, f32x4.extract_lane(v, 2), mix);
      put(at + 3 * stride, alpha, mix);
    }
  }
}

// @ts-ignore: decorator
@inline
function put(at: usize, v: f32, mix: f32): void {
  f32.store(at, mix < 1 ? f32.load(at) * (1 - mix) + v * mix : v);
}

// @ts-ignore: decorator
@inline
function added(v: v128): f32 {
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
function cubicOne(src: usize, w: i32, h: i32, x: f32, y: f32, channel: i32): f32 {
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
function four(src: usize, w: i32, h: i32, x0: i32, y0: i32): v128 {
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
function shares(fx: f32, fy: f32): v128 {
  return f32x4.mul(f32x4(1 - fx, fx, 1 - fx, fx), f32x4(1 - fy, 1 - fy, fy, fy));
}

/** One channel bilinearly. 0..255. */
// @ts-ignore: decorator
@inline
function linearAt(src: usize, w: i32, h: i32, x: f32, y: f32, channel: i32): f32 {
  const x0 = <i32>floor<f32>(x - 0.5);
  const y0 = <i32>floor<f32>(y - 0.5);
  const v = v128.and(i32x4.shr_u(four(src, w, h, x0, y0), channel << 3), i32x4.splat(255));
  return added(f32x4.mul(f32x4.convert_i32x4_s(v), shares(x - 0.5 - <f32>x0, y - 0.5 - <f32>y0)));
}

/**
 * As `sampleProjected`, through a lens besides: with p `zoom` times the place under the map, from the centre (cx, cy), and r its distance in
 * units of `radius`, the picture is read at centre + p·(1 + k1·r² + k2·r⁴), red and blue at (1 + `red`) and (1 + `blue`) times as far
 * (Brown 1966, Conrady 1919, radial terms). Places are known to a few thousandths of a pixel (f32).
 */
export function sampleLens(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
  cx: f64, cy: f64, radius: f64, zoom: f64, k1: f64, k2: f64, red: f64, blue: f64,
): void {
  const scale = f32x4.splat(<f32>(zoom / radius));
  const size = f32x4.splat(<f32>radius);
  const split = red != 0 || blue != 0;
  const kr: f32 = <f32>red;
  const kb: f32 = <f32>blue;
  const centreX = <f32>cx;
  const centreY = <f32>cy;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i += 4) {
      const X = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3));
      const below = f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m6)), f32x4.splat(<f32>(m7 * Y + m8)));
      // From the centre already in the numerator: the difference of two large numbers would be coarse.
      const ux = f32x4.mul(
        f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m0 - cx * m6))), f32x4.splat(<f32>((m1 - cx * m7) * Y + m2 - cx * m8))), below),
        scale,
      );
      const uy = f32x4.mul(
        f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m3 - cy * m6))), f32x4.splat(<f32>((m4 - cy * m7) * Y + m5 - cy * m8))), below),
        scale,
      );
      const rr = f32x4.add(f32x4.mul(ux, ux), f32x4.mul(uy, uy));
      const bend = f32x4.mul(
        f32x4.add(f32x4.splat(1), f32x4.mul(rr, f32x4.add(f32x4.splat(<f32>k1), f32x4.mul(rr, f32x4.splat(<f32>k2))))),
        size,
      );
      const dx4 = f32x4.mul(ux, bend);
      const dy4 = f32x4.mul(uy, bend);
      const at = dst + ((<usize>(j * tw + i)) << 2);
      const n = tw - i;
      lensPixel(src, w, h, at, stride, centreX, centreY, f32x4.extract_lane(dx4, 0), f32x4.extract_lane(dy4, 0), kr, kb, split, smooth, clear, mix);
      if (n > 1) lensPixel(src, w, h, at + 4, stride, centreX, centreY, f32x4.extract_lane(dx4, 1), f32x4.extract_lane(dy4, 1), kr, kb, split, smooth, clear, mix);
      if (n > 2) lensPixel(src, w, h, at + 8, stride, centreX, centreY, f32x4.extract_lane(dx4, 2), f32x4.extract_lane(dy4, 2), kr, kb, split, smooth, clear, mix);
      if (n > 3) lensPixel(src, w, h, at + 12, stride, centreX, centreY, f32x4.extract_lane(dx4, 3), f32x4.extract_lane(dy4, 3), kr, kb, split, smooth, clear, mix);
    }
  }
}

/** One pixel of `sampleLens`, read at (dx, dy) from the centre. */
function lensPixel(
  src: usize, w: i32, h: i32, at: usize, stride: usize, cx: f32, cy: f32, dx: f32, dy: f32, kr: f32, kb: f32,
  split: bool, smooth: i32, clear: i32, mix: f32,
): void {
  const norm: f32 = 1.0 / 255.0;
  // Far outside every pixel is the edge's; kept near, so that integers do not overflow.
  const limits = f32x4.pmax(f32x4.splat(-16), f32x4.pmin(f32x4(<f32>w + 16, <f32>h + 16, 0, 0), f32x4(cx + dx, cy + dy, 0, 0)));
  const x: f32 = f32x4.extract_lane(limits, 0);
  const y: f32 = f32x4.extract_lane(limits, 1);
  const x0 = <i32>floor<f32>(x - 0.5);
  const y0 = <i32>floor<f32>(y - 0.5);
  const fx: f32 = x - 0.5 - <f32>x0;
  const fy: f32 = y - 0.5 - <f32>y0;
  let red: f32 = 0;
  let green: f32 = 0;
  let blue: f32 = 0;
  let alpha: f32 = 1;
  if (smooth && !split) {
    const v = cubicAt(src, w, h, x0, y0, fx, fy);
    red = f32x4.extract_lane(v, 0);
    green = f32x4.extract_lane(v, 1);
    blue = f32x4.extract_lane(v, 2);
    alpha = f32x4.extract_lane(v, 3) * norm;
  } else {
    const around = four(src, w, h, x0, y0);
    const share = shares(fx, fy);
    const opaque = i32x4.splat(0xff000000);
    if (!i32x4.all_true(i32x4.eq(v128.and(around, opaque), opaque))) alpha = added(f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(around, 24)), share)) * norm;
    const bytes = i32x4.splat(255);
    if (smooth) {
      red = cubicOne(src, w, h, x + dx * kr, y + dy * kr, 0);
      green = cubicOne(src, w, h, x, y, 1);
      blue = cubicOne(src, w, h, x + dx * kb, y + dy * kb, 2);
    } else {
      green = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(around, 8), bytes)), share));
      if (split) {
        red = linearAt(src, w, h, x + dx * kr, y + dy * kr, 0);
        blue = linearAt(src, w, h, x + dx * kb, y + dy * kb, 2);
      } else {
        red = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(around, bytes)), share));
        blue = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(around, 16), bytes)), share));
      }
    }
  }
  if (clear) {
    const inside: f32 = min<f32>(min<f32>(cx + dx, <f32>w - cx - dx), min<f32>(cy + dy, <f32>h - cy - dy)) + 0.5;
    alpha *= max<f32>(0, min<f32>(1, inside));
  }
  put(at, red * norm, mix);
  put(at + stride, green * norm, mix);
  put(at + 2 * stride, blue * norm, mix);
  put(at + 3 * stride, alpha, mix);
}

/** Light in the corners: values of a tile times 1 + f1·s² + f2·s⁴ in linear light, s the distance at which `sampleLens` reads a pixel. */
export function cornerLight(
  tile: usize, stride: usize, tw: i32, th: i32, m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64,
  cx: f64, cy: f64, radius: f64, zoom: f64, k1: f64, k2: f64, f1: f32, f2: f32,
): void {
  const one = f32x4.splat(1);
  const scale = f32x4.splat(<f32>(zoom / radius));
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i += 4) {
      const X = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3));
      const w = f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m6)), f32x4.splat(<f32>(m7 * Y + m8)));
      const px = f32x4.sub(f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m0)), f32x4.splat(<f32>(m1 * Y + m2))), w), f32x4.splat(<f32>cx));
      const py = f32x4.sub(f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m3)), f32x4.splat(<f32>(m4 * Y + m5))), w), f32x4.splat(<f32>cy));
      const ux = f32x4.mul(px, scale);
      const uy = f32x4.mul(py, scale);
      const rr = f32x4.add(f32x4.mul(ux, ux), f32x4.mul(uy, uy));
      const bend = f32x4.add(one, f32x4.mul(rr, f32x4.add(f32x4.splat(<f32>k1), f32x4.mul(rr, f32x4.splat(<f32>k2)))));
      const s = f32x4.mul(rr, f32x4.mul(bend, bend));
      const gain = f32x4.pmax(f32x4.splat(0), f32x4.add(one, f32x4.mul(s, f32x4.add(f32x4.splat(f1), f32x4.mul(s, f32x4.splat(f2))))));
      const brighter = f32x4.ge(gain, one);
      // In the power part of the transfer function encode(g·decode(v)) is g^(1/2.4)·(v + a) − a, in its straight part g·v; the two meet where
      // one becomes the larger. (IEC 61966-2-1, a = 0.055.)
      // The root of half the gain as `encode4` fits it: to 2^(1/2.4) / 1.055 times so much.
      const half = f32x4.sqrt(f32x4.mul(gain, f32x4.splat(0.5)));
      const quarter = f32x4.sqrt(half);
      const eighth = f32x4.sqrt(quarter);
      let power = f32x4.add(f32x4.mul(gain, f32x4.splat(0.5 * 0.02737408)), f32x4.splat(0.055 - 0.0314253));
      power = f32x4.add(power, f32x4.mul(f32x4.mul(half, quarter), f32x4.splat(-0.15604499)));
      power = f32x4.add(power, f32x4.mul(half, f32x4.splat(0.87015044)));
      power = f32x4.add(power, f32x4.mul(quarter, f32x4.splat(0.46372115)));
      power = f32x4.mul(f32x4.add(power, f32x4.mul(eighth, f32x4.splat(-0.17377221))), f32x4.splat(1.3348398 / 1.055));
      const p = tile + ((<usize>(j * tw + i)) << 2);
      for (let c: usize = 0; c < 3; c++) {
        const q = p + c * stride;
        const v = v128.load(q);
        const straight = f32x4.mul(v, gain);
        const curved = f32x4.sub(f32x4.mul(power, f32x4.add(v, f32x4.splat(0.055))), f32x4.splat(0.055));
        const lit = clamp4(v128.bitselect(f32x4.pmin(straight, curved), f32x4.pmax(straight, curved), brighter));
        if (i + 4 <= tw) v128.store(q, lit);
        else putSome(q, lit, tw - i);
      }
    }
  }
}
