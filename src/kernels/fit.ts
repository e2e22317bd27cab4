// What makes a picture fit as a material, in place and at full size: RGBA8, or RGBA16 where `deep` is 1.
import { clamp4, decode4, encode4 } from './math';
import { mixed } from './sample';

// @ts-ignore: decorator
@inline
function load(p: usize, deep: i32): v128 {
  if (deep) return f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(v128.load64_zero(p))), f32x4.splat(<f32>(1.0 / 65535.0)));
  return f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p)))), f32x4.splat(<f32>(1.0 / 255.0)));
}

// @ts-ignore: decorator
@inline
function store(p: usize, deep: i32, v: v128): void {
  const most: f32 = deep ? 65535 : 255;
  const whole = i32x4.trunc_sat_f32x4_u(f32x4.nearest(f32x4.mul(clamp4(v), f32x4.splat(most))));
  const half = i16x8.narrow_i32x4_u(whole, whole);
  if (deep) v128.store64_lane(p, half, 0);
  else v128.store32_lane(p, i8x16.narrow_i16x8_u(half, half), 0);
}

/** Copies w × h pixels from rows of `pitch` pixels to rows of w, without their colour where `grey` is 1 (Rec. 709 luma). */
export function copyPart(src: usize, pitch: i32, dst: usize, w: i32, h: i32, deep: i32, grey: i32): void {
  const size: usize = deep ? 8 : 4;
  for (let j = 0; j < h; j++) {
    let p = src + <usize>j * <usize>pitch * size;
    let q = dst + <usize>j * <usize>w * size;
    if (!grey) {
      memory.copy(q, p, <usize>w * size);
      continue;
    }
    for (let i = 0; i < w; i++, p += size, q += size) {
      const v = load(p, deep);
      const luma: f32 = <f32>0.2126 * f32x4.extract_lane(v, 0) + <f32>0.7152 * f32x4.extract_lane(v, 1) + <f32>0.0722 * f32x4.extract_lane(v, 2);
      store(q, deep, f32x4.replace_lane(f32x4.splat(luma), 3, f32x4.extract_lane(v, 3)));
    }
  }
}

/** Multiplies by a gain in linear light; `grid` holds gw × gh gains, read between. */
export function evenLight(at: usize, w: i32, h: i32, deep: i32, grid: usize, gw: i32, gh: i32): void {
  const size: usize = deep ? 8 : 4;
  let p = at;
  for (let j = 0; j < h; j++) {
    const v = max<f32>(0, min<f32>(<f32>(gh - 1), ((<f32>j + 0.5) / <f32>h) * <f32>gh - 0.5));
    const y0 = <i32>v;
    const y1 = min<i32>(y0 + 1, gh - 1);
    const fy = v - <f32>y0;
    const up = grid + ((<usize>(y0 * gw)) << 2);
    const low = grid + ((<usize>(y1 * gw)) << 2);
    for (let i = 0; i < w; i++, p += size) {
      const u = max<f32>(0, min<f32>(<f32>(gw - 1), ((<f32>i + 0.5) / <f32>w) * <f32>gw - 0.5));
      const x0 = <usize>(<i32>u) << 2;
      const x1 = <usize>min<i32>(<i32>u + 1, gw - 1) << 2;
      const fx = u - <f32>(<i32>u);
      const a = f32.load(up + x0) * (1 - fx) + f32.load(up + x1) * fx;
      const b = f32.load(low + x0) * (1 - fx) + f32.load(low + x1) * fx;
      const c = load(p, deep);
      const lit = encode4(f32x4.mul(decode4(c), f32x4.splat(a * (1 - fy) + b * fy)));
      store(p, deep, f32x4.replace_lane(lit, 3, f32x4.extract_lane(c, 3)));
    }
  }
}

/** 1 well before the cut, 0 well behind it. */
// @ts-ignore: decorator
@inline
function before(cut: f32, x: i32, feather: f32): f32 {
  const t = max<f32>(0, min<f32>(1, (cut - <f32>x - 0.5) / feather + 0.5));
  return t * t * (3 - 2 * t);
}

/**
 * Lays the last `overlap` columns over the first and takes them off at the right: left of each row's cut stands what continues the right
 * edge. Rows of w pixels become rows of w − overlap. `cuts`: one f32 a row.
 */
export function stitchAcross(at: usize, w: i32, h: i32, overlap: i32, cuts: usize, feather: f32, deep: i32): void {
  const size: usize = deep ? 8 : 4;
  for (let j = 0; j < h; j++) {
    const row = at + <usize>j * <usize>w * size;
    const cut = f32.load(cuts + (<usize>j << 2));
    for (let i = 0; i < overlap; i++) {
      const p = row + <usize>i * size;
      const t = before(cut, i, feather);
      if (t > 0) store(p, deep, mixed(load(p, deep), load(row + <usize>(w - overlap + i) * size, deep), t));
    }
    memory.copy(at + <usize>j * <usize>(w - overlap) * size, row, <usize>(w - overlap) * size);
  }
}

/** Lays the last `overlap` rows over the first; the picture is then h − overlap rows high. `cuts`: one f32 a column. */
export function stitchDown(at: usize, w: i32, h: i32, overlap: i32, cuts: usize, feather: f32, deep: i32): void {
  const size: usize = deep ? 8 : 4;
  for (let j = 0; j < overlap; j++) {
    const row = at + <usize>j * <usize>w * size;
    const other = at + <usize>(h - overlap + j) * <usize>w * size;
    for (let i = 0; i < w; i++) {
      const p = row + <usize>i * size;
      const t = before(f32.load(cuts + (<usize>i << 2)), j, feather);
      if (t > 0) store(p, deep, mixed(load(p, deep), load(other + <usize>i * size, deep), t));
    }
  }
}
