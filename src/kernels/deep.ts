// RGBA16 pictures: four little-endian 16-bit values a pixel. Materials of 16 bits are few, so these go one pixel at a time.
import { mixed, put, shownAt } from './sample';

/** One interleaved RGBA16 pixel as four f32 lanes in 0..1. */
// @ts-ignore: decorator
@inline
function pixel16(p: usize): v128 {
  return f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(v128.load64_zero(p))), f32x4.splat(<f32>(1.0 / 65535.0)));
}

/** `readOne` for an RGBA16 picture. */
export function readDeep(src: usize, w: i32, h: i32, x: f64, y: f64, edge: i32): v128 {
  const sx = x - 0.5;
  const sy = y - 0.5;
  const x0 = <i32>Math.floor(sx);
  const y0 = <i32>Math.floor(sy);
  const xa = <usize>shownAt(x0, w, edge) << 3;
  const xb = <usize>shownAt(x0 + 1, w, edge) << 3;
  const pitch = <usize>w << 3;
  const r0 = src + <usize>shownAt(y0, h, edge) * pitch;
  const r1 = src + <usize>shownAt(y0 + 1, h, edge) * pitch;
  const fx = <f32>(sx - <f64>x0);
  const fy = <f32>(sy - <f64>y0);
  return mixed(mixed(pixel16(r0 + xa), pixel16(r0 + xb), fx), mixed(pixel16(r1 + xa), pixel16(r1 + xb), fx), fy);
}

/** `sampleAffine` for an RGBA16 picture. */
export function sampleAffineDeep(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, edge: i32, mix: f32,
): void {
  const soft = max<f64>(Math.sqrt(a * a + b * b), 1e-6);
  let at = dst;
  for (let j = 0; j < th; j++) {
    for (let i = 0; i < tw; i++, at += 4) {
      const x = a * (<f64>i + 0.5) + c * (<f64>j + 0.5) + e;
      const y = b * (<f64>i + 0.5) + d * (<f64>j + 0.5) + f;
      let v = readDeep(src, w, h, x, y, edge);
      if (edge == 0) {
        const cover = <f32>max<f64>(0, min<f64>(1, min<f64>(min<f64>(x, <f64>w - x), min<f64>(y, <f64>h - y)) / soft + 0.5));
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
  }
}

/** `halve` for an RGBA16 picture. */
export function halveDeep(src: usize, w: i32, h: i32, dst: usize): void {
  const dw = (w + 1) >> 1;
  const dh = (h + 1) >> 1;
  for (let j = 0; j < dh; j++) {
    const r0 = src + ((<usize>(2 * j) * <usize>w) << 3);
    const r1 = src + ((<usize>min<i32>(2 * j + 1, h - 1) * <usize>w) << 3);
    let out = dst + (<usize>(j * dw) << 3);
    for (let i = 0; i < dw; i++, out += 8) {
      const xa = <usize>(2 * i) << 3;
      const xb = <usize>min<i32>(2 * i + 1, w - 1) << 3;
      const sum = i32x4.add(i32x4.add(wide(r0 + xa), wide(r0 + xb)), i32x4.add(wide(r1 + xa), wide(r1 + xb)));
      const mean = i32x4.shr_u(i32x4.add(sum, i32x4.splat(2)), 2);
      v128.store64_lane(out, i16x8.narrow_i32x4_u(mean, mean), 0);
    }
  }
}

// @ts-ignore: decorator
@inline
function wide(p: usize): v128 {
  return i32x4.extend_low_i16x8_u(v128.load64_zero(p));
}

/** Values · scale + offset as greys of 16 bits a channel, opaque. */
export function greyDeep(src: usize, dst: usize, count: i32, scale: f32, offset: f32): void {
  for (let i = 0; i < count; i++) {
    const v = <u64>(min<f32>(1, max<f32>(0, f32.load(src + (<usize>i << 2)) * scale + offset)) * 65535 + 0.5);
    store<u64>(dst + (<usize>i << 3), v | (v << 16) | (v << 32) | 0xffff000000000000);
  }
}
