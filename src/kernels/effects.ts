// Operations of treatments on planar tiles: a gradient over light and dark, shifting by a map, light on a relief.
import { clamp4, exp1, floor4, ln1 } from './math';

/** Rec. 709 luma of the encoded values of a tile. */
export function lumaPlane(tile: usize, stride: usize, out: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const y = f32x4.add(
      f32x4.add(f32x4.mul(v128.load(tile + i), f32x4.splat(0.2126)), f32x4.mul(v128.load(tile + i + stride), f32x4.splat(0.7152))),
      f32x4.mul(v128.load(tile + i + 2 * stride), f32x4.splat(0.0722)),
    );
    v128.store(out + i, y);
  }
}

/** Planes of a tile multiplied by its alpha, or with `back` divided by it again. */
export function premultiply(tile: usize, stride: usize, count: i32, back: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const alpha = v128.load(p + 3 * stride);
    const k = back ? f32x4.div(f32x4.splat(1), f32x4.pmax(alpha, f32x4.splat(1e-6))) : alpha;
    for (let c: usize = 0; c < 3; c++) {
      const v = f32x4.mul(v128.load(p + c * stride), k);
      v128.store(p + c * stride, back ? clamp4(v) : v);
    }
  }
}

/**
 * Shifts a picture, interleaved, by a map into four planes (Filter Effects Level 1, feDisplacementMap): out(x, y) = src(x + ax·(m − ½), y + ay·(m − ½)), m the map's value there,
 * amounts in pixels, read bilinearly. Plane and map are w × h; `left`, `top`, `right`, `bottom` bound the picture in pixels of the plane: beyond it
 * the edge is extended, or with `mirror` the picture turned over.
 */
export function displace(
  src: usize, dst: usize, stride: usize, map: usize, w: i32, h: i32, ax: f32, ay: f32, left: f32, top: f32, right: f32, bottom: f32, mirror: i32,
): void {
  for (let j = 0; j < h; j++) {
    for (let i = 0; i < w; i++) {
      const q = <usize>(j * w + i) << 2;
      const m: f32 = f32.load(map + q) - 0.5;
      const x = bounded(<f32>i + ax * m, left, right - 1, mirror);
      const y = bounded(<f32>j + ay * m, top, bottom - 1, mirror);
      // What lies beyond the plane but inside the picture is out of reach: the plane has a halo as wide as the largest shift.
      const cx: f32 = max<f32>(0, min<f32>(<f32>(w - 1), x));
      const cy: f32 = max<f32>(0, min<f32>(<f32>(h - 1), y));
      const x0 = <i32>cx;
      const y0 = <i32>cy;
      const fx = f32x4.splat(cx - <f32>x0);
      const fy = f32x4.splat(cy - <f32>y0);
      const a = src + (<usize>(y0 * w + x0) << 4);
      const right1: usize = x0 + 1 < w ? 16 : 0;
      const down1: usize = y0 + 1 < h ? <usize>w << 4 : 0;
      const p = v128.load(a), r = v128.load(a + down1);
      const upper = f32x4.add(p, f32x4.mul(f32x4.sub(v128.load(a + right1), p), fx));
      const lower = f32x4.add(r, f32x4.mul(f32x4.sub(v128.load(a + down1 + right1), r), fx));
      const v = f32x4.add(upper, f32x4.mul(f32x4.sub(lower, upper), fy));
      f32.store(dst + q, f32x4.extract_lane(v, 0));
      f32.store(dst + stride + q, f32x4.extract_lane(v, 1));
      f32.store(dst + 2 * stride + q, f32x4.extract_lane(v, 2));
      f32.store(dst + 3 * stride + q, f32x4.extract_lane(v, 3));
    }
  }
}

// @ts-ignore: decorator
@inline
function bounded(v: f32, low: f32, high: f32, mirror: i32): f32 {
  if (mirror) {
    if (v < low) v = 2 * low - v;
    if (v > high) v = 2 * high - v;
  }
  return max<f32>(low, min<f32>(high, v));
}

