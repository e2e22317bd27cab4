// Whole-plane arithmetic for materials: each a single pass over f32 planes whose length is a multiple of 4.
import { clamp4, exp4, ln4 } from './math';

/** dst = v. */
export function fill(dst: usize, count: i32, v: f32): void {
  const s = f32x4.splat(v);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(dst + i, s);
}

/** dst = a·dst + b·src + c. */
export function mixIn(dst: usize, src: usize, count: i32, a: f32, b: f32, c: f32): void {
  const ka = f32x4.splat(a);
  const kb = f32x4.splat(b);
  const kc = f32x4.splat(c);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    v128.store(dst + i, f32x4.add(f32x4.add(f32x4.mul(ka, v128.load(dst + i)), f32x4.mul(kb, v128.load(src + i))), kc));
  }
}

/** dst = dst·(a·src + b). */
export function times(dst: usize, src: usize, count: i32, a: f32, b: f32): void {
  const ka = f32x4.splat(a);
  const kb = f32x4.splat(b);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    v128.store(dst + i, f32x4.mul(v128.load(dst + i), f32x4.add(f32x4.mul(ka, v128.load(src + i)), kb)));
  }
}

/** dst += (src − dst)·weight. */
export function lerpTo(dst: usize, src: usize, weight: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const d = v128.load(dst + i);
    v128.store(dst + i, f32x4.add(d, f32x4.mul(f32x4.sub(v128.load(src + i), d), v128.load(weight + i))));
  }
}

/** dst = min(hi, max(lo, dst)). */
export function clampTo(dst: usize, count: i32, lo: f32, hi: f32): void {
  const l = f32x4.splat(lo);
  const h = f32x4.splat(hi);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(dst + i, f32x4.pmax(l, f32x4.pmin(h, v128.load(dst + i))));
}

/** dst = max(dst, src) when high, else min. */
export function extreme(dst: usize, src: usize, count: i32, high: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const a = v128.load(dst + i);
    const b = v128.load(src + i);
    v128.store(dst + i, high ? f32x4.pmax(a, b) : f32x4.pmin(a, b));
  }
}

/** dst = max(0, dst)^p. */
export function power(dst: usize, count: i32, p: f32): void {
  const k = f32x4.splat(p);
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = v128.load(dst + i);
    v128.store(dst + i, v128.bitselect(zero, exp4(f32x4.mul(ln4(v), k)), f32x4.le(v, zero)));
  }
}

/** dst = e^(k·dst). */
export function exponential(dst: usize, count: i32, k: f32): void {
  const s = f32x4.splat(k);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(dst + i, exp4(f32x4.mul(v128.load(dst + i), s)));
}

/** dst = ln dst. */
export function logarithm(dst: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(dst + i, ln4(v128.load(dst + i)));
}

/** dst = |dst|. */
export function absolute(dst: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(dst + i, f32x4.abs(v128.load(dst + i)));
}

/** dst = smoothstep(e0, e1, dst). */
export function smoothstep(dst: usize, count: i32, e0: f32, e1: f32): void {
  const base = f32x4.splat(e0);
  const k = f32x4.splat(1 / (e1 - e0));
  const three = f32x4.splat(3);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const t = clamp4(f32x4.mul(f32x4.sub(v128.load(dst + i), base), k));
    v128.store(dst + i, f32x4.mul(f32x4.mul(t, t), f32x4.sub(three, f32x4.add(t, t))));
  }
}

