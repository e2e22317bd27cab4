// Local tone: luma taken apart into a smooth base, known from a small survey of the whole picture, and the detail that stands on it.
import { clamp4 } from './math';

/**
 * Per pixel: base = slope·luma + offset, both read bilinearly from planes of sw × sh values over the whole picture; then
 * luma' = table(base) + detail·(luma − base), and the colour keeps its ratio to luma (at most `most` times as far from grey).
 * `x`, `y` is the tile's origin, `kx`, `ky` survey values a pixel. `table` holds `size` values over 0..1.
 */
export function localTone(
  tile: usize, stride: usize, tw: i32, th: i32, x: f32, y: f32, slope: usize, offset: usize, sw: i32, sh: i32, kx: f32, ky: f32,
  table: usize, size: i32, detail: f32, most: f32,
): void {
  const top = <f32>(size - 1);
  for (let j = 0; j < th; j++) {
    const v: f32 = max<f32>(0, min<f32>(<f32>(sh - 1), (y + <f32>j + 0.5) * ky - 0.5));
    const v0 = min<i32>(sh - 1, <i32>v);
    const v1 = min<i32>(sh - 1, v0 + 1);
    const fv: f32 = v - <f32>v0;
    for (let i = 0; i < tw; i++) {
      const u: f32 = max<f32>(0, min<f32>(<f32>(sw - 1), (x + <f32>i + 0.5) * kx - 0.5));
      const u0 = min<i32>(sw - 1, <i32>u);
      const u1 = min<i32>(sw - 1, u0 + 1);
      const fu: f32 = u - <f32>u0;
      const p00 = <usize>(v0 * sw + u0) << 2;
      const p01 = <usize>(v0 * sw + u1) << 2;
      const p10 = <usize>(v1 * sw + u0) << 2;
      const p11 = <usize>(v1 * sw + u1) << 2;
      const a: f32 = mix(mix(f32.load(slope + p00), f32.load(slope + p01), fu), mix(f32.load(slope + p10), f32.load(slope + p11), fu), fv);
      const b: f32 = mix(mix(f32.load(offset + p00), f32.load(offset + p01), fu), mix(f32.load(offset + p10), f32.load(offset + p11), fu), fv);
      const p = tile + (<usize>(j * tw + i) << 2);
      const red: f32 = f32.load(p);
      const green: f32 = f32.load(p + stride);
      const blue: f32 = f32.load(p + 2 * stride);
      const luma: f32 = <f32>0.2126 * red + <f32>0.7152 * green + <f32>0.0722 * blue;
      const base: f32 = max<f32>(0, min<f32>(1, a * luma + b));
      const at: f32 = base * top;
      const k = min<i32>(<i32>at, size - 2);
      const q = table + (<usize>k << 2);
      const low: f32 = f32.load(q);
      const placed: f32 = low + (f32.load(q + 4) - low) * (at - <f32>k);
      const lit: f32 = soft(placed + detail * (luma - base));
      const ratio: f32 = min<f32>(most, lit / max<f32>(0.004, luma));
      const v4 = f32x4(red, green, blue, 0);
      const out = clamp4(f32x4.add(f32x4.splat(lit), f32x4.mul(f32x4.sub(v4, f32x4.splat(luma)), f32x4.splat(ratio))));
      f32.store(p, f32x4.extract_lane(out, 0));
      f32.store(p + stride, f32x4.extract_lane(out, 1));
      f32.store(p + 2 * stride, f32x4.extract_lane(out, 2));
    }
  }
}

// @ts-ignore: decorator
@inline
function mix(a: f32, b: f32, t: f32): f32 {
  return a + (b - a) * t;
}

/** 0..1 with rounded ends, so that detail near black and white is pressed together rather than cut off; the identity in between. */
// @ts-ignore: decorator
@inline
function soft(v: f32): f32 {
  if (v < 0.03) return v > -0.03 ? (v + 0.03) * (v + 0.03) * <f32>(1.0 / 0.12) : 0;
  if (v > 0.97) return v < 1.03 ? <f32>1 - (<f32>1.03 - v) * (<f32>1.03 - v) * <f32>(1.0 / 0.12) : 1;
  return v;
}