/** The cosine between a direction and the normal of a height, by the Sobel operator on three rows (a, b, c) and three columns (l, m, r). */
// @ts-ignore: decorator
@inline
function cosineTo(a: usize, b: usize, c: usize, l: usize, m: usize, r: usize, k: f32, x: f32, y: f32, z: f32): f32 {
  const gx: f32 = f32.load(a + r) + 2 * f32.load(b + r) + f32.load(c + r) - f32.load(a + l) - 2 * f32.load(b + l) - f32.load(c + l);
  const gy: f32 = f32.load(c + l) + 2 * f32.load(c + m) + f32.load(c + r) - f32.load(a + l) - 2 * f32.load(a + m) - f32.load(a + r);
  const nx: f32 = -k * gx;
  const ny: f32 = -k * gy;
  return (nx * x + ny * y + z) / sqrt<f32>(1 + nx * nx + ny * ny);
}

/**
 * Light of a distant lamp on a height field (Filter Effects Level 1, feDiffuseLighting, normals by the Sobel operator, rows and columns at the
 * border repeated): ½·(N·L) / lz, so that level ground is exactly ½. `scale` is the height of one in pixels; lx, ly, lz the direction to the lamp.
 */
export function relief(height: usize, dst: usize, w: i32, h: i32, scale: f32, lx: f32, ly: f32, lz: f32): void {
  const gain: f32 = 0.5 / lz;
  const k: f32 = scale * 0.25;
  for (let j = 0; j < h; j++) {
    const a = height + (<usize>(max<i32>(0, j - 1) * w) << 2);
    const b = height + (<usize>(j * w) << 2);
    const c = height + (<usize>(min<i32>(h - 1, j + 1) * w) << 2);
    for (let i = 0; i < w; i++) {
      const l = <usize>max<i32>(0, i - 1) << 2;
      const m = <usize>i << 2;
      const r = <usize>min<i32>(w - 1, i + 1) << 2;
      const lit: f32 = cosineTo(a, b, c, l, m, r, k, lx, ly, lz);
      f32.store(dst + (<usize>(j * w + i) << 2), max<f32>(0, min<f32>(1, lit * gain)));
    }
  }
}

/** plane = a + wd·(plane − base) + wb·(base − a), with base in another plane: detail and what it stands on, each by a weight. Not clipped. */
export function recombine(plane: usize, base: usize, count: i32, detail: f32, under: f32, middle: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = v128.load(plane + i);
    const b = v128.load(base + i);
    const d = f32x4.mul(f32x4.splat(detail), f32x4.sub(v, b));
    const u = f32x4.mul(f32x4.splat(under), f32x4.sub(b, f32x4.splat(middle)));
    v128.store(plane + i, clamp4(f32x4.add(f32x4.splat(middle), f32x4.add(d, u))));
  }
}

/**
 * A gradient's colours into a tile: t runs along a line from (x0, y0), with `round` from that centre outwards; 1 lies (dx, dy) further, in tile
 * pixels. `tables` holds four tables (r, g, b, alpha) of `size` values over t = 0..1; before 0 and after 1 it stays.
 */
