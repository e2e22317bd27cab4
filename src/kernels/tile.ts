// Moving pixels between 8-bit files, 16-bit caches and planar f32 tiles, and the colour matrix.
import { clamp4 } from './math';

/** One interleaved RGBA8 pixel as four f32 lanes in 0..255. */
// @ts-ignore: decorator
@inline
function pixel(p: usize): v128 {
  return f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p))));
}

// @ts-ignore: decorator
@inline
function put(dst: usize, stride: usize, v: v128): void {
  f32.store(dst, f32x4.extract_lane(v, 0));
  f32.store(dst + stride, f32x4.extract_lane(v, 1));
  f32.store(dst + 2 * stride, f32x4.extract_lane(v, 2));
  f32.store(dst + 3 * stride, f32x4.extract_lane(v, 3));
}

/** Four pixels as lanes of r, g, b, a to four places in a row of each plane. */
// @ts-ignore: decorator
@inline
function putFour(dst: usize, stride: usize, a: v128, b: v128, c: v128, d: v128): void {
  const ab = i32x4.shuffle(a, b, 0, 4, 1, 5);
  const cd = i32x4.shuffle(c, d, 0, 4, 1, 5);
  const abHigh = i32x4.shuffle(a, b, 2, 6, 3, 7);
  const cdHigh = i32x4.shuffle(c, d, 2, 6, 3, 7);
  v128.store(dst, i64x2.shuffle(ab, cd, 0, 2));
  v128.store(dst + stride, i64x2.shuffle(ab, cd, 1, 3));
  v128.store(dst + 2 * stride, i64x2.shuffle(abHigh, cdHigh, 0, 2));
  v128.store(dst + 3 * stride, i64x2.shuffle(abHigh, cdHigh, 1, 3));
}

/** Bilinear value at a place whose four pixels all lie inside the picture. */
// @ts-ignore: decorator
@inline
function inside(src: usize, w: i32, sx: f64, sy: f64, norm: v128): v128 {
  const x0 = <i32>sx;
  const y0 = <i32>sy;
  const fx = f32x4.splat(<f32>(sx - <f64>x0));
  const fy = f32x4.splat(<f32>(sy - <f64>y0));
  const p = src + ((<usize>(y0 * w + x0)) << 2);
  const upper = i16x8.extend_low_i8x16_u(v128.load64_zero(p));
  const lower = i16x8.extend_low_i8x16_u(v128.load64_zero(p + (<usize>w << 2)));
  const p00 = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(upper));
  const p10 = f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(upper));
  const p01 = f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(lower));
  const p11 = f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(lower));
  const top = f32x4.add(p00, f32x4.mul(fx, f32x4.sub(p10, p00)));
  const bottom = f32x4.add(p01, f32x4.mul(fx, f32x4.sub(p11, p01)));
  return f32x4.mul(f32x4.add(top, f32x4.mul(fy, f32x4.sub(bottom, top))), norm);
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

/**
 * Bilinear affine sampling of an RGBA8 picture into a planar tile. Tile pixel (i, j) reads the picture at
 * (a·i + c·j + e, b·i + d·j + f) in its own pixels, centres at .5. edge 0: transparent outside with a one-pixel soft border,
 * 1: wrap, 2: extend. `mix` below 1 blends into what the tile holds (two mip levels).
 */
