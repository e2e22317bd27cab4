// Alpha of an uncertain band as the smoothest one over the picture's colours.

/** Planes in `work` of solveMatte, in this order. */
const WINDOWS = 0;
const MEAN = 1;
const INVERSE = 4;
const SLOPE = 10;
const OFFSET = 13;
const STEP = 14;
const PRODUCT = 15;
const REST = 16;
const DIAGONAL = 17;
const PLANES = 18;

// @ts-ignore: decorator
@inline
function planeOf(work: usize, w: i32, h: i32, k: i32): usize {
  // Zeros lie before and after each plane: neighbours are read there.
  const pad = (<usize>w + 16) << 2;
  return work + <usize>k * ((<usize>(w * h) << 2) + 2 * pad) + pad;
}

/** Bytes of the memory in which an alpha of w × h is solved. */
export function matteBytes(w: i32, h: i32): i32 {
  return PLANES * (((w * h) << 2) + 2 * ((w + 16) << 2)) + 64;
}

// @ts-ignore: decorator
@inline
function nine(plane: usize, p: usize, row: usize): v128 {
  const up = plane + p - row, here = plane + p, down = plane + p + row;
  return f32x4.add(
    f32x4.add(
      f32x4.add(v128.load(up - 4), f32x4.add(v128.load(up), v128.load(up + 4))),
      f32x4.add(v128.load(here - 4), f32x4.add(v128.load(here), v128.load(here + 4))),
    ),
    f32x4.add(v128.load(down - 4), f32x4.add(v128.load(down), v128.load(down + 4))),
  );
}

/** The mean and the inverse covariance of the colours of each window of 3 × 3 that touches the band. */
function measureWindows(r: usize, g: usize, b: usize, w: i32, h: i32, unknown: usize, eps: f64, work: usize): void {
  const row = <usize>w << 2;
  const windows = planeOf(work, w, h, WINDOWS);
  for (let y = 1; y < h - 1; y++) {
    for (let x = 1; x < w - 1; x++) {
      const i = y * w + x;
      const p = <usize>i << 2;
      let touches = false;
      for (let dy = -1; dy <= 1 && !touches; dy++) {
        const q = unknown + p + <usize>(dy * w) * 4;
        touches = f32.load(q - 4) >= 0.5 || f32.load(q) >= 0.5 || f32.load(q + 4) >= 0.5;
      }
      if (!touches) continue;
      store<i32>(windows + p, -1);
      let m0: f64 = 0, m1: f64 = 0, m2: f64 = 0, rr: f64 = 0, rg: f64 = 0, rb: f64 = 0, gg: f64 = 0, gb: f64 = 0, bb: f64 = 0;
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          const q = <usize>(i + dy * w + dx) << 2;
          const u: f64 = <f64>f32.load(r + q), v: f64 = <f64>f32.load(g + q), s: f64 = <f64>f32.load(b + q);
          m0 += u;
          m1 += v;
          m2 += s;
          rr += u * u;
          rg += u * v;
          rb += u * s;
          gg += v * v;
          gb += v * s;
          bb += s * s;
        }
      }
      const ninth: f64 = 1.0 / 9.0;
      m0 *= ninth;
      m1 *= ninth;
      m2 *= ninth;
      const e = eps * ninth;
      rr = rr * ninth - m0 * m0 + e;
      rg = rg * ninth - m0 * m1;
      rb = rb * ninth - m0 * m2;
      gg = gg * ninth - m1 * m1 + e;
      gb = gb * ninth - m1 * m2;
      bb = bb * ninth - m2 * m2 + e;
      const k0 = gg * bb - gb * gb, k1 = rb * gb - rg * bb, k2 = rg * gb - rb * gg;
      const one = 1 / (rr * k0 + rg * k1 + rb * k2);
      f32.store(planeOf(work, w, h, MEAN) + p, <f32>m0);
      f32.store(planeOf(work, w, h, MEAN + 1) + p, <f32>m1);
      f32.store(planeOf(work, w, h, MEAN + 2) + p, <f32>m2);
      f32.store(planeOf(work, w, h, INVERSE) + p, <f32>(k0 * one));
      f32.store(planeOf(work, w, h, INVERSE + 1) + p, <f32>(k1 * one));
      f32.store(planeOf(work, w, h, INVERSE + 2) + p, <f32>(k2 * one));
      f32.store(planeOf(work, w, h, INVERSE + 3) + p, <f32>((rr * bb - rb * rb) * one));
      f32.store(planeOf(work, w, h, INVERSE + 4) + p, <f32>((rg * rb - rr * gb) * one));
      f32.store(planeOf(work, w, h, INVERSE + 5) + p, <f32>((rr * gg - rg * rg) * one));
    }
  }
}