export function gradient(
  tile: usize, stride: usize, w: i32, h: i32, x0: f32, y0: f32, dx: f32, dy: f32, round: i32, tables: usize, size: i32,
): void {
  const length2: f32 = max<f32>(1e-6, dx * dx + dy * dy);
  const top = f32x4.splat(<f32>(size - 1));
  for (let j = 0; j < h; j++) {
    const py: f32 = <f32>j + 0.5 - y0;
    for (let i = 0; i < w; i += 4) {
      const px = f32x4.sub(f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3)), f32x4.splat(x0));
      const along = round
        ? f32x4.mul(f32x4.sqrt(f32x4.add(f32x4.mul(px, px), f32x4.splat(py * py))), f32x4.splat(1 / sqrt<f32>(length2)))
        : f32x4.mul(f32x4.add(f32x4.mul(px, f32x4.splat(dx)), f32x4.splat(py * dy)), f32x4.splat(1 / length2));
      const t = f32x4.mul(clamp4(along), top);
      const cell = i32x4.min_s(floor4(t), i32x4.splat(size - 2));
      const part = f32x4.sub(t, f32x4.convert_i32x4_s(cell));
      const at = i32x4.shl(cell, 2);
      const p = tile + (<usize>(j * w + i) << 2);
      for (let c: usize = 0; c < 4; c++) {
        const table = tables + c * (<usize>size << 2);
        const a = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 1), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 0)), 1);
        const b = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 3), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 2)), 1);
        const low = i32x4.shuffle(a, b, 0, 2, 4, 6);
        const v = f32x4.add(low, f32x4.mul(f32x4.sub(i32x4.shuffle(a, b, 1, 3, 5, 7), low), part));
        const q = p + c * stride;
        if (i + 4 <= w) v128.store(q, v);
        else for (let n = 0; n < w - i; n++) f32.store(q + (<usize>n << 2), n == 0 ? f32x4.extract_lane(v, 0) : n == 1 ? f32x4.extract_lane(v, 1) : f32x4.extract_lane(v, 2));
      }
    }
  }
}

/**
 * Grain on a plane: random values at the corners of square cells of `cell` pixels, by cell and seed alone, so that any tile finds the same ones;
 * between them a smooth ramp, brought back to one deviation. `x`, `y` is the tile's origin. Uniform over −1..1, or with `normal` a sum of four
 * close to a Gaussian; standard deviation `gain` either way.
 */
export function grain(dst: usize, w: i32, h: i32, x: i32, y: i32, cell: f32, seed: i32, normal: i32, gain: f32): void {
  const k: f32 = 1 / cell;
  for (let j = 0; j < h; j++) {
    const v: f32 = (<f32>(y + j) + 0.5) * k - 0.5;
    const v0 = <i32>floor<f32>(v);
    const fv: f32 = v - <f32>v0;
    let last = -2147483648;
    let a: f32 = 0;
    let b: f32 = 0;
    let c: f32 = 0;
    let d: f32 = 0;
    for (let i = 0; i < w; i++) {
      const u: f32 = (<f32>(x + i) + 0.5) * k - 0.5;
      const u0 = <i32>floor<f32>(u);
      if (u0 != last) {
        last = u0;
        a = chance(u0, v0, seed, normal);
        b = chance(u0 + 1, v0, seed, normal);
        c = chance(u0, v0 + 1, seed, normal);
        d = chance(u0 + 1, v0 + 1, seed, normal);
      }
      const fu: f32 = u - <f32>u0;
      const p: f32 = fu * fu * (3 - 2 * fu);
      const q: f32 = fv * fv * (3 - 2 * fv);
      const wa: f32 = (1 - p) * (1 - q);
      const wb: f32 = p * (1 - q);
      const wc: f32 = (1 - p) * q;
      const wd: f32 = p * q;
      const norm: f32 = 1 / sqrt<f32>(wa * wa + wb * wb + wc * wc + wd * wd);
      const at = dst + (<usize>(j * w + i) << 2);
      f32.store(at, f32.load(at) + gain * norm * (a * wa + b * wb + c * wc + d * wd));
    }
  }
}

// @ts-ignore: decorator
@inline
function hash(x: i32, y: i32, seed: i32): i32 {
  let h = (x * 0x27d4eb2d) ^ (y * 0x165667b1) ^ (seed * 0x2c1b3c6d);
  h = (h ^ (h >>> 15)) * 0x2c1b3c6d;
  h = (h ^ (h >>> 12)) * 0x297a2d39;
  return h ^ (h >>> 15);
}

/** A random value of deviation 1 for a lattice point. */
// @ts-ignore: decorator
@inline
function chance(x: i32, y: i32, seed: i32, normal: i32): f32 {
  const h = hash(x, y, seed);
  if (!normal) return <f32>h * <f32>(1.7320508 / 2147483648.0);
  const g = hash(x, y, seed + 77);
  const sum: f32 = <f32>(h & 0xffff) + <f32>((h >>> 16) & 0xffff) + <f32>(g & 0xffff) + <f32>((g >>> 16) & 0xffff);
  return (sum * <f32>(1.0 / 65535.0) - 2) * <f32>1.7320508;
}