export function sampleAffine(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, edge: i32, mix: f32,
): void {
  const norm = f32x4.splat(1.0 / 255.0);
  const part = f32x4.splat(mix);
  const rest = f32x4.splat(1 - mix);
  // Width of the soft border, in source pixels, is one tile pixel.
  const soft: f64 = max<f64>(Math.sqrt(a * a + b * b), 1e-6);
  for (let j = 0; j < th; j++) {
    let i = 0;
    // A row whose ends lie well inside lies inside: no edges to mind, four pixels at a time. The values are the same to the bit.
    const xs: f64 = c * (<f64>j + 0.5) + e;
    const ys: f64 = d * (<f64>j + 0.5) + f;
    const xe: f64 = a * <f64>tw + xs;
    const ye: f64 = b * <f64>tw + ys;
    const rim: f64 = 2 + soft;
    if (mix >= 1 && min<f64>(xs, xe) > rim && max<f64>(xs, xe) < <f64>w - rim && min<f64>(ys, ye) > rim && max<f64>(ys, ye) < <f64>h - rim) {
      let at = dst + ((<usize>(j * tw)) << 2);
      for (; i + 4 <= tw; i += 4) {
        const p0 = inside(src, w, a * (<f64>i + 0.5) + c * (<f64>j + 0.5) + e - 0.5, b * (<f64>i + 0.5) + d * (<f64>j + 0.5) + f - 0.5, norm);
        const p1 = inside(src, w, a * (<f64>i + 1.5) + c * (<f64>j + 0.5) + e - 0.5, b * (<f64>i + 1.5) + d * (<f64>j + 0.5) + f - 0.5, norm);
        const p2 = inside(src, w, a * (<f64>i + 2.5) + c * (<f64>j + 0.5) + e - 0.5, b * (<f64>i + 2.5) + d * (<f64>j + 0.5) + f - 0.5, norm);
        const p3 = inside(src, w, a * (<f64>i + 3.5) + c * (<f64>j + 0.5) + e - 0.5, b * (<f64>i + 3.5) + d * (<f64>j + 0.5) + f - 0.5, norm);
        putFour(at, stride, p0, p1, p2, p3);
        at += 16;
      }
    }
    for (; i < tw; i++) {
      const x: f64 = a * (<f64>i + 0.5) + c * (<f64>j + 0.5) + e;
      const y: f64 = b * (<f64>i + 0.5) + d * (<f64>j + 0.5) + f;
      const sx = x - 0.5;
      const sy = y - 0.5;
      const x0 = <i32>Math.floor(sx);
      const y0 = <i32>Math.floor(sy);
      const fx = f32x4.splat(<f32>(sx - <f64>x0));
      const fy = f32x4.splat(<f32>(sy - <f64>y0));
      const xa = edge == 1 ? wrapped(x0, w) : within(x0, w);
      const xb = edge == 1 ? wrapped(x0 + 1, w) : within(x0 + 1, w);
      const ya = edge == 1 ? wrapped(y0, h) : within(y0, h);
      const yb = edge == 1 ? wrapped(y0 + 1, h) : within(y0 + 1, h);
      const r0 = src + ((<usize>ya * <usize>w) << 2);
      const r1 = src + ((<usize>yb * <usize>w) << 2);
      const p00 = pixel(r0 + (<usize>xa << 2));
      const p10 = pixel(r0 + (<usize>xb << 2));
      const p01 = pixel(r1 + (<usize>xa << 2));
      const p11 = pixel(r1 + (<usize>xb << 2));
      const top = f32x4.add(p00, f32x4.mul(fx, f32x4.sub(p10, p00)));
      const bottom = f32x4.add(p01, f32x4.mul(fx, f32x4.sub(p11, p01)));
      let v = f32x4.mul(f32x4.add(top, f32x4.mul(fy, f32x4.sub(bottom, top))), norm);
      if (edge == 0) {
        const ex = min<f64>(x, <f64>w - x);
        const ey = min<f64>(y, <f64>h - y);
        const cover = <f32>max<f64>(0, min<f64>(1, min<f64>(ex, ey) / soft + 0.5));
        v = f32x4.replace_lane(v, 3, f32x4.extract_lane(v, 3) * cover);
      }
      const at = dst + ((<usize>(j * tw + i)) << 2);
      if (mix < 1) {
        let old = f32x4.splat(f32.load(at));
        old = f32x4.replace_lane(old, 1, f32.load(at + stride));
        old = f32x4.replace_lane(old, 2, f32.load(at + 2 * stride));
        old = f32x4.replace_lane(old, 3, f32.load(at + 3 * stride));
        v = f32x4.add(f32x4.mul(old, rest), f32x4.mul(v, part));
      }
      put(at, stride, v);
    }
  }
}