/** Vertical or horizontal pass of a convolution with a symmetric kernel of 2·radius + 1 taps; edges wrap or extend. */
export function convolveRows(src: usize, dst: usize, w: i32, h: i32, taps: usize, radius: i32, wrap: i32, line: usize): void {
  for (let j = 0; j < h; j++) {
    const row = src + ((<usize>j * <usize>w) << 2);
    for (let i = -radius; i < w + radius; i++) {
      let k = i;
      if (wrap) k = ((i % w) + w) % w;
      else k = max<i32>(0, min<i32>(w - 1, i));
      f32.store(line + (<usize>(i + radius) << 2), f32.load(row + (<usize>k << 2)));
    }
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i = 0; i < w; i += 4) {
      let s = f32x4.splat(0);
      const p = line + (<usize>i << 2);
      for (let k = 0, n = 2 * radius + 1; k < n; k++) {
        s = f32x4.add(s, f32x4.mul(v128.load(p + (<usize>k << 2)), v128.load32_splat(taps + (<usize>k << 2))));
      }
      v128.store(out + (<usize>i << 2), s);
    }
  }
}

export function convolveColumns(src: usize, dst: usize, w: i32, h: i32, taps: usize, radius: i32, wrap: i32): void {
  for (let j = 0; j < h; j++) {
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) v128.store(out + i, f32x4.splat(0));
    for (let k = -radius; k <= radius; k++) {
      let r = j + k;
      if (wrap) r = ((r % h) + h) % h;
      else r = max<i32>(0, min<i32>(h - 1, r));
      const t = v128.load32_splat(taps + (<usize>(k + radius) << 2));
      const row = src + ((<usize>r * <usize>w) << 2);
      for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) {
        v128.store(out + i, f32x4.add(v128.load(out + i), f32x4.mul(t, v128.load(row + i))));
      }
    }
  }
}

/** 2×2 means of an f32 plane with even sides. */
export function shrink(src: usize, w: i32, h: i32, dst: usize): void {
  const dw = w >> 1;
  for (let j = 0; j < h >> 1; j++) {
    const a = src + ((<usize>(2 * j) * <usize>w) << 2);
    const b = a + (<usize>w << 2);
    let i = 0;
    for (; i + 4 <= dw; i += 4) {
      const k = <usize>(2 * i) << 2;
      const low = f32x4.add(v128.load(a + k), v128.load(b + k));
      const high = f32x4.add(v128.load(a + k + 16), v128.load(b + k + 16));
      const sum = f32x4.add(i32x4.shuffle(low, high, 0, 2, 4, 6), i32x4.shuffle(low, high, 1, 3, 5, 7));
      v128.store(dst + ((<usize>(j * dw + i)) << 2), f32x4.mul(sum, f32x4.splat(0.25)));
    }
    for (; i < dw; i++) {
      const k = <usize>(2 * i) << 2;
      f32.store(dst + ((<usize>(j * dw + i)) << 2), (f32.load(a + k) + f32.load(a + k + 4) + f32.load(b + k) + f32.load(b + k + 4)) * 0.25);
    }
  }
}

/** Sum and sum of squares of a plane, as two f64 at `out`. */
export function moments(src: usize, count: i32, out: usize): void {
  let sum: f64 = 0;
  let squares: f64 = 0;
  for (let i = 0; i < count; i++) {
    const v = <f64>f32.load(src + (<usize>i << 2));
    sum += v;
    squares += v * v;
  }
  f64.store(out, sum);
  f64.store(out + 8, squares);
}

/**
 * Lambert light on a height plane in fractions of the long side: normal from central differences (× `size` px), lit = N·L / Lz, so
 * flat ground is 1; never below 0. Edges wrap or extend.
 */