/** Each pixel's luma looked up in three tables of `size` values: the colours of a gradient laid on light and dark. */
export function remap(tile: usize, stride: usize, count: i32, tables: usize, size: i32): void {
  const top = f32x4.splat(<f32>(size - 1));
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const y = f32x4.add(
      f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(0.2126)), f32x4.mul(v128.load(p + stride), f32x4.splat(0.7152))),
      f32x4.mul(v128.load(p + 2 * stride), f32x4.splat(0.0722)),
    );
    const t = f32x4.mul(clamp4(y), top);
    const cell = i32x4.min_s(floor4(t), i32x4.splat(size - 2));
    const part = f32x4.sub(t, f32x4.convert_i32x4_s(cell));
    const at = i32x4.shl(cell, 2);
    for (let c: usize = 0; c < 3; c++) {
      const table = tables + c * (<usize>size << 2);
      const a = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 1), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 0)), 1);
      const b = v128.load64_lane(table + <usize>i32x4.extract_lane(at, 3), v128.load64_zero(table + <usize>i32x4.extract_lane(at, 2)), 1);
      const low = i32x4.shuffle(a, b, 0, 2, 4, 6);
      v128.store(p + c * stride, f32x4.add(low, f32x4.mul(f32x4.sub(i32x4.shuffle(a, b, 1, 3, 5, 7), low), part)));
    }
  }
}

/** Pixels of a plane outside of the picture take the value of the nearest one inside; the bounds are pixels of the plane. */
export function extendEdges(plane: usize, w: i32, h: i32, left: i32, top: i32, right: i32, bottom: i32): void {
  const l = max<i32>(0, min<i32>(w - 1, left));
  const r = max<i32>(l, min<i32>(w - 1, right - 1));
  const t = max<i32>(0, min<i32>(h - 1, top));
  const b = max<i32>(t, min<i32>(h - 1, bottom - 1));
  const pitch = <usize>w << 2;
  for (let j = t; j <= b; j++) {
    const row = plane + <usize>j * pitch;
    const first: f32 = f32.load(row + (<usize>l << 2));
    const last: f32 = f32.load(row + (<usize>r << 2));
    for (let i = 0; i < l; i++) f32.store(row + (<usize>i << 2), first);
    for (let i = r + 1; i < w; i++) f32.store(row + (<usize>i << 2), last);
  }
  for (let j = 0; j < t; j++) memory.copy(plane + <usize>j * pitch, plane + <usize>t * pitch, pitch);
  for (let j = b + 1; j < h; j++) memory.copy(plane + <usize>j * pitch, plane + <usize>b * pitch, pitch);
}

/**
 * Gloss of a distant lamp on a height field (Filter Effects Level 1, feSpecularLighting, normals as in `relief`): (N·H)^exponent less that of level ground,
 * with H half-way between the lamp and the viewer. Level ground is exactly 0; values may be below it.
 */
export function gloss(height: usize, dst: usize, w: i32, h: i32, scale: f32, hx: f32, hy: f32, hz: f32, exponent: f32): void {
  const k: f32 = scale * 0.25;
  const level: f32 = exp1(exponent * ln1(hz));
  for (let j = 0; j < h; j++) {
    const a = height + (<usize>(max<i32>(0, j - 1) * w) << 2);
    const b = height + (<usize>(j * w) << 2);
    const c = height + (<usize>(min<i32>(h - 1, j + 1) * w) << 2);
    for (let i = 0; i < w; i++) {
      const l = <usize>max<i32>(0, i - 1) << 2;
      const m = <usize>i << 2;
      const r = <usize>min<i32>(w - 1, i + 1) << 2;
      const half: f32 = cosineTo(a, b, c, l, m, r, k, hx, hy, hz);
      f32.store(dst + (<usize>(j * w + i) << 2), (half > 1e-6 ? exp1(exponent * ln1(half)) : 0) - level);
    }
  }
}
