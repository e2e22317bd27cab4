// Mask parts: an ellipse, brush dabs, and the range of tones of what lies below.
import { smooth1 } from './math';

/** Multiplies 1 − v, lifts by v or keeps v, by op: 0 add (m + (1−m)v), 1 subtract (m(1−v)), 2 intersect (m·v). */
// @ts-ignore: decorator
@inline
function combine(m: f32, v: f32, op: i32): f32 {
  if (op == 0) return m + (1 - m) * v;
  if (op == 1) return m * (1 - v);
  return m * v;
}

/**
 * Ellipse with a feathered edge. (cx, cy), (rx, ry) in tile pixels, turn given by its cosine and sine. 1 inside the radius
 * 1 − feather, 0 outside 1, smoothstep between; times density.
 */
export function maskEllipse(
  mask: usize, tw: i32, th: i32, cx: f32, cy: f32, rx: f32, ry: f32, cos: f32, sin: f32, feather: f32, density: f32, op: i32,
): void {
  // Never steeper than one pixel, so that a hard edge is anti-aliased.
  const edge = max<f32>(feather, 1 / max<f32>(1, min<f32>(rx, ry)));
  const inner: f32 = 1 - edge;
  for (let j = 0; j < th; j++) {
    for (let i = 0; i < tw; i++) {
      const dx: f32 = <f32>i + 0.5 - cx;
      const dy: f32 = <f32>j + 0.5 - cy;
      const u = (dx * cos + dy * sin) / rx;
      const v = (dy * cos - dx * sin) / ry;
      const d = sqrt<f32>(u * u + v * v);
      const value: f32 = (<f32>1 - smooth1(inner, 1, d)) * density;
      const p = mask + ((<usize>(j * tw + i)) << 2);
      f32.store(p, combine(f32.load(p), value, op));
    }
  }
}

/**
 * Round dabs into a stroke's cover plane: c += (1 − c)·flow·tip. `dabs` holds (x, y, radius, flow) in tile pixels, f32, `count`
 * of them; the tip is 1 up to hardness·radius and falls by smoothstep to 0 at the radius.
 */
export function stampDabs(cover: usize, tw: i32, th: i32, dabs: usize, count: i32, hardness: f32): void {
  for (let k = 0; k < count; k++) {
    const d = dabs + (<usize>k << 4);
    const x = f32.load(d);
    const y = f32.load(d + 4);
    const r = max<f32>(0.5, f32.load(d + 8));
    const flow = f32.load(d + 12);
    const x0 = max<i32>(0, <i32>floor<f32>(x - r - 1));
    const x1 = min<i32>(tw - 1, <i32>ceil<f32>(x + r + 1));
    const y0 = max<i32>(0, <i32>floor<f32>(y - r - 1));
    const y1 = min<i32>(th - 1, <i32>ceil<f32>(y + r + 1));
    // A tip with hardness 1 still has a one-pixel edge.
    const inner = min<f32>(r * hardness, r - 0.5);
    const outer = max<f32>(r, inner + 1);
    for (let j = y0; j <= y1; j++) {
      const dy: f32 = <f32>j + 0.5 - y;
      for (let i = x0; i <= x1; i++) {
        const dx: f32 = <f32>i + 0.5 - x;
        const dist = sqrt<f32>(dx * dx + dy * dy);
        if (dist >= outer) continue;
        const p = cover + ((<usize>(j * tw + i)) << 2);
        const c = f32.load(p);
        f32.store(p, c + (1 - c) * flow * (1 - smooth1(inner, outer, dist)));
      }
    }
  }
}

/** m += (target − m)·strength·cover: a whole stroke laid onto the mask, bounded by its strength. */
export function applyStroke(mask: usize, cover: usize, count: i32, target: f32, strength: f32): void {
  const t = f32x4.splat(target);
  const s = f32x4.splat(strength);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const m = v128.load(mask + i);
    v128.store(mask + i, f32x4.add(m, f32x4.mul(f32x4.sub(t, m), f32x4.mul(s, v128.load(cover + i)))));
  }
}

/** Tonal limits on Rec. 709 luma of the encoded backdrop: 0 under b0, rising to 1 at b1, falling from w0 to 0 at w1. */
export function maskLimits(mask: usize, tile: usize, stride: usize, count: i32, b0: f32, b1: f32, w0: f32, w1: f32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const up = f32x4.splat(1 / max<f32>(b1 - b0, 1e-6));
  const down = f32x4.splat(1 / max<f32>(w1 - w0, 1e-6));
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const y = f32x4.add(
      f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(0.2126)), f32x4.mul(v128.load(p + stride), f32x4.splat(0.7152))),
      f32x4.mul(v128.load(p + 2 * stride), f32x4.splat(0.0722)),
    );
    let m = v128.load(mask + i);
    if (b1 > 0) m = f32x4.mul(m, f32x4.max(zero, f32x4.min(one, f32x4.mul(f32x4.sub(y, f32x4.splat(b0)), up))));
    if (w0 < 1) m = f32x4.mul(m, f32x4.max(zero, f32x4.min(one, f32x4.mul(f32x4.sub(f32x4.splat(w1), y), down))));
    v128.store(mask + i, m);
  }
}
