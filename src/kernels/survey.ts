// Local tone: luma taken apart into a smooth base, known from a small survey of the whole picture, and the detail that stands on it.
import { clamp4, floor4, putSome } from './math';

/**
 * Per pixel: base = slope·luma + offset, both read bilinearly from planes of sw × sh values over the whole picture; then
 * luma' = table(base) + detail·(luma − base), and the colour keeps its ratio to luma (at most `most` times as far from grey).
 * `x`, `y` is the tile's origin, `kx`, `ky` survey values a pixel. `table` holds `size` values over 0..1, none for a base that stays as it is; `line` has room for 2·sw values.
 */
export function localTone(
  tile: usize, stride: usize, tw: i32, th: i32, x: f32, y: f32, slope: usize, offset: usize, sw: i32, sh: i32, kx: f32, ky: f32,
  table: usize, size: i32, detail: f32, most: f32, line: usize,
): void {
  const top = f32x4.splat(<f32>(size - 1));
  const second = line + (<usize>sw << 2);
  // A tile beyond the picture reads the values at its edge.
  const left = min<i32>(sw - 1, max<i32>(0, <i32>((x + 0.5) * kx - 0.5)));
  const right = min<i32>(sw - 1, max<i32>(left, <i32>((x + <f32>tw) * kx) + 1));
  for (let j = 0; j < th; j++) {
    const v: f32 = max<f32>(0, min<f32>(<f32>(sh - 1), (y + <f32>j + 0.5) * ky - 0.5));
    const v0 = min<i32>(sh - 1, <i32>v);
    const a = <usize>(v0 * sw) << 2;
    const b = <usize>(min<i32>(sh - 1, v0 + 1) * sw) << 2;
    const fv: f32 = v - <f32>v0;
    // Both planes down to this row first, so that a pixel needs only two values of each.
    for (let i = left; i <= right; i++) {
      const q = <usize>i << 2;
      f32.store(line + q, mix(f32.load(slope + a + q), f32.load(slope + b + q), fv));
      f32.store(second + q, mix(f32.load(offset + a + q), f32.load(offset + b + q), fv));
    }
    for (let i = 0; i < tw; i += 4) {
      const u = f32x4.pmax(
        f32x4.splat(0),
        f32x4.pmin(f32x4.splat(<f32>(sw - 1)), f32x4.sub(f32x4.mul(f32x4.add(f32x4.splat(x + <f32>i + 0.5), f32x4(0, 1, 2, 3)), f32x4.splat(kx)), f32x4.splat(0.5))),
      );
      const whole = floor4(u);
      const fu = f32x4.sub(u, f32x4.convert_i32x4_s(whole));
      let slopes: v128;
      let offsets: v128;
      const k0 = i32x4.extract_lane(whole, 0);
      if (k0 == i32x4.extract_lane(whole, 3) && k0 + 1 < sw) {
        // All four between the same two values, as nearly always when much is made of little.
        const q = <usize>k0 << 2;
        const s0 = v128.load32_splat(line + q);
        const o0 = v128.load32_splat(second + q);
        slopes = f32x4.add(s0, f32x4.mul(fu, f32x4.sub(v128.load32_splat(line + q + 4), s0)));
        offsets = f32x4.add(o0, f32x4.mul(fu, f32x4.sub(v128.load32_splat(second + q + 4), o0)));
      } else {
        const s0 = between(line, whole, 0, sw);
        const o0 = between(second, whole, 0, sw);
        slopes = f32x4.add(s0, f32x4.mul(fu, f32x4.sub(between(line, whole, 1, sw), s0)));
        offsets = f32x4.add(o0, f32x4.mul(fu, f32x4.sub(between(second, whole, 1, sw), o0)));
      }
      const p = tile + (<usize>(j * tw + i) << 2);
      const red = v128.load(p);
      const green = v128.load(p + stride);
      const blue = v128.load(p + 2 * stride);
      const luma = f32x4.add(
        f32x4.add(f32x4.mul(red, f32x4.splat(0.2126)), f32x4.mul(green, f32x4.splat(0.7152))),
        f32x4.mul(blue, f32x4.splat(0.0722)),
      );
      const base = clamp4(f32x4.add(f32x4.mul(slopes, luma), offsets));
      let placed = base;
      if (size > 0) {
        const at = f32x4.mul(base, top);
        const cell = floor4(at);
        // Two neighbours of the table at once, for each of four values.
        const k = i32x4.shl(i32x4.min_s(cell, i32x4.splat(size - 2)), 2);
        const ab = v128.load64_lane(table + <usize>i32x4.extract_lane(k, 1), v128.load64_zero(table + <usize>i32x4.extract_lane(k, 0)), 1);
        const cd = v128.load64_lane(table + <usize>i32x4.extract_lane(k, 3), v128.load64_zero(table + <usize>i32x4.extract_lane(k, 2)), 1);
        const low = i32x4.shuffle(ab, cd, 0, 2, 4, 6);
        const high = i32x4.shuffle(ab, cd, 1, 3, 5, 7);
        placed = f32x4.add(low, f32x4.mul(f32x4.sub(at, f32x4.convert_i32x4_s(i32x4.min_s(cell, i32x4.splat(size - 2)))), f32x4.sub(high, low)));
      }
      const lit = soft4(f32x4.add(placed, f32x4.mul(f32x4.splat(detail), f32x4.sub(luma, base))));
      const ratio = f32x4.pmin(f32x4.splat(most), f32x4.div(lit, f32x4.pmax(f32x4.splat(0.004), luma)));
      const n = tw - i;
      put(p, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(red, luma), ratio))), n);
      put(p + stride, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(green, luma), ratio))), n);
      put(p + 2 * stride, clamp4(f32x4.add(lit, f32x4.mul(f32x4.sub(blue, luma), ratio))), n);
    }
  }
}

