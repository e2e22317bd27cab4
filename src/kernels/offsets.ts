// Pictures read elsewhere: fields of offsets, a perspective, and reading between pixels.

/**
 * Adds a field of offsets over part of a picture, columns × rows values across in the plane `field` and down in `second`, to planes of a tile, bilinearly;
 * beyond the field they are 0. A pixel of the tile lies at (ox + i·step, oy + j·step) of the field, and offsets are multiplied by `gain`.
 */
export function addOffsets(
  field: usize, second: usize, columns: i32, rows: i32, dx: usize, dy: usize, w: i32, h: i32, ox: f32, oy: f32, step: f32, gain: f32,
): void {
  for (let j = 0; j < h; j++) {
    const y: f32 = oy + <f32>j * step;
    if (y < 0 || y >= <f32>(rows - 1)) continue;
    const y0 = <i32>y;
    const fy: f32 = y - <f32>y0;
    for (let i = 0; i < w; i++) {
      const x: f32 = ox + <f32>i * step;
      if (x < 0 || x >= <f32>(columns - 1)) continue;
      const x0 = <i32>x;
      const fx: f32 = x - <f32>x0;
      const p = <usize>(y0 * columns + x0) << 2;
      const row = <usize>columns << 2;
      const at = <usize>(j * w + i) << 2;
      f32.store(dx + at, f32.load(dx + at) + gain * mixed(field + p, row, fx, fy));
      f32.store(dy + at, f32.load(dy + at) + gain * mixed(second + p, row, fx, fy));
    }
  }
}

// @ts-ignore: decorator
@inline
function mixed(p: usize, row: usize, fx: f32, fy: f32): f32 {
  const upper: f32 = f32.load(p) + (f32.load(p, 4) - f32.load(p)) * fx;
  const lower: f32 = f32.load(p + row) + (f32.load(p + row, 4) - f32.load(p + row)) * fx;
  return upper + (lower - upper) * fy;
}

/** The largest and least of a plane's values, as two f32. */
export function rangeOf(plane: usize, count: i32, out: usize): void {
  let low: f32 = f32.load(plane);
  let high: f32 = low;
  for (let i = 1; i < count; i++) {
    const v: f32 = f32.load(plane + (<usize>i << 2));
    low = min<f32>(low, v);
    high = max<f32>(high, v);
  }
  f32.store(out, low);
  f32.store(out, high, 4);
}

/**
 * A picture read at offsets of (dx, dy) pixels, by the cubic of Catmull and Rom (1974), its values kept within those of the four nearest so that nothing
 * rings. `src` is interleaved, sw × sh; a pixel of the result lies at (ox + i, oy + j) of it. The edge is extended. Four planes are written.
 */
