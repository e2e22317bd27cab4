// The form of a face as planes: its mesh drawn with depth, the stretch of its surface, and an equation whose solution follows both.
import { exp1, ln1 } from './math';

/**
 * Draws triangles with depth into planes: unit normals (nx, ny, nz) and 1 in `cover`. A vertex is six f32: x, y, depth away from the viewer, and its
 * normal; a triangle three u16. Those whose corners go round the other way than `facing` says (1 or −1) are turned away and left out. `depth` holds how
 * far away the nearest triangle is, and must begin very far.
 */
export function drawMesh(
  vertices: usize, triangles: usize, n: i32, w: i32, h: i32, facing: f32, depth: usize, nx: usize, ny: usize, nz: usize, cover: usize,
): void {
  for (let t = 0; t < n; t++) {
    const at = triangles + <usize>(t * 6);
    const a = vertices + <usize>load<u16>(at) * 24;
    const b = vertices + <usize>load<u16>(at, 2) * 24;
    const c = vertices + <usize>load<u16>(at, 4) * 24;
    const ax: f32 = f32.load(a), ay: f32 = f32.load(a, 4);
    const bx: f32 = f32.load(b) - ax, by: f32 = f32.load(b, 4) - ay;
    const cx: f32 = f32.load(c) - ax, cy: f32 = f32.load(c, 4) - ay;
    const area: f32 = bx * cy - by * cx;
    if (area * facing <= 1e-6) continue;
    const x0 = max<i32>(0, <i32>floor<f32>(ax + min<f32>(0, min<f32>(bx, cx))));
    const x1 = min<i32>(w - 1, <i32>ceil<f32>(ax + max<f32>(0, max<f32>(bx, cx))));
    const y0 = max<i32>(0, <i32>floor<f32>(ay + min<f32>(0, min<f32>(by, cy))));
    const y1 = min<i32>(h - 1, <i32>ceil<f32>(ay + max<f32>(0, max<f32>(by, cy))));
    for (let j = y0; j <= y1; j++)
      for (let i = x0; i <= x1; i++) {
        const px: f32 = <f32>i + 0.5 - ax;
        const py: f32 = <f32>j + 0.5 - ay;
        const v: f32 = (px * cy - py * cx) / area;
        const u: f32 = (bx * py - by * px) / area;
        if (v < 0 || u < 0 || v + u > 1) continue;
        const o: f32 = 1 - v - u;
        const far: f32 = o * f32.load(a, 8) + v * f32.load(b, 8) + u * f32.load(c, 8);
        const q = <usize>(j * w + i) << 2;
        if (far >= f32.load(depth + q)) continue;
        f32.store(depth + q, far);
        f32.store(nx + q, o * f32.load(a, 12) + v * f32.load(b, 12) + u * f32.load(c, 12));
        f32.store(ny + q, o * f32.load(a, 16) + v * f32.load(b, 16) + u * f32.load(c, 16));
        f32.store(nz + q, o * f32.load(a, 20) + v * f32.load(b, 20) + u * f32.load(c, 20));
        f32.store(cover + q, 1);
      }
  }
}

/** Normals (nx, ny, nz) of any length become slopes (p, q) = (nx, ny) / max(0.05, nz), in place of nx and ny; their length l is softened to c·tanh(l / c). */
export function slopesOf(nx: usize, ny: usize, nz: usize, count: i32, c: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(nx + i), y: f32 = f32.load(ny + i), z: f32 = f32.load(nz + i);
    const length: f32 = sqrt<f32>(x * x + y * y + z * z);
    if (length < 1e-6) {
      f32.store(nx + i, 0);
      f32.store(ny + i, 0);
      continue;
    }
    const k: f32 = 1 / max<f32>(0.05 * length, z);
    const p: f32 = x * k, q: f32 = y * k;
    const l: f32 = sqrt<f32>(p * p + q * q);
    const e: f32 = exp1(-2 * l / c);
    const soft: f32 = l > 1e-4 ? (c * (1 - e)) / (1 + e) / l : 1;
    f32.store(nx + i, p * soft);
    f32.store(ny + i, q * soft);
  }
}

