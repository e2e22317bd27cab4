// Moving pixels between 8-bit pictures, 16-bit caches and planar f32 tiles, and the colour matrix.
import { clamp4, whole4 } from './math';

/** Next mip level: 2×2 mean of an RGBA8 picture, the last row or column repeated for odd sizes. dst is ⌈w/2⌉ × ⌈h/2⌉. */
export function halve(src: usize, w: i32, h: i32, dst: usize): void {
  const dw = (w + 1) >> 1;
  const dh = (h + 1) >> 1;
  const half = i16x8.splat(2);
  for (let j = 0; j < dh; j++) {
    const r0 = src + ((<usize>(2 * j) * <usize>w) << 2);
    const r1 = src + ((<usize>min<i32>(2 * j + 1, h - 1) * <usize>w) << 2);
    const out = dst + ((<usize>(j * dw)) << 2);
    let i = 0;
    for (; 2 * i + 8 <= w; i += 4) {
      const x = <usize>(2 * i) << 2;
      const m = pairSums(v128.load(r0 + x), v128.load(r1 + x));
      const n = pairSums(v128.load(r0 + x + 16), v128.load(r1 + x + 16));
      v128.store(out + (<usize>i << 2), i8x16.narrow_i16x8_u(i16x8.shr_u(i16x8.add(m, half), 2), i16x8.shr_u(i16x8.add(n, half), 2)));
    }
    for (; i < dw; i++) {
      const xa = <usize>(2 * i) << 2;
      const xb = <usize>min<i32>(2 * i + 1, w - 1) << 2;
      const s = i16x8.add(
        i16x8.add(i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + xa)), i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + xb))),
        i16x8.add(i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + xa)), i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + xb))),
      );
      const m = i16x8.shr_u(i16x8.add(s, half), 2);
      v128.store32_lane(out + (<usize>i << 2), i8x16.narrow_i16x8_u(m, m), 0);
    }
  }
}

/** Sums of 2 × 2 pixels for two neighbouring pairs of columns; `a` and `b` are four pixels each, one above the other. */
// @ts-ignore: decorator
@inline
function pairSums(a: v128, b: v128): v128 {
  const left = i16x8.add(i16x8.extend_low_i8x16_u(a), i16x8.extend_low_i8x16_u(b));
  const right = i16x8.add(i16x8.extend_high_i8x16_u(a), i16x8.extend_high_i8x16_u(b));
  return i16x8.add(i64x2.shuffle(left, right, 0, 2), i64x2.shuffle(left, right, 1, 3));
}

// @ts-ignore: decorator
@inline
function bytesOf(p: usize): v128 {
  return whole4(f32x4.mul(clamp4(v128.load(p)), f32x4.splat(255)));
}

/** Planar tile to RGBA8, rounding to nearest. Writes a tw × th block into a picture of `pitch` pixels a row. */
export function packBytes(src: usize, stride: usize, tw: i32, th: i32, dst: usize, pitch: i32): void {
  const k = f32x4.splat(255);
  for (let j = 0; j < th; j++) {
    let out = dst + ((<usize>j * <usize>pitch) << 2);
    let p = src + ((<usize>(j * tw)) << 2);
    let i = 0;
    for (; i + 4 <= tw; i += 4) {
      // Four pixels: one channel to a byte of each lane.
      const low = v128.or(bytesOf(p), i32x4.shl(bytesOf(p + stride), 8));
      const high = v128.or(i32x4.shl(bytesOf(p + 2 * stride), 16), i32x4.shl(bytesOf(p + 3 * stride), 24));
      v128.store(out, v128.or(low, high));
      p += 16;
      out += 16;
    }
    for (; i < tw; i++) {
      let v = f32x4.splat(f32.load(p));
      v = f32x4.replace_lane(v, 1, f32.load(p + stride));
      v = f32x4.replace_lane(v, 2, f32.load(p + 2 * stride));
      v = f32x4.replace_lane(v, 3, f32.load(p + 3 * stride));
      const n = whole4(f32x4.mul(clamp4(v), k));
      const h = i16x8.narrow_i32x4_u(n, n);
      v128.store32_lane(out, i8x16.narrow_i16x8_u(h, h), 0);
      p += 4;
      out += 4;
    }
  }
}

/** Planar tile to RGBA16, rounding to nearest. Writes a tw × th block into a picture of `pitch` pixels a row. */
export function packWords(src: usize, stride: usize, tw: i32, th: i32, dst: usize, pitch: i32): void {
  const k = f32x4.splat(65535);
  for (let j = 0; j < th; j++) {
    let out = dst + ((<usize>j * <usize>pitch) << 3);
    let p = src + ((<usize>(j * tw)) << 2);
    for (let i = 0; i < tw; i++) {
      let v = f32x4.splat(f32.load(p));
      v = f32x4.replace_lane(v, 1, f32.load(p + stride));
      v = f32x4.replace_lane(v, 2, f32.load(p + 2 * stride));
      v = f32x4.replace_lane(v, 3, f32.load(p + 3 * stride));
      const n = whole4(f32x4.mul(clamp4(v), k));
      v128.store64_lane(out, i16x8.narrow_i32x4_u(n, n), 0);
      p += 4;
      out += 8;
    }
  }
}

