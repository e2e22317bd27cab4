// Regions of a photo: outlines filled, likeness to a colour, geodesic distance, discs, and planes of bytes.
import { clamp4, exp4 } from './math';

/**
 * Adds the coverage of a polygon (even-odd) to a plane, up to 1: exact across, four lines to a pixel down. `points` holds `count` pairs of
 * f32 in pixels; `crossings` has room for `count` f32.
 */
export function fillPolygon(dst: usize, w: i32, h: i32, points: usize, count: i32, crossings: usize): void {
  let top: f32 = 1e9;
  let bottom: f32 = -1e9;
  for (let k = 0; k < count; k++) {
    const y = f32.load(points + (<usize>k << 3), 4);
    top = min<f32>(top, y);
    bottom = max<f32>(bottom, y);
  }
  const j0 = max<i32>(0, <i32>floor<f32>(max<f32>(top, -1)));
  const j1 = min<i32>(h - 1, <i32>floor<f32>(min<f32>(bottom, <f32>h)));
  for (let j = j0; j <= j1; j++) {
    const row = dst + ((<usize>j * <usize>w) << 2);
    for (let s = 0; s < 4; s++) {
      const y: f32 = <f32>j + (<f32>s + 0.5) * 0.25;
      let n = 0;
      for (let k = 0; k < count; k++) {
        const a = points + (<usize>k << 3);
        const b = points + (<usize>(k + 1 == count ? 0 : k + 1) << 3);
        const ya = f32.load(a, 4);
        const yb = f32.load(b, 4);
        if (ya <= y == yb <= y) continue;
        const xa = f32.load(a);
        const x = xa + ((f32.load(b) - xa) * (y - ya)) / (yb - ya);
        let i = n++;
        for (; i > 0; i--) {
          const before = f32.load(crossings + (<usize>(i - 1) << 2));
          if (before <= x) break;
          f32.store(crossings + (<usize>i << 2), before);
        }
        f32.store(crossings + (<usize>i << 2), x);
      }
      for (let i = 0; i + 1 < n; i += 2) {
        const x0 = max<f32>(0, f32.load(crossings + (<usize>i << 2)));
        const x1 = min<f32>(<f32>w, f32.load(crossings + (<usize>i << 2), 4));
        for (let p = <i32>x0, end = <i32>ceil<f32>(x1); p < end; p++) {
          const cover: f32 = min<f32>(x1, <f32>p + 1) - max<f32>(x0, <f32>p);
          const at = row + (<usize>p << 2);
          f32.store(at, min<f32>(1, f32.load(at) + 0.25 * max<f32>(0, cover)));
        }
      }
    }
  }
}

/** Weighted sums of two planes: w, w·a, w·b, w·a², w·a·b, w·b² as f64 at `out`. */
export function weightedMoments(weight: usize, a: usize, b: usize, count: i32, out: usize): void {
  let s0: f64 = 0, s1: f64 = 0, s2: f64 = 0, s3: f64 = 0, s4: f64 = 0, s5: f64 = 0;
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const w: f64 = <f64>f32.load(weight + i);
    if (w == 0) continue;
    const u: f64 = <f64>f32.load(a + i);
    const v: f64 = <f64>f32.load(b + i);
    s0 += w;
    s1 += w * u;
    s2 += w * v;
    s3 += w * u * u;
    s4 += w * u * v;
    s5 += w * v * v;
  }
  f64.store(out, s0);
  f64.store(out, s1, 8);
  f64.store(out, s2, 16);
  f64.store(out, s3, 24);
  f64.store(out, s4, 32);
  f64.store(out, s5, 40);
}

/** exp(−max(0, d² − free) / 2), d the Mahalanobis distance of (a, b) from (ma, mb) with the inverse covariance (iaa, iab, ibb). */
export function likeness(a: usize, b: usize, dst: usize, count: i32, ma: f32, mb: f32, iaa: f32, iab: f32, ibb: f32, free: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const u = f32x4.sub(v128.load(a + i), f32x4.splat(ma));
    const v = f32x4.sub(v128.load(b + i), f32x4.splat(mb));
    const d = f32x4.add(
      f32x4.mul(f32x4.mul(u, u), f32x4.splat(iaa)),
      f32x4.add(f32x4.mul(f32x4.mul(u, v), f32x4.splat(2 * iab)), f32x4.mul(f32x4.mul(v, v), f32x4.splat(ibb))),
    );
    const over = f32x4.pmin(f32x4.splat(60), f32x4.pmax(f32x4.splat(0), f32x4.sub(d, f32x4.splat(free))));
    v128.store(dst + i, exp4(f32x4.mul(over, f32x4.splat(-0.5))));
  }
}