/**
 * How much longer a surface of slopes (p, q) is than its picture, less the identity: with m² = p² + q² and e = (√(1 + m²) − 1) / m², the symmetric matrix
 * a = e·p², b = e·p·q, c = e·q².
 */
export function stretchOf(p: usize, q: usize, a: usize, b: usize, c: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(p + i), y: f32 = f32.load(q + i);
    const m: f32 = x * x + y * y;
    const e: f32 = m > 1e-6 ? (sqrt<f32>(1 + m) - 1) / m : 0.5;
    f32.store(a + i, e * x * x);
    f32.store(b + i, e * x * y);
    f32.store(c + i, e * y * y);
  }
}

/** ∂x a + ∂y b by central differences, 0 along the border. */
export function divergence(a: usize, b: usize, out: usize, w: i32, h: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const inside = i > 0 && j > 0 && i + 1 < w && j + 1 < h;
      const row = <usize>w << 2;
      f32.store(
        out + at,
        inside ? 0.5 * (f32.load(a + at + 4) - f32.load(a + at - 4) + f32.load(b + at + row) - f32.load(b + at - row)) : 0,
      );
    }
}

/** Means of 2 × 2 values: a plane of ⌊w/2⌋ × ⌊h/2⌋. */
export function halvedPlane(src: usize, w: i32, h: i32, dst: usize): void {
  const hw = w >> 1;
  for (let j = 0; j < h >> 1; j++)
    for (let i = 0; i < hw; i++) {
      const p = src + (<usize>(2 * j * w + 2 * i) << 2);
      const q = p + (<usize>w << 2);
      f32.store(dst + (<usize>(j * hw + i) << 2), 0.25 * (f32.load(p) + f32.load(p, 4) + f32.load(q) + f32.load(q, 4)));
    }
}

/** A plane twice as large, bilinearly; beyond the edge it is 0. */
export function doubledPlane(src: usize, w: i32, h: i32, dst: usize): void {
  for (let j = 0; j < 2 * h; j++)
    for (let i = 0; i < 2 * w; i++) {
      const i0 = i >> 1, j0 = j >> 1;
      const i1 = (i & 1) == 0 ? i0 - 1 : i0 + 1;
      const j1 = (j & 1) == 0 ? j0 - 1 : j0 + 1;
      const a: f32 = f32.load(src + (<usize>(j0 * w + i0) << 2));
      const b: f32 = i1 >= 0 && i1 < w ? f32.load(src + (<usize>(j0 * w + i1) << 2)) : 0;
      const c: f32 = j1 >= 0 && j1 < h ? f32.load(src + (<usize>(j1 * w + i0) << 2)) : 0;
      const d: f32 = i1 >= 0 && i1 < w && j1 >= 0 && j1 < h ? f32.load(src + (<usize>(j1 * w + i1) << 2)) : 0;
      f32.store(dst + (<usize>(j * 2 * w + i) << 2), 0.5625 * a + 0.1875 * (b + c) + 0.0625 * d);
    }
}

/**
 * Sweeps of successive over-relaxation, factor `over`, in two colours of a board, on the screened Poisson equation ∇²u − λu = f with u = 0 beyond the
 * plane; the distance between values is `step`.
 */
