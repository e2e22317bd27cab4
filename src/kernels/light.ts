// Light and colour of whole tiles: matrices in linear light, curves from a table, saturation with luma kept.
import { clamp4, decode4, encode4, floor4 } from './math';

/** Encoded sRGB to linear light, a 3 × 3 matrix, and back. Results outside 0..1 are clipped. */
export function linearMatrix(
  tile: usize, stride: usize, count: i32, m0: f32, m1: f32, m2: f32, m3: f32, m4: f32, m5: f32, m6: f32, m7: f32, m8: f32,
): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = decode4(v128.load(p));
    const g = decode4(v128.load(p + stride));
    const b = decode4(v128.load(p + 2 * stride));
    v128.store(p, encode4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m0)), f32x4.mul(g, f32x4.splat(m1))), f32x4.mul(b, f32x4.splat(m2)))));
    v128.store(p + stride, encode4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m3)), f32x4.mul(g, f32x4.splat(m4))), f32x4.mul(b, f32x4.splat(m5)))));
    v128.store(p + 2 * stride, encode4(f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(m6)), f32x4.mul(g, f32x4.splat(m7))), f32x4.mul(b, f32x4.splat(m8)))));
  }
}

/** plane = table(plane): `size` values over 0..1, straight lines between. */
export function applyTable(plane: usize, count: i32, table: usize, size: i32): void {
  const top = f32x4.splat(<f32>(size - 1));
  const last = i32x4.splat(size - 2);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const x = f32x4.mul(clamp4(v128.load(plane + i)), top);
    const k = i32x4.min_s(floor4(x), last);
    const at = i32x4.shl(k, 2);
    // Two neighbours of the table at once, for each of four values.
    const a = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 1), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 0)), 1);
    const b = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 3), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 2)), 1);
    const low = i32x4.shuffle(a, b, 0, 2, 4, 6);
    const high = i32x4.shuffle(a, b, 1, 3, 5, 7);
    v128.store(plane + i, f32x4.add(low, f32x4.mul(f32x4.sub(high, low), f32x4.sub(x, f32x4.convert_i32x4_s(k)))));
  }
}

/**
 * Distance of each colour from its grey (Rec. 709 luma Y of encoded values) times (1 + saturation)·(1 + vibrance·(1 − spread)), spread the
 * greatest component less the least; and Y moved by lightness·Y·(1 − Y).
 */
export function colourful(tile: usize, stride: usize, count: i32, saturation: f32, vibrance: f32, lightness: f32): void {
  const one = f32x4.splat(1);
  const base = f32x4.splat(1 + saturation);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = v128.load(p);
    const g = v128.load(p + stride);
    const b = v128.load(p + 2 * stride);
    const y = f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(g, f32x4.splat(0.7152))), f32x4.mul(b, f32x4.splat(0.0722)));
    const spread = f32x4.sub(f32x4.pmax(r, f32x4.pmax(g, b)), f32x4.pmin(r, f32x4.pmin(g, b)));
    const k = f32x4.mul(base, f32x4.add(one, f32x4.mul(f32x4.splat(vibrance), f32x4.sub(one, spread))));
    const lit = f32x4.add(y, f32x4.mul(f32x4.splat(lightness), f32x4.mul(y, f32x4.sub(one, y))));
    v128.store(p, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(r, y), k))));
    v128.store(p + stride, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(g, y), k))));
    v128.store(p + 2 * stride, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(b, y), k))));
  }
}