// @ts-ignore: decorator
@inline
function step(dist: usize, a: usize, b: usize, c: usize, p: usize, q: usize, span: f32, gamma: f32, best: f32): f32 {
  const there = f32.load(dist + q);
  if (there >= best) return best;
  const da = f32.load(a + p) - f32.load(a + q);
  const db = f32.load(b + p) - f32.load(b + q);
  const dc = f32.load(c + p) - f32.load(c + q);
  return min<f32>(best, there + sqrt<f32>(span * span + gamma * gamma * (da * da + db * db + dc * dc)));
}

/**
 * Geodesic distance by raster sweeps (Criminisi, Sharp & Blake, GeoS, 2008): a step costs the root of its length squared plus gamma² times the
 * squared difference of the three planes. `dist` is 0 at seeds and large elsewhere.
 */
export function geodesic(dist: usize, a: usize, b: usize, c: usize, w: i32, h: i32, gamma: f32, sweeps: i32): void {
  const row = <usize>w << 2;
  const d: f32 = 1.41421356;
  for (let s = 0; s < sweeps; s++) {
    const back = (s & 1) == 1;
    for (let jj = 0; jj < h; jj++) {
      const j = back ? h - 1 - jj : jj;
      const base = <usize>j * row;
      const other = back ? base + row : base - row;
      const inside = back ? j + 1 < h : j > 0;
      for (let ii = 0; ii < w; ii++) {
        const i = back ? w - 1 - ii : ii;
        const p = base + (<usize>i << 2);
        let best = f32.load(dist + p);
        if (back ? i + 1 < w : i > 0) best = step(dist, a, b, c, p, back ? p + 4 : p - 4, 1, gamma, best);
        if (inside) {
          const q = other + (<usize>i << 2);
          best = step(dist, a, b, c, p, q, 1, gamma, best);
          if (i > 0) best = step(dist, a, b, c, p, q - 4, d, gamma, best);
          if (i + 1 < w) best = step(dist, a, b, c, p, q + 4, d, gamma, best);
        }
        f32.store(dist + p, best);
      }
    }
  }
}

/**
 * Greatest value within a disc of whole `radius` about each pixel; beyond the plane there is nothing. `table` has room for
 * (⌊log2(2·radius + 1)⌋ + 1) planes of (w + 2·radius + 4) · h f32: running maxima of rows over 1, 2, 4 … pixels.
 */
export function widen(src: usize, dst: usize, w: i32, h: i32, radius: i32, table: usize): void {
  const pitch = w + 2 * radius + 4;
  const plane = (<usize>pitch * <usize>h) << 2;
  for (let j = 0; j < h; j++) {
    const row = table + ((<usize>j * <usize>pitch) << 2);
    memory.fill(row, 0, <usize>pitch << 2);
    memory.copy(row + (<usize>radius << 2), src + ((<usize>j * <usize>w) << 2), <usize>w << 2);
  }
  let levels = 1;
  for (let span = 1; span * 2 <= 2 * radius + 1; span *= 2, levels++) {
    const from = table + <usize>(levels - 1) * plane;
    const to = from + plane;
    for (let j = 0; j < h; j++) {
      const a = from + ((<usize>j * <usize>pitch) << 2);
      const b = to + ((<usize>j * <usize>pitch) << 2);
      let i = 0;
      for (; i + 4 + span <= pitch; i += 4)
        v128.store(b + (<usize>i << 2), f32x4.pmax(v128.load(a + (<usize>i << 2)), v128.load(a + (<usize>(i + span) << 2))));
      for (; i < pitch; i++) {
        const v = f32.load(a + (<usize>i << 2));
        f32.store(b + (<usize>i << 2), i + span < pitch ? max<f32>(v, f32.load(a + (<usize>(i + span) << 2))) : v);
      }
    }
  }
  for (let j = 0; j < h; j++) {
    const out = dst + ((<usize>j * <usize>w) << 2);
    memory.fill(out, 0, <usize>w << 2);
    for (let dy = -radius; dy <= radius; dy++) {
      if (j + dy < 0 || j + dy >= h) continue;
      const half = <i32>sqrt<f32>(<f32>(radius * radius - dy * dy) + 0.01);
      let level = 0;
      while (2 << level <= 2 * half + 1) level++;
      const row = table + <usize>level * plane + ((<usize>(j + dy) * <usize>pitch) << 2);
      const a = row + (<usize>(radius - half) << 2);
      const b = row + (<usize>(radius + half - (1 << level) + 1) << 2);
      let i = 0;
      for (; i + 4 <= w; i += 4) {
        const p = <usize>i << 2;
        v128.store(out + p, f32x4.pmax(v128.load(out + p), f32x4.pmax(v128.load(a + p), v128.load(b + p))));
      }
      for (; i < w; i++) {
        const p = <usize>i << 2;
        f32.store(out + p, max<f32>(f32.load(out + p), max<f32>(f32.load(a + p), f32.load(b + p))));
      }
    }
  }
}