/** Exact area averaging: tile pixel (i, j) is the mean of the picture over [(x+i)·r, (x+i+1)·r) × [(y+j)·r, …), 1 ≤ r ≤ 2. */
export function sampleArea(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32, x: i32, y: i32, r: f64,
): void {
  const norm = <f32>(1.0 / (255.0 * r * r));
  if (r == 1 && x >= 0 && y >= 0 && x + tw <= w && y + th <= h) {
    // At full size every pixel is itself.
    const k = f32x4.splat(norm);
    for (let j = 0; j < th; j++) {
      let p = src + ((<usize>(y + j) * <usize>w + <usize>x) << 2);
      let at = dst + ((<usize>(j * tw)) << 2);
      let i = 0;
      for (; i + 4 <= tw; i += 4) {
        putFour(at, stride, f32x4.mul(pixel(p), k), f32x4.mul(pixel(p + 4), k), f32x4.mul(pixel(p + 8), k), f32x4.mul(pixel(p + 12), k));
        p += 16;
        at += 16;
      }
      for (; i < tw; i++) {
        put(at, stride, f32x4.mul(pixel(p), k));
        p += 4;
        at += 4;
      }
    }
    return;
  }
  for (let j = 0; j < th; j++) {
    const top: f64 = <f64>(y + j) * r;
    const bottom = top + r;
    const j0 = <i32>Math.floor(top + 1e-9);
    const j1 = <i32>Math.ceil(bottom - 1e-9);
    for (let i = 0; i < tw; i++) {
      const left: f64 = <f64>(x + i) * r;
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

/** Next mip level: 2×2 mean of an RGBA8 picture, the last row or column repeated for odd sizes. dst is ⌈w/2⌉ × ⌈h/2⌉. */
export function halve(src: usize, w: i32, h: i32, dst: usize): void {
  const dw = (w + 1) >> 1;
  const dh = (h + 1) >> 1;
  const half = i16x8.splat(2);
  for (let j = 0; j < dh; j++) {
    const r0 = src + ((<usize>(2 * j) * <usize>w) << 2);
    const r1 = src + ((<usize>min<i32>(2 * j + 1, h - 1) * <usize>w) << 2);
    for (let i = 0; i < dw; i++) {
      const xa = <usize>(2 * i) << 2;
      const xb = <usize>min<i32>(2 * i + 1, w - 1) << 2;
      const s = i16x8.add(
        i16x8.add(i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + xa)), i16x8.extend_low_i8x16_u(v128.load32_zero(r0 + xb))),
        i16x8.add(i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + xa)), i16x8.extend_low_i8x16_u(v128.load32_zero(r1 + xb))),
      );
      const m = i16x8.shr_u(i16x8.add(s, half), 2);
      v128.store32_lane(dst + ((<usize>(j * dw + i)) << 2), i8x16.narrow_i16x8_u(m, m), 0);
    }
  }
}

/** Planar tile to RGBA8, rounding to nearest. Writes a tw × th block into a picture of `pitch` pixels a row. */
export function packBytes(src: usize, stride: usize, tw: i32, th: i32, dst: usize, pitch: i32): void {
  const k = f32x4.splat(255);
  for (let j = 0; j < th; j++) {
    let out = dst + ((<usize>j * <usize>pitch) << 2);
    let p = src + ((<usize>(j * tw)) << 2);
    for (let i = 0; i < tw; i++) {
      let v = f32x4.splat(f32.load(p));
      v = f32x4.replace_lane(v, 1, f32.load(p + stride));
      v = f32x4.replace_lane(v, 2, f32.load(p + 2 * stride));
      v = f32x4.replace_lane(v, 3, f32.load(p + 3 * stride));
      const n = i32x4.trunc_sat_f32x4_s(f32x4.add(f32x4.mul(clamp4(v), k), f32x4.splat(0.5)));
      const h = i16x8.narrow_i32x4_u(n, n);
      v128.store32_lane(out, i8x16.narrow_i16x8_u(h, h), 0);
      p += 4;
      out += 4;
    }
  }
}

/** Planar f32 to planar u16, `planes` planes of `count` values (a multiple of 8): the 16-bit cache. */
export function pack16(src: usize, stride: usize, dst: usize, count: i32, planes: i32): void {
  const k = f32x4.splat(65535);
  for (let c = 0; c < planes; c++) {
    let p = src + <usize>c * stride;
    for (let i = 0; i < count; i += 8) {
      const lo = i32x4.trunc_sat_f32x4_u(f32x4.nearest(f32x4.mul(clamp4(v128.load(p)), k)));
      const hi = i32x4.trunc_sat_f32x4_u(f32x4.nearest(f32x4.mul(clamp4(v128.load(p + 16)), k)));
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
      v128.store(p, f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(v)), k));
      v128.store(p + 16, f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_high_i16x8_u(v)), k));
      p += 32;
      src += 16;
    }
  }
}

/** r' = a·r + b·g + c·b + d and so on, clamped to 0..1 as a filter primitive's result is (W3C Filter Effects, feColorMatrix). */
export function colorMatrix(
  tile: usize, stride: usize, count: i32,
  a0: f32, b0: f32, c0: f32, d0: f32, a1: f32, b1: f32, c1: f32, d1: f32, a2: f32, b2: f32, c2: f32, d2: f32,
): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = v128.load(p);
    const g = v128.load(p + stride);
    const b = v128.load(p + 2 * stride);
    v128.store(p, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(a0)), f32x4.mul(g, f32x4.splat(b0))), f32x4.add(f32x4.mul(b, f32x4.splat(c0)), f32x4.splat(d0)))));
    v128.store(p + stride, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(a1)), f32x4.mul(g, f32x4.splat(b1))), f32x4.add(f32x4.mul(b, f32x4.splat(c1)), f32x4.splat(d1)))));
    v128.store(p + 2 * stride, clamp4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(a2)), f32x4.mul(g, f32x4.splat(b2))), f32x4.add(f32x4.mul(b, f32x4.splat(c2)), f32x4.splat(d2)))));
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