export function displacedCubic(
  src: usize, sw: i32, sh: i32, dx: usize, dy: usize, dst: usize, stride: usize, w: i32, h: i32, ox: f32, oy: f32,
): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const x: f32 = max<f32>(0, min<f32>(<f32>(sw - 1), ox + <f32>i + f32.load(dx + at)));
      const y: f32 = max<f32>(0, min<f32>(<f32>(sh - 1), oy + <f32>j + f32.load(dy + at)));
      const i0 = <i32>x;
      const j0 = <i32>y;
      const fx: f32 = x - <f32>i0;
      const fy: f32 = y - <f32>j0;
      const c0 = column(i0 - 1, sw), c1 = column(i0, sw), c2 = column(i0 + 1, sw), c3 = column(i0 + 2, sw);
      let v: v128;
      let low: v128;
      let high: v128;
      if (fx == 0 && fy == 0) {
        v = v128.load(src + row(j0, sw, sh) + c1);
        low = v;
        high = v;
      } else {
        const r0 = src + row(j0 - 1, sw, sh), r1 = src + row(j0, sw, sh), r2 = src + row(j0 + 1, sw, sh), r3 = src + row(j0 + 2, sw, sh);
        const a = v128.load(r1 + c1), b = v128.load(r1 + c2), c = v128.load(r2 + c1), d = v128.load(r2 + c2);
        low = f32x4.pmin(f32x4.pmin(a, b), f32x4.pmin(c, d));
        high = f32x4.pmax(f32x4.pmax(a, b), f32x4.pmax(c, d));
        const top = cubic(v128.load(r0 + c0), v128.load(r0 + c1), v128.load(r0 + c2), v128.load(r0 + c3), fx);
        const upper = cubic(v128.load(r1 + c0), a, b, v128.load(r1 + c3), fx);
        const lower = cubic(v128.load(r2 + c0), c, d, v128.load(r2 + c3), fx);
        const bottom = cubic(v128.load(r3 + c0), v128.load(r3 + c1), v128.load(r3 + c2), v128.load(r3 + c3), fx);
        v = cubic(top, upper, lower, bottom, fy);
      }
      v = f32x4.pmax(low, f32x4.pmin(high, v));
      f32.store(dst + at, f32x4.extract_lane(v, 0));
      f32.store(dst + stride + at, f32x4.extract_lane(v, 1));
      f32.store(dst + 2 * stride + at, f32x4.extract_lane(v, 2));
      f32.store(dst + 3 * stride + at, f32x4.extract_lane(v, 3));
    }
}

// @ts-ignore: decorator
@inline
function column(i: i32, w: i32): usize {
  return <usize>max<i32>(0, min<i32>(w - 1, i)) << 4;
}

// @ts-ignore: decorator
@inline
function row(j: i32, w: i32, h: i32): usize {
  return <usize>(max<i32>(0, min<i32>(h - 1, j)) * w) << 4;
}

// @ts-ignore: decorator
@inline
function cubic(a: v128, b: v128, c: v128, d: v128, t: f32): v128 {
  const w0 = f32x4.splat(((-0.5 * t + 1) * t - 0.5) * t);
  const w1 = f32x4.splat((1.5 * t - 2.5) * t * t + 1);
  const w2 = f32x4.splat(((-1.5 * t + 2) * t + 0.5) * t);
  const w3 = f32x4.splat((0.5 * t - 0.5) * t * t);
  return f32x4.add(f32x4.add(f32x4.mul(a, w0), f32x4.mul(b, w1)), f32x4.add(f32x4.mul(c, w2), f32x4.mul(d, w3)));
}

/**
 * Offsets of a projective map: a pixel of the tile whose middle lies at (x, y) of the picture is read at ((m0·x + m1·y + m2) / w, (m3·x + m4·y + m5) / w),
 * w = m6·x + m7·y + m8, kept within `margin` pixels of the picture pw × ph. In `inside` 1 where that lies in the picture, with a soft pixel along its edge.
 */
export function projectedOffsets(
  dx: usize, dy: usize, inside: usize, w: i32, h: i32, x0: f64, y0: f64, pw: f64, ph: f64, margin: f64,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64,
): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const x = x0 + <f64>i + 0.5;
      const y = y0 + <f64>j + 0.5;
      const d = m6 * x + m7 * y + m8;
      const at = <usize>(j * w + i) << 2;
      // Behind the horizon there is nothing.
      const k = d > 1e-9 ? 1 / d : 1e9;
      const u = (m0 * x + m1 * y + m2) * k;
      const v = (m3 * x + m4 * y + m5) * k;
      const edge = min<f64>(min<f64>(u, pw - u), min<f64>(v, ph - v));
      f32.store(inside + at, d > 1e-9 ? <f32>max<f64>(0, min<f64>(1, edge + 0.5)) : 0);
      f32.store(dx + at, <f32>(max<f64>(-margin, min<f64>(pw + margin, u)) - x));
      f32.store(dy + at, <f32>(max<f64>(-margin, min<f64>(ph + margin, v)) - y));
    }
}