/** Σ over a window of (p − p̄)(colour − mean). */
// @ts-ignore: decorator
@inline
function leaning(step: usize, colour: usize, p: usize, row: usize, middle: v128, mean: v128): v128 {
  let sum = f32x4.splat(0);
  for (let dy = 0; dy < 3; dy++) {
    const q = p + <usize>dy * row - row;
    for (let dx: usize = 0; dx < 12; dx += 4) {
      const at = q + dx - 4;
      sum = f32x4.add(sum, f32x4.mul(f32x4.sub(v128.load(step + at), middle), f32x4.sub(v128.load(colour + at), mean)));
    }
  }
  return sum;
}

// @ts-ignore: decorator
@inline
function dot3(a: v128, x: v128, b: v128, y: v128, c: v128, z: v128): v128 {
  return f32x4.add(f32x4.mul(a, x), f32x4.add(f32x4.mul(b, y), f32x4.mul(c, z)));
}

/** PRODUCT = the matting Laplacian times STEP, at the band. */
function applyLaplacian(r: usize, g: usize, b: usize, w: i32, h: i32, unknown: usize, work: usize): void {
  const row = <usize>w << 2;
  const windows = planeOf(work, w, h, WINDOWS);
  const m0 = planeOf(work, w, h, MEAN), m1 = planeOf(work, w, h, MEAN + 1), m2 = planeOf(work, w, h, MEAN + 2);
  const i0 = planeOf(work, w, h, INVERSE);
  const plane = planeOf(work, w, h, INVERSE + 1) - i0;
  const a0 = planeOf(work, w, h, SLOPE), a1 = a0 + plane, a2 = a1 + plane, offset = planeOf(work, w, h, OFFSET);
  const step = planeOf(work, w, h, STEP), product = planeOf(work, w, h, PRODUCT);
  const end = <usize>(w * h) << 2;
  const ninth = f32x4.splat(1.0 / 9.0);
  for (let p: usize = 0; p < end; p += 16) {
    const valid = v128.load(windows + p);
    if (!v128.any_true(valid)) continue;
    const middle = f32x4.mul(nine(step, p, row), ninth);
    const u = v128.load(m0 + p), v = v128.load(m1 + p), s = v128.load(m2 + p);
    const lr = f32x4.mul(leaning(step, r, p, row, middle, u), ninth);
    const lg = f32x4.mul(leaning(step, g, p, row, middle, v), ninth);
    const lb = f32x4.mul(leaning(step, b, p, row, middle, s), ninth);
    const q = i0 + p;
    const k1 = v128.load(q + plane), k2 = v128.load(q + 2 * plane), k4 = v128.load(q + 4 * plane);
    const sr = v128.and(valid, dot3(v128.load(q), lr, k1, lg, k2, lb));
    const sg = v128.and(valid, dot3(k1, lr, v128.load(q + 3 * plane), lg, k4, lb));
    const sb = v128.and(valid, dot3(k2, lr, k4, lg, v128.load(q + 5 * plane), lb));
    v128.store(a0 + p, sr);
    v128.store(a1 + p, sg);
    v128.store(a2 + p, sb);
    v128.store(offset + p, v128.and(valid, f32x4.sub(middle, dot3(sr, u, sg, v, sb, s))));
  }
  const half = f32x4.splat(0.5);
  const all = f32x4.splat(-1);
  for (let p: usize = 0; p < end; p += 16) {
    const inside = f32x4.ge(v128.load(unknown + p), half);
    if (!v128.any_true(inside)) {
      v128.store(product + p, f32x4.splat(0));
      continue;
    }
    const model = f32x4.add(dot3(nine(a0, p, row), v128.load(r + p), nine(a1, p, row), v128.load(g + p), nine(a2, p, row), v128.load(b + p)), nine(offset, p, row));
    // How many windows hold the pixel.
    let count = f32x4.splat(0);
    for (let dy = 0; dy < 3; dy++) {
      const q = windows + p + <usize>dy * row - row;
      for (let dx: usize = 0; dx < 12; dx += 4) count = f32x4.add(count, v128.and(v128.load(q + dx - 4), all));
    }
    v128.store(product + p, v128.and(inside, f32x4.sub(f32x4.mul(f32x4.neg(count), v128.load(step + p)), model)));
  }
}