/** A plane 0..1 as bytes. */
export function packPlane(src: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i++) {
    const v = min<f32>(1, max<f32>(0, f32.load(src + (<usize>i << 2))));
    store<u8>(dst + <usize>i, <u8>(v * 255 + 0.5));
  }
}

/** Bytes as a plane 0..1. */
export function unpackPlane(src: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i++) f32.store(dst + (<usize>i << 2), <f32>load<u8>(src + <usize>i) * (1 / 255.0));
}

/** A plane 0..1 as an opaque grey picture, RGBA8. */
export function greyPicture(src: usize, dst: usize, count: i32): void {
  for (let i = 0; i < count; i++) {
    const v = <u32>(min<f32>(1, max<f32>(0, f32.load(src + (<usize>i << 2)))) * 255 + 0.5);
    store<u32>(dst + (<usize>i << 2), v | (v << 8) | (v << 16) | 0xff000000);
  }
}

/** What a region leaves of a mask: m · (1 − amount · v). */
export function holdBack(mask: usize, region: usize, count: i32, amount: f32): void {
  const a = f32x4.splat(-amount);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = clamp4(v128.load(region + i));
    v128.store(mask + i, f32x4.mul(v128.load(mask + i), f32x4.add(f32x4.splat(1), f32x4.mul(a, v))));
  }
}

/**
 * A coat held back in its marks by `guard` and in its tone by `tone`, three planes in place: below + (1 − a·guard)·(free − below) + a·(guard − tone)·low. `low` is
 * the low-pass of what the coat changes.
 */
export function follow(free: usize, below: usize, low: usize, guard: usize, tone: usize, stride: usize, lowStride: usize, count: i32, amount: f32): void {
  const a = f32x4.splat(amount);
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const held = f32x4.mul(a, clamp4(v128.load(guard + i)));
    const passes = f32x4.pmax(f32x4.splat(0), f32x4.sub(held, f32x4.mul(a, clamp4(v128.load(tone + i)))));
    for (let c: usize = 0; c < 3; c++) {
      const p = free + c * stride + i;
      const b = v128.load(below + c * stride + i);
      const kept = f32x4.add(b, f32x4.mul(f32x4.sub(one, held), f32x4.sub(v128.load(p), b)));
      v128.store(p, clamp4(f32x4.add(kept, f32x4.mul(passes, v128.load(low + c * lowStride + i)))));
    }
  }
}

/** plane · grid[a, b]: each pixel times what a grid of n × n values has for its two planes −1..1. */
export function timesGrid(plane: usize, a: usize, b: usize, count: i32, grid: usize, n: i32): void {
  const half: f32 = <f32>n * 0.5;
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const v = f32.load(plane + i);
    if (v == 0) continue;
    const x = max<i32>(0, min<i32>(n - 1, <i32>((f32.load(a + i) + 1) * half)));
    const y = max<i32>(0, min<i32>(n - 1, <i32>((f32.load(b + i) + 1) * half)));
    f32.store(plane + i, v * f32.load(grid + (<usize>(y * n + x) << 2)));
  }
}