export function light(height: usize, dst: usize, w: i32, h: i32, size: f32, lx: f32, ly: f32, lz: f32, wrap: i32): void {
  const k: f32 = size * 0.5;
  for (let j = 0; j < h; j++) {
    const up = height + ((<usize>((wrap ? (j + h - 1) % h : max<i32>(0, j - 1)) * w)) << 2);
    const down = height + ((<usize>((wrap ? (j + 1) % h : min<i32>(h - 1, j + 1)) * w)) << 2);
    const row = height + ((<usize>j * <usize>w) << 2);
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i = 0; i < w; ) {
      if (i > 0 && i + 4 < w) {
        const p = <usize>i << 2;
        const dx = f32x4.mul(f32x4.sub(v128.load(row + p + 4), v128.load(row + p - 4)), f32x4.splat(k));
        const dy = f32x4.mul(f32x4.sub(v128.load(down + p), v128.load(up + p)), f32x4.splat(k));
        const d = f32x4.sub(f32x4.sub(f32x4.splat(lz), f32x4.mul(dx, f32x4.splat(lx))), f32x4.mul(dy, f32x4.splat(ly)));
        const length = f32x4.sqrt(f32x4.add(f32x4.add(f32x4.splat(1), f32x4.mul(dx, dx)), f32x4.mul(dy, dy)));
        v128.store(out + p, f32x4.pmax(f32x4.splat(0), f32x4.div(f32x4.div(d, length), f32x4.splat(lz))));
        i += 4;
        continue;
      }
      const l = wrap ? (i + w - 1) % w : max<i32>(0, i - 1);
      const r = wrap ? (i + 1) % w : min<i32>(w - 1, i + 1);
      const dx = (f32.load(row + (<usize>r << 2)) - f32.load(row + (<usize>l << 2))) * k;
      const dy = (f32.load(down + (<usize>i << 2)) - f32.load(up + (<usize>i << 2))) * k;
      const d = (lz - dx * lx - dy * ly) / sqrt<f32>(1 + dx * dx + dy * dy);
      f32.store(out + (<usize>i << 2), max<f32>(0, d / lz));
      i++;
    }
  }
}

/** Soft cast shadow: marches from each pixel towards the light; dst = 0 in full shadow, 1 in light. Lengths in px. */
export function castShadow(
  height: usize, dst: usize, w: i32, h: i32, size: f32, lx: f32, ly: f32, slope: f32, reach: i32, soft: f32, wrap: i32,
): void {
  const scale = f32x4.splat(size);
  for (let j = 0; j < h; j++) {
    const own = height + ((<usize>j * <usize>w) << 2);
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) v128.store(out + i, f32x4.splat(0));
    // One step after another for a whole row: what is read lies side by side.
    for (let k = 1; k <= reach; k++) {
      const ox = <i32>nearest<f32>(lx * <f32>k);
      let y = j + <i32>nearest<f32>(ly * <f32>k);
      y = wrap ? ((y % h) + h) % h : max<i32>(0, min<i32>(h - 1, y));
      const row = height + ((<usize>y * <usize>w) << 2);
      const drop: f32 = <f32>k * slope;
      const fall = f32x4.splat(drop);
      for (let i = 0; i < w; i += 4) {
        const p = <usize>i << 2;
        const x = i + ox;
        let there = f32x4.splat(0);
        if (x >= 0 && x + 4 <= w) there = v128.load(row + (<usize>x << 2));
        else {
          there = f32x4.splat(f32.load(row + (<usize>sideways(x, w, wrap) << 2)));
          there = f32x4.replace_lane(there, 1, f32.load(row + (<usize>sideways(x + 1, w, wrap) << 2)));
          there = f32x4.replace_lane(there, 2, f32.load(row + (<usize>sideways(x + 2, w, wrap) << 2)));
          there = f32x4.replace_lane(there, 3, f32.load(row + (<usize>sideways(x + 3, w, wrap) << 2)));
        }
        const over = f32x4.sub(f32x4.mul(f32x4.sub(there, v128.load(own + p)), scale), fall);
        v128.store(out + p, f32x4.pmax(v128.load(out + p), over));
      }
    }
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) {
      v128.store(out + i, f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.splat(1), f32x4.mul(v128.load(out + i), f32x4.splat(1 / soft)))));
    }
  }
}

// @ts-ignore: decorator
@inline
function sideways(i: i32, w: i32, wrap: i32): i32 {
  return wrap ? ((i % w) + w) % w : max<i32>(0, min<i32>(w - 1, i));
}

/** Whether all values of a plane are 0. */
export function isNothing(plane: usize, count: i32): i32 {
  for (let i = 0; i < count; i++) if (f32.load(plane + (<usize>i << 2)) > 0) return 0;
  return 1;
}
