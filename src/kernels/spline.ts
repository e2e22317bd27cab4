// Smooth fields from few values: white noise under a cubic B-spline, and doubling by Catmull–Rom.
import { modulo } from './lattice';
import { hash, hash4 } from './math';

/** Sum of twelve uniforms would be slow; four give a bell that is near enough to Gaussian for a blurred field. Variance 1. */
// @ts-ignore: decorator
@inline
function bell(k: i32, seed: i32): f32 {
  const a = hash(k, seed);
  const b = hash(k, seed ^ 0x5bd1e995);
  const sum = <f32>(a & 0xffff) + <f32>(a >>> 16) + <f32>(b & 0xffff) + <f32>(b >>> 16);
  return (sum * <f32>(1.0 / 65535.0) - 2) * 1.7320508;
}

/** `bell` for four keys from k on. */
// @ts-ignore: decorator
@inline
function bell4(k: i32, seed: i32): v128 {
  const keys = i32x4.add(i32x4.splat(k), i32x4(0, 1, 2, 3));
  const a = hash4(keys, seed);
  const b = hash4(keys, seed ^ 0x5bd1e995);
  const low = i32x4.splat(0xffff);
  const sum = i32x4.add(i32x4.add(v128.and(a, low), i32x4.shr_u(a, 16)), i32x4.add(v128.and(b, low), i32x4.shr_u(b, 16)));
  return f32x4.mul(f32x4.sub(f32x4.mul(f32x4.convert_i32x4_s(sum), f32x4.splat(<f32>(1.0 / 65535.0))), f32x4.splat(2)), f32x4.splat(1.7320508));
}

/**
 * A sixth, made up for where in its cell a spline is read: its four weights w vary Σw² by a twelfth, which a rule that is not linear would turn
 * into a pattern of cells. The mean variance stays 151/315.
 */
// @ts-ignore: decorator
@inline
function even(t: f32): f32 {
  const o: f32 = 1 - t;
  const t2 = t * t;
  const o2 = o * o;
  const a = o2 * o;
  const b: f32 = 3 * t2 * t - 6 * t2 + 4;
  const c: f32 = 3 * o2 * o - 6 * o2 + 4;
  const d = t2 * t;
  return sqrt<f32>(<f32>(151.0 / 315.0) / (a * a + b * b + c * c + d * d));
}

/** Sums of the four lanes of four vectors. */
// @ts-ignore: decorator
@inline
function sums(a: v128, b: v128, c: v128, d: v128): v128 {
  const ab = f32x4.add(i32x4.shuffle(a, b, 0, 4, 2, 6), i32x4.shuffle(a, b, 1, 5, 3, 7));
  const cd = f32x4.add(i32x4.shuffle(c, d, 0, 4, 2, 6), i32x4.shuffle(c, d, 1, 5, 3, 7));
  return f32x4.add(i32x4.shuffle(ab, cd, 0, 1, 4, 5), i32x4.shuffle(ab, cd, 2, 3, 6, 7));
}

/** A row of w pixels, each from four values that lie side by side: from where in the list, in bytes, and with which weights, stands in two tables. */
// @ts-ignore: decorator
@inline
function readAcross(row: usize, w: i32, list: usize, starts: usize, weights: usize): void {
  for (let i = 0; i < w; i += 4) {
    const s = starts + (<usize>i << 2);
    const t = weights + (<usize>i << 4);
    v128.store(row + (<usize>i << 2), sums(
      f32x4.mul(v128.load(list + <usize>i32.load(s)), v128.load(t)),
      f32x4.mul(v128.load(list + <usize>i32.load(s + 4)), v128.load(t + 16)),
      f32x4.mul(v128.load(list + <usize>i32.load(s + 8)), v128.load(t + 32)),
      f32x4.mul(v128.load(list + <usize>i32.load(s + 12)), v128.load(t + 48)),
    ));
  }
}

/** A row of the result from the rows j − 1 to j + 2, which lie in a ring of four; added to what is there, or in its place. */
// @ts-ignore: decorator
@inline
function mixDown(out: usize, rows: usize, pitch: usize, j: i32, k0: v128, k1: v128, k2: v128, k3: v128, adds: bool): void {
  const r0 = rows + <usize>modulo(j - 1, 4) * pitch;
  const r1 = rows + <usize>modulo(j, 4) * pitch;
  const r2 = rows + <usize>modulo(j + 1, 4) * pitch;
  const r3 = rows + <usize>modulo(j + 2, 4) * pitch;
  for (let i: usize = 0; i < pitch; i += 16) {
    const s = f32x4.add(
      f32x4.add(f32x4.mul(k0, v128.load(r0 + i)), f32x4.mul(k1, v128.load(r1 + i))),
      f32x4.add(f32x4.mul(k2, v128.load(r2 + i)), f32x4.mul(k3, v128.load(r3 + i))),
    );
    v128.store(out + i, adds ? f32x4.add(v128.load(out + i), s) : s);
  }
}