export function solveScreened(u: usize, f: usize, w: i32, h: i32, step: f32, lambda: f32, over: f32, sweeps: i32): void {
  const square: f32 = step * step;
  const k: f32 = 1 / (4 + lambda * square);
  const row = <usize>w << 2;
  for (let s = 0; s < 2 * sweeps; s++)
    for (let j = 0; j < h; j++)
      for (let i = (j + s) & 1; i < w; i += 2) {
        const at = <usize>(j * w + i) << 2;
        let sum: f32 = -square * f32.load(f + at);
        if (i > 0) sum += f32.load(u + at - 4);
        if (i + 1 < w) sum += f32.load(u + at + 4);
        if (j > 0) sum += f32.load(u + at - row);
        if (j + 1 < h) sum += f32.load(u + at + row);
        const old: f32 = f32.load(u + at);
        f32.store(u + at, old + over * (sum * k - old));
      }
}

/** The least determinant of I + k·∇(dx, dy), offsets in pixels of their own planes, by central differences. */
export function leastDeterminant(dx: usize, dy: usize, w: i32, h: i32, k: f32): f32 {
  let least: f32 = 1;
  const row = <usize>w << 2;
  const half: f32 = 0.5 * k;
  for (let j = 1; j + 1 < h; j++)
    for (let i = 1; i + 1 < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const xx: f32 = half * (f32.load(dx + at + 4) - f32.load(dx + at - 4));
      const xy: f32 = half * (f32.load(dx + at + row) - f32.load(dx + at - row));
      const yx: f32 = half * (f32.load(dy + at + 4) - f32.load(dy + at - 4));
      const yy: f32 = half * (f32.load(dy + at + row) - f32.load(dy + at - row));
      least = min<f32>(least, (1 + xx) * (1 + yy) - xy * yx);
    }
  return least;
}

/** a = a / max(least, b). */
export function dividedBy(a: usize, b: usize, count: i32, least: f32): void {
  const floor4 = f32x4.splat(least);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16)
    v128.store(a + i, f32x4.div(v128.load(a + i), f32x4.pmax(floor4, v128.load(b + i))));
}

/**
 * Lets neighbours share a place: each value is multiplied, for every other centre, by d⁴ / (d⁴ + own⁴), with the distances to it and to the own centre each
 * in widths of that face. `centres` are triples of f32 (x, y, width) in pixels of the plane, the own one first.
 */
export function shareByDistance(plane: usize, w: i32, h: i32, centres: usize, n: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      let share: f32 = 1;
      let own: f32 = 0;
      for (let c = 0; c < n; c++) {
        const at = centres + <usize>(c * 12);
        const x: f32 = (<f32>i + 0.5 - f32.load(at)) / f32.load(at, 8);
        const y: f32 = (<f32>j + 0.5 - f32.load(at, 4)) / f32.load(at, 8);
        const square: f32 = x * x + y * y;
        if (c == 0) own = square * square;
        else share *= (square * square) / max<f32>(1e-9, square * square + own);
      }
      const at = plane + (<usize>(j * w + i) << 2);
      f32.store(at, f32.load(at) * share);
    }
}

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

/** The third part of unit normals, in place of nz; 0 where there is none. */
export function facingOf(nx: usize, ny: usize, nz: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(nx + i), y: f32 = f32.load(ny + i), z: f32 = f32.load(nz + i);
    const length: f32 = sqrt<f32>(x * x + y * y + z * z);
    f32.store(nz + i, length > 1e-6 ? max<f32>(0, z / length) : 0);
  }
}

/** Distances d from an edge, in pixels, become the third part of the normal of a surface that is round there: √(1 − (1 − min(1, d / radius))²). */
export function roundedOf(plane: usize, count: i32, radius: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const q: f32 = 1 - min<f32>(1, f32.load(plane + i) / radius);
    f32.store(plane + i, sqrt<f32>(max<f32>(0, 1 - q * q)));
  }
}

/**
 * How far edges of a picture are out of focus, gathered in cells. `sharp` and `soft` are a luma (0..255) blurred by deviations a and b, pixels of a level that
 * is `size` times smaller than the picture; where the gradient of the first is greatest across an edge and over the noise, the ratio R of both gradients gives
 * the edge's own blur σ² = (b² − a²) / (R² − 1) − a². Kept from `least` to `most` pixels of the level. Each adds its weight, and ln(σ·size + 0.3) times that, to
 * the cell of 4 × 4 pixels of the picture that it lies in, `columns` cells a row: to the first pair of planes by the share `inside`, to the second by the rest.
 */