/** DIAGONAL = that of the matting Laplacian, plus the weights of the data. */
function measureDiagonal(r: usize, g: usize, b: usize, w: i32, h: i32, unknown: usize, weight: usize, work: usize): void {
  const windows = planeOf(work, w, h, WINDOWS);
  const diagonal = planeOf(work, w, h, DIAGONAL);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      const i = y * w + x;
      const p = <usize>i << 2;
      if (f32.load(unknown + p) < 0.5) continue;
      let sum: f32 = 0;
      for (let dy = -1; dy <= 1; dy++) {
        for (let dx = -1; dx <= 1; dx++) {
          if (y + dy < 0 || y + dy >= h || x + dx < 0 || x + dx >= w) continue;
          const q = <usize>(i + dy * w + dx) << 2;
          if (load<i32>(windows + q) == 0) continue;
          const d0 = f32.load(r + p) - f32.load(planeOf(work, w, h, MEAN) + q);
          const d1 = f32.load(g + p) - f32.load(planeOf(work, w, h, MEAN + 1) + q);
          const d2 = f32.load(b + p) - f32.load(planeOf(work, w, h, MEAN + 2) + q);
          const k0 = f32.load(planeOf(work, w, h, INVERSE) + q), k1 = f32.load(planeOf(work, w, h, INVERSE + 1) + q);
          const k2 = f32.load(planeOf(work, w, h, INVERSE + 2) + q), k3 = f32.load(planeOf(work, w, h, INVERSE + 3) + q);
          const k4 = f32.load(planeOf(work, w, h, INVERSE + 4) + q), k5 = f32.load(planeOf(work, w, h, INVERSE + 5) + q);
          const square = d0 * (d0 * k0 + 2 * (d1 * k1 + d2 * k2)) + d1 * (d1 * k3 + 2 * d2 * k4) + d2 * d2 * k5;
          sum += 1 - (1 + square) * <f32>(1.0 / 9.0);
        }
      }
      f32.store(diagonal + p, max<f32>(sum, 1e-3) + f32.load(weight + p));
    }
  }
}

/**
 * Solves for the alpha of the band `unknown` (where it is at least a half) by closed-form matting (Levin, Lischinski & Weiss 2008): windows of 3 × 3
 * in which alpha is a linear function of the colours, and the data at `data` with the weights at `weight`, by conjugate gradients. `alpha` holds what
 * is known outside the band and where to start inside it; the result, within 0..1, takes its place. `work` has room for `matteBytes`.
 */
export function solveMatte(
  r: usize, g: usize, b: usize, w: i32, h: i32, unknown: usize, alpha: usize, data: usize, weight: usize, eps: f32, rounds: i32, work: usize,
): void {
  memory.fill(work, 0, <usize>matteBytes(w, h));
  measureWindows(r, g, b, w, h, unknown, eps, work);
  measureDiagonal(r, g, b, w, h, unknown, weight, work);
  const step = planeOf(work, w, h, STEP), product = planeOf(work, w, h, PRODUCT);
  const rest = planeOf(work, w, h, REST), diagonal = planeOf(work, w, h, DIAGONAL);
  const end = <usize>(w * h) << 2;
  memory.copy(step, alpha, end);
  applyLaplacian(r, g, b, w, h, unknown, work);
  memory.fill(step, 0, end);
  let fit: f64 = 0;
  for (let p: usize = 0; p < end; p += 4) {
    if (f32.load(unknown + p) < 0.5) continue;
    const v = -f32.load(product + p) - f32.load(weight + p) * (f32.load(alpha + p) - f32.load(data + p));
    const s = v / f32.load(diagonal + p);
    f32.store(rest + p, v);
    f32.store(step + p, s);
    fit += <f64>v * <f64>s;
  }
  for (let k = 0; k < rounds && fit > 1e-9; k++) {
    applyLaplacian(r, g, b, w, h, unknown, work);
    let bend: f64 = 0;
    for (let p: usize = 0; p < end; p += 4) {
      if (f32.load(unknown + p) < 0.5) continue;
      const s = f32.load(step + p);
      const v = f32.load(product + p) + f32.load(weight + p) * s;
      f32.store(product + p, v);
      bend += <f64>v * <f64>s;
    }
    if (bend <= 0) break;
    const by = <f32>(fit / bend);
    let fitter: f64 = 0;
    for (let p: usize = 0; p < end; p += 4) {
      if (f32.load(unknown + p) < 0.5) continue;
      f32.store(alpha + p, f32.load(alpha + p) + by * f32.load(step + p));
      const v = f32.load(rest + p) - by * f32.load(product + p);
      f32.store(rest + p, v);
      fitter += (<f64>v * <f64>v) / <f64>f32.load(diagonal + p);
    }
    const keep = <f32>(fitter / fit);
    fit = fitter;
    for (let p: usize = 0; p < end; p += 4) {
      if (f32.load(unknown + p) < 0.5) continue;
      f32.store(step + p, f32.load(rest + p) / f32.load(diagonal + p) + keep * f32.load(step + p));
    }
  }
  for (let p: usize = 0; p < end; p += 4) f32.store(alpha + p, max<f32>(0, min<f32>(1, f32.load(alpha + p))));
}