/** RGBA16 as two pictures of RGBA8: the high bytes of its values, and the low ones. `count` values. */
export function splitWords(src: usize, high: usize, low: usize, count: i32): void {
  let i = 0;
  for (; i + 16 <= count; i += 16) {
    const a = v128.load(src + (<usize>i << 1));
    const b = v128.load(src + (<usize>i << 1) + 16);
    v128.store(low + <usize>i, i8x16.shuffle(a, b, 0, 2, 4, 6, 8, 10, 12, 14, 16, 18, 20, 22, 24, 26, 28, 30));
    v128.store(high + <usize>i, i8x16.shuffle(a, b, 1, 3, 5, 7, 9, 11, 13, 15, 17, 19, 21, 23, 25, 27, 29, 31));
  }
  for (; i < count; i++) {
    store<u8>(low + <usize>i, load<u8>(src + (<usize>i << 1)));
    store<u8>(high + <usize>i, load<u8>(src + (<usize>i << 1) + 1));
  }
}

/** Planar f32 to planar u16, `planes` planes of `count` values (a multiple of 8): the 16-bit cache. */
export function pack16(src: usize, stride: usize, dst: usize, count: i32, planes: i32): void {
  const k = f32x4.splat(65535);
  for (let c = 0; c < planes; c++) {
    let p = src + <usize>c * stride;
    for (let i = 0; i < count; i += 8) {
      const lo = whole4(f32x4.mul(clamp4(v128.load(p)), k));
      const hi = whole4(f32x4.mul(clamp4(v128.load(p + 16)), k));
      v128.store(dst, i16x8.narrow_i32x4_u(lo, hi));
      p += 32;
      dst += 16;
    }
  }
}

export function unpack16(src: usize, dst: usize, stride: usize, count: i32, planes: i32): void {
  const k = f32x4.splat(1.0 / 65535.0);
  for (let c = 0; c < planes; c++) {
    let p = dst + <usize>c * stride;
    for (let i = 0; i < count; i += 8) {
      const v = v128.load(src);
      v128.store(p, f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(v)), k));
      v128.store(p + 16, f32x4.mul(f32x4.convert_i32x4_s(i32x4.extend_high_i16x8_u(v)), k));
      p += 32;
      src += 16;
    }
  }
}

/** r' = a·r + b·g + c·b + d and so on, clamped to 0..1 as a filter primitive's result is (W3C Filter Effects, feColorMatrix). */
export function colorMatrix(
  tile: usize, stride: usize, count: i32,
  m0: f32, m1: f32, m2: f32, m3: f32, m4: f32, m5: f32, m6: f32, m7: f32, m8: f32, m9: f32, m10: f32, m11: f32,
): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = v128.load(p);
    const g = v128.load(p + stride);
    const b = v128.load(p + 2 * stride);
    v128.store(p, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m0)), f32x4.mul(g, f32x4.splat(m1))), f32x4.add(f32x4.mul(b, f32x4.splat(m2)), f32x4.splat(m3)))));
    v128.store(p + stride, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m4)), f32x4.mul(g, f32x4.splat(m5))), f32x4.add(f32x4.mul(b, f32x4.splat(m6)), f32x4.splat(m7)))));
    v128.store(p + 2 * stride, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m8)), f32x4.mul(g, f32x4.splat(m9))), f32x4.add(f32x4.mul(b, f32x4.splat(m10)), f32x4.splat(m11)))));
  }
}

/** Copies a w × h window of one plane to another with other row lengths (in pixels). */
export function copyWindow(src: usize, srcPitch: i32, dst: usize, dstPitch: i32, w: i32, h: i32): void {
  for (let j = 0; j < h; j++) {
    memory.copy(dst + ((<usize>j * <usize>dstPitch) << 2), src + ((<usize>j * <usize>srcPitch) << 2), <usize>w << 2);
  }
}

/** Mixes a flat colour into a tile by a mask plane: rgb += (colour − rgb)·mask·amount. */
export function tintByMask(tile: usize, stride: usize, mask: usize, count: i32, r: f32, g: f32, b: f32, amount: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const m = f32x4.mul(v128.load(mask + i), f32x4.splat(amount));
    const p = tile + i;
    v128.store(p, f32x4.add(v128.load(p), f32x4.mul(m, f32x4.sub(f32x4.splat(r), v128.load(p)))));
    v128.store(p + stride, f32x4.add(v128.load(p + stride), f32x4.mul(m, f32x4.sub(f32x4.splat(g), v128.load(p + stride)))));
    v128.store(p + 2 * stride, f32x4.add(v128.load(p + 2 * stride), f32x4.mul(m, f32x4.sub(f32x4.splat(b), v128.load(p + 2 * stride)))));
  }
}