export function gatherFocus(
  sharp: usize, soft: usize, w: i32, h: i32, size: i32, a: f32, b: f32, least: f32, most: f32, inside: usize, pitch: i32, rows: i32, columns: i32,
  weights: usize, sums: usize, otherWeights: usize, otherSums: usize,
): void {
  for (let j = 1; j + 1 < h; j++)
    for (let i = 1; i + 1 < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const gx: f32 = slopeX(sharp, at), gy: f32 = slopeY(sharp, at, w);
      const square: f32 = gx * gx + gy * gy;
      if (square < 6) continue;
      const across: i32 = abs<f32>(gx) > abs<f32>(gy) ? 1 : w;
      const before = at - (<usize>across << 2), after = at + (<usize>across << 2);
      if (i < 2 || j < 2 || i + 2 >= w || j + 2 >= h) continue;
      if (squareAt(sharp, before, w) > square || squareAt(sharp, after, w) >= square) continue;
      const sx: f32 = slopeX(soft, at), sy: f32 = slopeY(soft, at, w);
      const ratio: f32 = square / max<f32>(1e-6, sx * sx + sy * sy);
      if (ratio <= 1.0001) continue;
      // A difference over two pixels blurs by a box of that width, of variance 1/3.
      const variance: f32 = (b * b - a * a) / (ratio - 1) - a * a - <f32>(1.0 / 3.0);
      const sigma: f32 = sqrt<f32>(max<f32>(0, variance));
      if (sigma < least || sigma > most) continue;
      const x = i * size + (size >> 1), y = j * size + (size >> 1);
      if (x >= pitch || y >= rows) continue;
      const scaled: f32 = sigma * <f32>size;
      const base: f32 = (sigma + 0.4) * sqrt<f32>(sigma + 0.4);
      const weight: f32 = (min<f32>(1, square / 200) * <f32>size) / base;
      const value: f32 = weight * ln1(scaled + 0.3);
      const p: f32 = f32.load(inside + (<usize>(y * pitch + x) << 2));
      const cell = <usize>((y >> 2) * columns + (x >> 2)) << 2;
      // On the subject soft shading is not blur: its sharp edges speak for what lies between them.
      const sharpWins: f32 = p / ((scaled + 0.4) * (scaled + 0.4));
      f32.store(weights + cell, f32.load(weights + cell) + weight * sharpWins);
      f32.store(sums + cell, f32.load(sums + cell) + value * sharpWins);
      f32.store(otherWeights + cell, f32.load(otherWeights + cell) + weight * (1 - p));
      f32.store(otherSums + cell, f32.load(otherSums + cell) + value * (1 - p));
    }
}

// @ts-ignore: decorator
@inline
function slopeX(plane: usize, at: usize): f32 {
  return 0.5 * (f32.load(plane + at + 4) - f32.load(plane + at - 4));
}

// @ts-ignore: decorator
@inline
function slopeY(plane: usize, at: usize, w: i32): f32 {
  const row = <usize>w << 2;
  return 0.5 * (f32.load(plane + at + row) - f32.load(plane + at - row));
}

// @ts-ignore: decorator
@inline
function squareAt(plane: usize, at: usize, w: i32): f32 {
  const x: f32 = slopeX(plane, at), y: f32 = slopeY(plane, at, w);
  return x * x + y * y;
}

/** ln(σ + 0.3) becomes √(σ / most), 0..1. */
export function rootOfBlur(plane: usize, count: i32, most: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const sigma: f32 = exp1(f32.load(plane + i)) - 0.3;
    f32.store(plane + i, sqrt<f32>(max<f32>(0, min<f32>(1, sigma / most))));
  }
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