/** Luma of RGBA8 pixels as values 0..1, and how many of them lie nearest to each of 256 levels. */
export function lumaOf(pixels: usize, count: i32, luma: usize, counts: usize): void {
  memory.fill(counts, 0, 1024);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const p = pixels + i;
    const y: f32 = <f32>0.2126 * <f32>load<u8>(p) + <f32>0.7152 * <f32>load<u8>(p, 1) + <f32>0.0722 * <f32>load<u8>(p, 2);
    f32.store(luma + i, y * <f32>(1.0 / 255.0));
    const at = counts + (<usize>(y + 0.5) << 2);
    store<i32>(at, load<i32>(at) + 1);
  }
}

/** Values of a row at four places `more` further on, the last one extended. */
// @ts-ignore: decorator
@inline
function between(row: usize, whole: v128, more: i32, size: i32): v128 {
  const k = i32x4.shl(i32x4.min_s(i32x4.add(whole, i32x4.splat(more)), i32x4.splat(size - 1)), 2);
  return f32x4(
    f32.load(row + <usize>i32x4.extract_lane(k, 0)),
    f32.load(row + <usize>i32x4.extract_lane(k, 1)),
    f32.load(row + <usize>i32x4.extract_lane(k, 2)),
    f32.load(row + <usize>i32x4.extract_lane(k, 3)),
  );
}

// @ts-ignore: decorator
@inline
function put(at: usize, v: v128, n: i32): void {
  if (n > 3) v128.store(at, v);
  else putSome(at, v, n);
}

// @ts-ignore: decorator
@inline
function mix(a: f32, b: f32, t: f32): f32 {
  return a + (b - a) * t;
}

/** 0..1 with rounded ends, so that detail near black and white is pressed together rather than cut off; the identity in between. */
// @ts-ignore: decorator
@inline
function soft4(v: v128): v128 {
  const k = f32x4.splat(1.0 / 0.12);
  const low = f32x4.pmax(f32x4.splat(0), f32x4.add(v, f32x4.splat(0.03)));
  const high = f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.splat(1.03), v));
  const foot = f32x4.mul(f32x4.mul(low, low), k);
  const head = f32x4.sub(f32x4.splat(1), f32x4.mul(f32x4.mul(high, high), k));
  return v128.bitselect(foot, v128.bitselect(head, v, f32x4.gt(v, f32x4.splat(0.97))), f32x4.lt(v, f32x4.splat(0.03)));
}
