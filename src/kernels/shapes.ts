// Poster shapes: which of a few colours a pixel takes, and soft borders between them.
import { clamp1, decode4, encode4 } from './math';

/**
 * Distance from each pixel to a colour in a space of three planes, and which colour is nearest so far: where it is nearer than `nearest`, `label` becomes
 * `index`.
 */
export function nearerTo(a: usize, b: usize, c: usize, count: i32, ka: f32, kb: f32, kc: f32, nearest: usize, label: usize, index: f32): void {
  const va = f32x4.splat(ka), vb = f32x4.splat(kb), vc = f32x4.splat(kc);
  const me = f32x4.splat(index);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const da = f32x4.sub(v128.load(a + i), va);
    const db = f32x4.sub(v128.load(b + i), vb);
    const dc = f32x4.sub(v128.load(c + i), vc);
    const d = f32x4.add(f32x4.add(f32x4.mul(da, da), f32x4.mul(db, db)), f32x4.mul(dc, dc));
    const before = v128.load(nearest + i);
    const nearer = f32x4.lt(d, before);
    v128.store(nearest + i, f32x4.pmin(d, before));
    v128.store(label + i, v128.bitselect(me, v128.load(label + i), nearer));
  }
}

/** dst = value where label equals index, else 0. */
export function indicator(label: usize, count: i32, index: f32, value: f32, dst: usize): void {
  const me = f32x4.splat(index);
  const v = f32x4.splat(value);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    v128.store(dst + i, v128.and(v, f32x4.eq(v128.load(label + i), me)));
  }
}

/** Keeps the two greatest of the planes it is given one after another, and their indices. Both begin with values of −1. */
export function rank(plane: usize, count: i32, index: f32, first: usize, firstIndex: usize, second: usize, secondIndex: usize): void {
  const me = f32x4.splat(index);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = v128.load(plane + i);
    const a = v128.load(first + i);
    const b = v128.load(second + i);
    const isFirst = f32x4.gt(v, a);
    const isSecond = v128.andnot(f32x4.gt(v, b), isFirst);
    const ai = v128.load(firstIndex + i);
    const bi = v128.load(secondIndex + i);
    v128.store(second + i, v128.bitselect(a, v128.bitselect(v, b, isSecond), isFirst));
    v128.store(secondIndex + i, v128.bitselect(ai, v128.bitselect(me, bi, isSecond), isFirst));
    v128.store(first + i, v128.bitselect(v, a, isFirst));
    v128.store(firstIndex + i, v128.bitselect(me, ai, isFirst));
  }
}

/**
 * Pixels of a few colours (a table of four values each): the first, and at a border, where both indicators are nearly equal, some of the second, mixed in
 * linear light. `slope` is how fast the difference of indicators grows a pixel at a straight border, so that the border is a pixel wide.
 */
export function paintRanked(
  first: usize, firstIndex: usize, second: usize, secondIndex: usize, count: i32, colours: usize, slope: f32, dst: usize, stride: usize,
): void {
  for (let i = 0; i < count; i++) {
    const at = <usize>i << 2;
    const part: f32 = clamp1((f32.load(first + at) - f32.load(second + at)) * slope + 0.5);
    const a = v128.load(colours + (<usize>f32.load(firstIndex + at) << 4));
    let v = a;
    if (part < 1 && f32.load(second + at) >= 0) {
      const b = v128.load(colours + (<usize>f32.load(secondIndex + at) << 4));
      const la = decode4(a), lb = decode4(b);
      v = encode4(f32x4.add(lb, f32x4.mul(f32x4.sub(la, lb), f32x4.splat(part))));
    }
    f32.store(dst + at, f32x4.extract_lane(v, 0));
    f32.store(dst + stride + at, f32x4.extract_lane(v, 1));
    f32.store(dst + 2 * stride + at, f32x4.extract_lane(v, 2));
  }
}

/** Encoded sRGB planes as a space in which distances are roughly those of CIE Lab (OKLab, Ottosson 2020, times 100): L, a, b. */
export function perceived(src: usize, stride: usize, count: i32, l: usize, a: usize, b: usize): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const r = decode4(v128.load(src + i)), g = decode4(v128.load(src + stride + i)), bl = decode4(v128.load(src + 2 * stride + i));
    const x = root3(mix3(r, g, bl, 0.4122214708, 0.5363325363, 0.0514459929));
    const y = root3(mix3(r, g, bl, 0.2119034982, 0.6806995451, 0.1073969566));
    const z = root3(mix3(r, g, bl, 0.0883024619, 0.2817188376, 0.6299787005));
    v128.store(l + i, mix3(x, y, z, 21.04542553, 79.3617785, -0.40720468));
    v128.store(a + i, mix3(x, y, z, 197.79984951, -242.8592205, 45.05937099));
    v128.store(b + i, mix3(x, y, z, 2.59040371, 78.27717662, -80.86757660));
  }
}

// @ts-ignore: decorator
@inline
function mix3(x: v128, y: v128, z: v128, a: f32, b: f32, c: f32): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(x, f32x4.splat(a)), f32x4.mul(y, f32x4.splat(b))), f32x4.mul(z, f32x4.splat(c)));
}

/** Cube roots of values in 0..1, by Newton's method from a guess of the exponent. */
// @ts-ignore: decorator
@inline
function root3(x: v128): v128 {
  const v = f32x4.pmax(x, f32x4.splat(1e-9));
  // A third of the exponent's bits.
  let t = i32x4.add(i32x4.trunc_sat_f32x4_s(f32x4.mul(f32x4.convert_i32x4_s(v), f32x4.splat(0.33333334))), i32x4.splat(709921077));
  for (let k = 0; k < 3; k++) {
    t = f32x4.mul(f32x4.splat(0.33333334), f32x4.add(f32x4.add(t, t), f32x4.div(v, f32x4.mul(t, t))));
  }
  return t;
}