/**
 * dst += gain · white noise of unit variance on a lattice of square cells, shaped by a cubic B-spline (a close stand-in for a Gaussian of 0.577 cells). The
 * plane is w × h pixels of a sheet, its first one (x0, y0); `across` and `down` are cells to a pixel, and the lattice repeats after px × py cells.
 * `scratch` has room for 20·w + 4·cells f32, cells = w · across + 8.
 */
export function addSpline(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, across: f64, down: f64, px: i32, py: i32, seed: i32, gain: f32, scratch: usize,
): void {
  const pitch = <usize>w << 2;
  const rows = scratch;
  const weights = rows + 4 * pitch;
  const starts = weights + 4 * pitch;
  const cells = starts + pitch;
  const first = <i32>Math.floor((<f64>x0 + 0.5) * across) - 1;
  const last = <i32>Math.floor((<f64>(x0 + w) - 0.5) * across) + 2;
  // Weights across are the same in every row.
  for (let i = 0; i < w; i++) {
    const u: f64 = (<f64>(x0 + i) + 0.5) * across;
    const iu = Math.floor(u);
    const t = <f32>(u - iu);
    const o: f32 = 1 - t;
    const t2 = t * t;
    const k = even(t);
    const at = weights + (<usize>i << 4);
    f32.store(at, o * o * o * k);
    f32.store(at + 4, (3 * t2 * t - 6 * t2 + 4) * k);
    f32.store(at + 8, (3 * o * o * o - 6 * o * o + 4) * k);
    f32.store(at + 12, t2 * t * k);
    i32.store(starts + (<usize>i << 2), (<i32>iu - 1 - first) << 2);
  }
  let have: i32 = i32.MIN_VALUE;
  for (let j = 0; j < h; j++) {
    const v: f64 = (<f64>(y0 + j) + 0.5) * down;
    const jv = <i32>Math.floor(v);
    const f = <f32>(v - <f64>jv);
    if (jv != have) {
      for (let k = 0; k < 4; k++) {
        const lattice = jv - 1 + k;
        // A row already held in the ring is kept: slot = lattice row modulo 4.
        if (have != i32.MIN_VALUE && lattice <= have + 2 && lattice >= have - 1) continue;
        const row = rows + <usize>modulo(lattice, 4) * pitch;
        const base = modulo(lattice, py) * 0x2545f49;
        let column = modulo(first, px);
        for (let c = 0, n = last - first; c <= n; ) {
          if (c + 4 <= n && column + 4 <= px) {
            v128.store(cells + (<usize>c << 2), bell4(base + column, seed));
            c += 4;
            column += 4;
          } else {
            f32.store(cells + (<usize>c << 2), bell(base + column, seed));
            c++;
            column++;
          }
          if (column == px) column = 0;
        }
        readAcross(row, w, cells, starts, weights);
      }
      have = jv;
    }
    const o: f32 = 1 - f;
    const f2 = f * f;
    const g = gain * even(f);
    const k0 = f32x4.splat(o * o * o * g);
    const k1 = f32x4.splat((3 * f2 * f - 6 * f2 + 4) * g);
    const k2 = f32x4.splat((3 * o * o * o - 6 * o * o + 4) * g);
    const k3 = f32x4.splat(f2 * f * g);
    mixDown(dst + <usize>j * pitch, rows, pitch, jv, k0, k1, k2, k3, true);
  }
}

/** Catmull–Rom a quarter of the way from b to c. */
// @ts-ignore: decorator
@inline
function quarter(a: v128, b: v128, c: v128, d: v128): v128 {
  // t = 1/4: weights −9, 111, 29, −3 in 1/128.
  return f32x4.mul(
    f32x4.add(
      f32x4.add(f32x4.mul(a, f32x4.splat(-9)), f32x4.mul(b, f32x4.splat(111))),
      f32x4.add(f32x4.mul(c, f32x4.splat(29)), f32x4.mul(d, f32x4.splat(-3))),
    ),
    f32x4.splat(1.0 / 128.0),
  );
}

