// Mask parts: an ellipse, brush dabs, and the range of tones of what lies below.
import { clamp4, putSome } from './math';

/** Multiplies 1 − v, lifts by v or keeps v, by op: 0 add (m + (1−m)v), 1 subtract (m(1−v)), 2 intersect (m·v). */
// @ts-ignore: decorator
@inline
function combine(m: v128, v: v128, op: i32): v128 {
  if (op == 0) return f32x4.add(m, f32x4.mul(f32x4.sub(f32x4.splat(1), m), v));
  if (op == 1) return f32x4.mul(m, f32x4.sub(f32x4.splat(1), v));
  return f32x4.mul(m, v);
}

/** 1 up to `inner`, falling by smoothstep to 0 at inner + 1/steep. */
// @ts-ignore: decorator
@inline
function fall(distance: v128, inner: v128, steep: v128): v128 {
  const t = clamp4(f32x4.mul(f32x4.sub(distance, inner), steep));
  return f32x4.sub(f32x4.splat(1), f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t))));
}

/**
 * Ellipse with a feathered edge. (cx, cy), (rx, ry) in tile pixels, turn given by its cosine and sine. 1 inside the radius
 * 1 − feather, 0 outside 1, smoothstep between; times density. `mask` has room for three values beyond its last.
 */
export function maskEllipse(
  mask: usize, tw: i32, th: i32, cx: f32, cy: f32, rx: f32, ry: f32, cos: f32, sin: f32, feather: f32, density: f32, op: i32,
): void {
  // Never steeper than one pixel, so that a hard edge is anti-aliased.
  const edge = max<f32>(feather, 1 / max<f32>(1, min<f32>(rx, ry)));
  const inner = f32x4.splat(<f32>1 - edge);
  const steep = f32x4.splat(<f32>1 / edge);
  const dense = f32x4.splat(density);
  const stepU = f32x4.splat(cos / rx);
  const stepV = f32x4.splat(-sin / ry);
  for (let j = 0; j < th; j++) {
    const dy: f32 = <f32>j + 0.5 - cy;
    const u0 = f32x4.splat((dy * sin) / rx);
    const v0 = f32x4.splat((dy * cos) / ry);
    const row = mask + ((<usize>(j * tw)) << 2);
    for (let i = 0; i < tw; i += 4) {
      const dx = f32x4.add(f32x4.splat(<f32>i + 0.5 - cx), f32x4(0, 1, 2, 3));
      const u = f32x4.add(f32x4.mul(dx, stepU), u0);
      const v = f32x4.add(f32x4.mul(dx, stepV), v0);
      const squared = f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v));
      // Outside, adding and subtracting change nothing.
      if (op < 2 && i32x4.all_true(f32x4.ge(squared, f32x4.splat(1)))) continue;
      const d = f32x4.sqrt(squared);
      const p = row + (<usize>i << 2);
      putSome(p, combine(v128.load(p), f32x4.mul(fall(d, inner, steep), dense), op), tw - i);
    }
  }
}

/**
 * Round dabs into a stroke's cover plane: c += (1 − c)·flow·tip. `dabs` holds (x, y, radius, flow) in tile pixels, f32, `count`
 * of them; the tip is 1 up to hardness·radius and falls by smoothstep to 0 at the radius. `cover` has room for three values
 * beyond its last.
 */
export function stampDabs(cover: usize, tw: i32, th: i32, dabs: usize, count: i32, hardness: f32): void {
  for (let k = 0; k < count; k++) {
    const d = dabs + (<usize>k << 4);
    const x = f32.load(d);
    const y = f32.load(d + 4);
    const r = max<f32>(0.5, f32.load(d + 8));
    const flow = f32x4.splat(f32.load(d + 12));
    const y0 = max<i32>(0, <i32>floor<f32>(y - r - 1));
    const y1 = min<i32>(th - 1, <i32>ceil<f32>(y + r + 1));
    // A tip with hardness 1 still has a one-pixel edge.
    const inner = min<f32>(r * hardness, r - 0.5);
    const outer = max<f32>(r, inner + 1);
    const from = f32x4.splat(inner);
    const steep = f32x4.splat(<f32>1 / (outer - inner));
    for (let j = y0; j <= y1; j++) {
      const dy: f32 = <f32>j + 0.5 - y;
      // Only as far across as the disc reaches in this row.
      const left: f32 = outer * outer - dy * dy;
      if (left <= 0) continue;
      const half = sqrt<f32>(left);
      const x0 = max<i32>(0, <i32>floor<f32>(x - half - 0.5));
      const x1 = min<i32>(tw, <i32>ceil<f32>(x + half + 0.5));
      const dy2 = f32x4.splat(dy * dy);
      const row = cover + ((<usize>(j * tw)) << 2);
      for (let i = x0; i < x1; i += 4) {
        const dx = f32x4.add(f32x4.splat(<f32>i + 0.5 - x), f32x4(0, 1, 2, 3));
        const tip = fall(f32x4.sqrt(f32x4.add(f32x4.mul(dx, dx), dy2)), from, steep);
        const p = row + (<usize>i << 2);
        const c = v128.load(p);
        putSome(p, f32x4.add(c, f32x4.mul(f32x4.mul(f32x4.sub(f32x4.splat(1), c), flow), tip)), x1 - i);
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
    if (b1 > 0) m = f32x4.mul(m, f32x4.pmax(zero, f32x4.pmin(one, f32x4.mul(f32x4.sub(y, f32x4.splat(b0)), up))));
    if (w0 < 1) m = f32x4.mul(m, f32x4.pmax(zero, f32x4.pmin(one, f32x4.mul(f32x4.sub(f32x4.splat(w1), y), down))));
    v128.store(mask + i, m);
  }
}
