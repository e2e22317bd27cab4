// Pictures moved by planes of offsets, streaks, vignettes and two tones: single passes over a tile.
import { between } from './flow';
import { clamp1, clamp4, decode4 as decodeTo, encode4 as encodeTo, exp1, ln1 } from './math';

/** Planes of `src` (interleaved) read at offsets of (dx, dy) pixels, planes; the edge is extended. */
export function displacedBy(src: usize, w: i32, h: i32, dx: usize, dy: usize, dst: usize, stride: usize, planes: i32): void {
  displacedFrom(src, w, h, w, h, dx, dy, dst, stride, planes);
}

/** The same from a picture of another size, sw × sh. */
export function displacedFrom(src: usize, sw: i32, sh: i32, w: i32, h: i32, dx: usize, dy: usize, dst: usize, stride: usize, planes: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const v = between(src, sw, sh, <f32>i + f32.load(dx + at), <f32>j + f32.load(dy + at));
      f32.store(dst + at, f32x4.extract_lane(v, 0));
      f32.store(dst + stride + at, f32x4.extract_lane(v, 1));
      f32.store(dst + 2 * stride + at, f32x4.extract_lane(v, 2));
      if (planes > 3) f32.store(dst + 3 * stride + at, f32x4.extract_lane(v, 3));
    }
}

/** Offsets of an affine map about a point: dx = ox + a·X + b·Y, dy = oy + c·X + d·Y, X and Y from (cx, cy) in pixels of the tile. */
export function affineOffsets(dx: usize, dy: usize, w: i32, h: i32, cx: f32, cy: f32, ox: f32, oy: f32, a: f32, b: f32, c: f32, d: f32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const x: f32 = <f32>i - cx;
      const y: f32 = <f32>j - cy;
      f32.store(dx + at, ox + a * x + b * y);
      f32.store(dy + at, oy + c * x + d * y);
    }
}

// @ts-ignore: decorator
@inline
function chance(x: i32, y: i32, seed: i32): f32 {
  let h = (x * 0x27d4eb2d) ^ (y * 0x165667b1) ^ (seed * 0x2c1b3c6d);
  h = (h ^ (h >>> 15)) * 0x2c1b3c6d;
  h = (h ^ (h >>> 12)) * 0x297a2d39;
  h ^= h >>> 15;
  return <f32>(h & 0xffffff) * <f32>(1.0 / 16777215.0);
}

/**
 * Streaks, 0..1 added to a plane: cells of length × width pixels on a lattice turned so that it runs along (tx, ty); of each column a part `density` of
 * its cells holds a streak, with soft sides and ends. (x, y) is the tile's origin.
 */
export function streaks(dst: usize, w: i32, h: i32, x: i32, y: i32, tx: f32, ty: f32, length: f32, width: f32, density: f32, seed: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const px: f32 = <f32>(x + i) + 0.5;
      const py: f32 = <f32>(y + j) + 0.5;
      const lane: f32 = (py * tx - px * ty) / width;
      const column = <i32>floor<f32>(lane);
      const along: f32 = (px * tx + py * ty) / length + 7.3 * chance(column, 0, seed + 1);
      const row = <i32>floor<f32>(along);
      if (chance(column, row, seed) >= density) continue;
      const u: f32 = 2 * abs<f32>(lane - <f32>column - 0.5);
      const v: f32 = 2 * abs<f32>(along - <f32>row - 0.5);
      const thick: f32 = 0.35 + 0.65 * chance(column, row, seed + 2);
      const value: f32 = clamp1((thick - u) * width * 0.5 + 0.3) * clamp1((1 - v) * 3) * (0.4 + 0.6 * chance(column, row, seed + 3));
      const at = dst + (<usize>(j * w + i) << 2);
      f32.store(at, f32.load(at) + value);
    }
}

/**
 * How much light a vignette takes, 0..1: 1 − 1 / (1 + q²)² in linear light with q = t·(r / size)^power, put in encoded values; r is the distance from
 * (cx, cy), 1 at (ax, 0) and (0, ay). Pixels of the tile.
 */