/** The four values two to the left of pixels 1 to 4 of a row, whose values one to the left are given. */
// @ts-ignore: decorator
@inline
function before(from: usize, sw: i32, m: v128, wrap: i32): v128 {
  const first = f32.load(wrap ? from + (<usize>(sw - 1) << 2) : from);
  return f32x4.replace_lane(i32x4.shuffle(m, m, 0, 0, 1, 2), 0, first);
}

/** One pixel of a row widened from sw to w pixels by Catmull–Rom. */
function widen(from: usize, sw: i32, row: usize, w: i32, i: i32, wrap: i32): void {
  const u = (<f32>i + 0.5) * <f32>sw / <f32>w - 0.5;
  const iu = <i32>floor<f32>(u);
  const t = u - <f32>iu;
  const last = sw - 1;
  const a = f32.load(from + (<usize>(wrap ? modulo(iu - 1, sw) : max<i32>(0, iu - 1)) << 2));
  const b = f32.load(from + (<usize>(wrap ? modulo(iu, sw) : max<i32>(0, iu)) << 2));
  const c = f32.load(from + (<usize>(wrap ? modulo(iu + 1, sw) : min<i32>(last, iu + 1)) << 2));
  const d = f32.load(from + (<usize>(wrap ? modulo(iu + 2, sw) : min<i32>(last, iu + 2)) << 2));
  f32.store(row + (<usize>i << 2), b + 0.5 * t * (c - a + t * (2 * a - 5 * b + 4 * c - d + t * (3 * (b - c) + d - a))));
}

/** Catmull–Rom enlargement of a periodic or clamped plane, for fields whose finest octave a smaller plane already holds. */
export function enlarge(src: usize, sw: i32, sh: i32, dst: usize, w: i32, h: i32, wrap: i32, rows: usize): void {
  // Rows are widened once each into a ring of four, then mixed downwards.
  let have: i32 = i32.MIN_VALUE;
  for (let j = 0; j < h; j++) {
    const v = (<f32>j + 0.5) * <f32>sh / <f32>h - 0.5;
    const jv = <i32>floor<f32>(v);
    const f = v - <f32>jv;
    if (jv != have) {
      for (let k = -1; k < 3; k++) {
        const r = jv + k;
        if (have != i32.MIN_VALUE && r <= have + 2 && r >= have - 1) continue;
        const row = rows + ((<usize>(modulo(r, 4) * w)) << 2);
        const from = src + ((<usize>((wrap ? modulo(r, sh) : max<i32>(0, min<i32>(sh - 1, r))) * sw)) << 2);
        // Four source pixels away from the ends become eight at a time: doubling has but two sets of weights.
        const from4 = w == 2 * sw && sw > 8 ? 1 : 0;
        const to4 = from4 ? 1 + ((sw - 3) & ~3) : 0;
        if (from4) {
          for (let q = from4; q < to4; q += 4) {
            const at = from + (<usize>q << 2);
            const m = v128.load(at - 4);
            const c = v128.load(at);
            const n = v128.load(at + 4);
            // Pixel 2q lies a quarter before q, pixel 2q + 1 a quarter after.
            const even = quarter(v128.load(at + 4), c, m, q > 1 ? v128.load(at - 8) : before(from, sw, m, wrap));
            const odd = quarter(m, c, n, v128.load(at + 8));
            const out = row + (<usize>q << 3);
            v128.store(out, i32x4.shuffle(even, odd, 0, 4, 1, 5));
            v128.store(out + 16, i32x4.shuffle(even, odd, 2, 6, 3, 7));
          }
        }
        for (let i = 0; i < w; i++) {
          if (i == 2 * from4 && from4) i = 2 * to4;
          widen(from, sw, row, w, i, wrap);
        }
      }
      have = jv;
    }
    const r0 = rows + ((<usize>(modulo(jv - 1, 4) * w)) << 2);
    const r1 = rows + ((<usize>(modulo(jv, 4) * w)) << 2);
    const r2 = rows + ((<usize>(modulo(jv + 1, 4) * w)) << 2);
    const r3 = rows + ((<usize>(modulo(jv + 2, 4) * w)) << 2);
    const k0 = f32x4.splat(0.5 * f * (-1 + f * (2 - f)));
    const k1 = f32x4.splat(1 + 0.5 * f * f * (3 * f - 5));
    const k2 = f32x4.splat(0.5 * f * (1 + f * (4 - 3 * f)));
    const k3 = f32x4.splat(0.5 * f * f * (f - 1));
    const out = dst + ((<usize>j * <usize>w) << 2);
    for (let i: usize = 0, end = <usize>w << 2; i < end; i += 16) {
      v128.store(out + i, f32x4.add(
        f32x4.add(f32x4.mul(k0, v128.load(r0 + i)), f32x4.mul(k1, v128.load(r1 + i))),
        f32x4.add(f32x4.mul(k2, v128.load(r2 + i)), f32x4.mul(k3, v128.load(r3 + i))),
      ));
    }
  }
}

/** Catmull–Rom weights of the four neighbours at a place t of the way from the second to the third. */
// @ts-ignore: decorator
@inline
function cubicWeights(at: usize, t: f32): void {
  f32.store(at, 0.5 * t * (-1 + t * (2 - t)));
  f32.store(at + 4, 1 + 0.5 * t * t * (3 * t - 5));
  f32.store(at + 8, 0.5 * t * (1 + t * (4 - 3 * t)));
  f32.store(at + 12, 0.5 * t * t * (t - 1));
}

/**
 * A part of a sheet from a smaller drawing of the whole, by Catmull–Rom: w × h pixels whose first is (x0, y0), `across` and `down` the smaller pixels to one
 * of them. The smaller one, sw × sh, carries on over its edges or extends. `scratch` has room for 13·w f32 and sw + 8 more.
 */
export function enlargePart(
  src: usize, sw: i32, sh: i32, dst: usize, w: i32, h: i32, x0: i32, y0: i32, across: f64, down: f64, wrap: i32, scratch: usize,
): void {
  const pitch = <usize>w << 2;
  const rows = scratch;
  const weights = rows + 4 * pitch;
  const starts = weights + 4 * pitch;
  const line = starts + pitch;
  const first = <i32>Math.floor((<f64>x0 + 0.5) * across - 0.5) - 1;
  const last = <i32>Math.floor((<f64>(x0 + w) - 0.5) * across - 0.5) + 2;
  for (let i = 0; i < w; i++) {
    const u: f64 = (<f64>(x0 + i) + 0.5) * across - 0.5;
    const iu = Math.floor(u);
    cubicWeights(weights + (<usize>i << 4), <f32>(u - iu));
    i32.store(starts + (<usize>i << 2), (<i32>iu - 1 - first) << 2);
  }
  let have: i32 = i32.MIN_VALUE;
  for (let j = 0; j < h; j++) {
    const v: f64 = (<f64>(y0 + j) + 0.5) * down - 0.5;
    const jv = <i32>Math.floor(v);
    const f = <f32>(v - <f64>jv);
    if (jv != have) {
      for (let k = -1; k < 3; k++) {
        const r = jv + k;
        if (have != i32.MIN_VALUE && r <= have + 2 && r >= have - 1) continue;
        const row = rows + <usize>modulo(r, 4) * pitch;
        const from = src + ((<usize>((wrap ? modulo(r, sh) : max<i32>(0, min<i32>(sh - 1, r))) * sw)) << 2);
        for (let c = 0, n = last - first; c <= n; c++) {
          const q = first + c;
          f32.store(line + (<usize>c << 2), f32.load(from + (<usize>(wrap ? modulo(q, sw) : max<i32>(0, min<i32>(sw - 1, q))) << 2)));
        }
        readAcross(row, w, line, starts, weights);
      }
      have = jv;
    }
    const k0 = f32x4.splat(0.5 * f * (-1 + f * (2 - f)));
    const k1 = f32x4.splat(1 + 0.5 * f * f * (3 * f - 5));
    const k2 = f32x4.splat(0.5 * f * (1 + f * (4 - 3 * f)));
    const k3 = f32x4.splat(0.5 * f * f * (f - 1));
    mixDown(dst + <usize>j * pitch, rows, pitch, jv, k0, k1, k2, k3, false);
  }
}

/** Part of a plane: w × h values from (x, y) of a plane `from` wide. */
export function cropPlane(src: usize, from: i32, x: i32, y: i32, dst: usize, w: i32, h: i32): void {
  for (let j = 0; j < h; j++) {
    memory.copy(dst + ((<usize>(j * w)) << 2), src + ((<usize>((y + j) * from + x)) << 2), <usize>w << 2);
  }
}