export function vignette(dst: usize, w: i32, h: i32, cx: f32, cy: f32, ax: f32, ay: f32, size: f32, t: f32, power: f32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const x: f32 = (<f32>i + 0.5 - cx) / ax;
      const y: f32 = (<f32>j + 0.5 - cy) / ay;
      const r: f32 = sqrt<f32>(x * x + y * y) / size;
      const q: f32 = t * (r > 0 ? exp1(power * ln1(r)) : 0);
      const light: f32 = 1 / ((1 + q * q) * (1 + q * q));
      f32.store(dst + (<usize>(j * w + i) << 2), 1 - exp1(ln1(light) * 0.45454545));
    }
}

/**
 * Two tones: luma-free tints (rs, gs, bs) for shadows and (rh, gh, bh) for highlights, of any strength, in a share that crosses over around `balance`;
 * most in the middle tones. Luma stays; what would leave 0..1 is drawn to grey.
 */
export function twoTones(
  tile: usize, stride: usize, count: i32, rs: f32, gs: f32, bs: f32, rh: f32, gh: f32, bh: f32, balance: f32,
): void {
  const one = f32x4.splat(1);
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const r = v128.load(tile + i), g = v128.load(tile + stride + i), b = v128.load(tile + 2 * stride + i);
    const y = f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(g, f32x4.splat(0.7152))), f32x4.mul(b, f32x4.splat(0.0722)));
    const s = clamp4(f32x4.add(f32x4.mul(f32x4.sub(y, f32x4.splat(balance)), f32x4.splat(1.11)), f32x4.splat(0.5)));
    const high = f32x4.mul(f32x4.mul(s, s), f32x4.sub(f32x4.splat(3), f32x4.add(s, s)));
    const low = f32x4.sub(one, high);
    const room = f32x4.mul(f32x4.splat(4), f32x4.add(f32x4.mul(y, f32x4.sub(one, y)), f32x4.splat(0.03)));
    const dr = f32x4.add(f32x4.sub(r, y), f32x4.mul(room, f32x4.add(f32x4.mul(low, f32x4.splat(rs)), f32x4.mul(high, f32x4.splat(rh)))));
    const dg = f32x4.add(f32x4.sub(g, y), f32x4.mul(room, f32x4.add(f32x4.mul(low, f32x4.splat(gs)), f32x4.mul(high, f32x4.splat(gh)))));
    const db = f32x4.add(f32x4.sub(b, y), f32x4.mul(room, f32x4.add(f32x4.mul(low, f32x4.splat(bs)), f32x4.mul(high, f32x4.splat(bh)))));
    // The greatest part k of the colour with y + k·d inside 0..1 in every channel.
    let k = one;
    k = f32x4.pmin(k, room4(y, dr));
    k = f32x4.pmin(k, room4(y, dg));
    k = f32x4.pmin(k, room4(y, db));
    k = f32x4.pmax(zero, k);
    v128.store(tile + i, clamp4(f32x4.add(y, f32x4.mul(k, dr))));
    v128.store(tile + stride + i, clamp4(f32x4.add(y, f32x4.mul(k, dg))));
    v128.store(tile + 2 * stride + i, clamp4(f32x4.add(y, f32x4.mul(k, db))));
  }
}

// @ts-ignore: decorator
@inline
function room4(y: v128, d: v128): v128 {
  const up = f32x4.gt(d, f32x4.splat(0));
  const space = v128.bitselect(f32x4.sub(f32x4.splat(1), y), y, up);
  return f32x4.div(space, f32x4.add(f32x4.abs(d), f32x4.splat(1e-9)));
}

/** Light laid on in linear light (screen): c becomes 1 − (1 − c)·(1 − gain·glow), both encoded planes; `glow` is linear. */
export function lightened(plane: usize, glow: usize, count: i32, gain: f32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const c = decodeTo(v128.load(plane + i));
    const left = f32x4.sub(one, clamp4(f32x4.mul(f32x4.splat(gain), v128.load(glow + i))));
    v128.store(plane + i, encodeTo(f32x4.sub(one, f32x4.mul(f32x4.sub(one, c), left))));
  }
}

/** Encoded to linear light, in place. */
export function linearised(plane: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(plane + i, decodeTo(v128.load(plane + i)));
}
