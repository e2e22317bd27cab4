// Transcendentals as SIMD polynomials: the standard library's versions carry data tables, and this module must have no data
// segment (every instance of a shared memory would write it again).

/** e^x for four lanes; relative error under 3e-7 for |x| < 80. */
// @ts-ignore: decorator
@inline
export function exp4(x: v128): v128 {
  const clamped = f32x4.pmax(f32x4.pmin(x, f32x4.splat(80)), f32x4.splat(-80));
  const t = f32x4.mul(clamped, f32x4.splat(1.44269504));
  const whole = f32x4.nearest(t);
  const f = f32x4.mul(f32x4.sub(t, whole), f32x4.splat(0.69314718));
  let p = f32x4.splat(1.0 / 720.0);
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1.0 / 120.0));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1.0 / 24.0));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1.0 / 6.0));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(0.5));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1));
  p = f32x4.add(f32x4.mul(p, f), f32x4.splat(1));
  const bits = i32x4.shl(i32x4.add(i32x4.trunc_sat_f32x4_s(whole), i32x4.splat(127)), 23);
  return f32x4.mul(p, bits);
}

/** ln x for four lanes, x > 0; relative error under 1e-6. */
// @ts-ignore: decorator
@inline
export function ln4(x: v128): v128 {
  const safe = f32x4.pmax(x, f32x4.splat(1e-30));
  let e = i32x4.sub(i32x4.shr_u(safe, 23), i32x4.splat(127));
  let m = v128.or(v128.and(safe, i32x4.splat(0x007fffff)), i32x4.splat(0x3f800000));
  const high = f32x4.gt(m, f32x4.splat(1.41421356));
  m = v128.bitselect(f32x4.mul(m, f32x4.splat(0.5)), m, high);
  e = i32x4.sub(e, high); // a true lane is −1
  const s = f32x4.div(f32x4.sub(m, f32x4.splat(1)), f32x4.add(m, f32x4.splat(1)));
  const z = f32x4.mul(s, s);
  let p = f32x4.splat(2.0 / 9.0);
  p = f32x4.add(f32x4.mul(p, z), f32x4.splat(2.0 / 7.0));
  p = f32x4.add(f32x4.mul(p, z), f32x4.splat(2.0 / 5.0));
  p = f32x4.add(f32x4.mul(p, z), f32x4.splat(2.0 / 3.0));
  p = f32x4.add(f32x4.mul(p, z), f32x4.splat(2));
  return f32x4.add(f32x4.mul(p, s), f32x4.mul(f32x4.convert_i32x4_s(e), f32x4.splat(0.69314718)));
}

// @ts-ignore: decorator
@inline
export function exp1(x: f32): f32 {
  return f32x4.extract_lane(exp4(f32x4.splat(x)), 0);
}

// @ts-ignore: decorator
@inline
export function ln1(x: f32): f32 {
  return f32x4.extract_lane(ln4(f32x4.splat(x)), 0);
}

/** sin x by range reduction to ±π/2 and a degree-9 polynomial; absolute error under 4e-6 for |x| < 1e4. */
export function sin1(x: f32): f32 {
  const turns: f32 = nearest<f32>(x * 0.31830988618);
  const r: f32 = x - turns * 3.14159265359;
  const z: f32 = r * r;
  const s: f32 = r * (1 + z * (-0.16666666 + z * (0.0083333310 + z * (-0.00019840874 + z * 2.7525562e-6))));
  return (i32(turns) & 1) != 0 ? -s : s;
}

// @ts-ignore: decorator
@inline
export function cos1(x: f32): f32 {
  return sin1(x + 1.57079632679);
}

// @ts-ignore: decorator
@inline
export function clamp1(x: f32): f32 {
  return max<f32>(0, min<f32>(1, x));
}

/** NaN becomes 1. The pseudo-minimum is one instruction, the strict one eight. */
// @ts-ignore: decorator
@inline
export function clamp4(x: v128): v128 {
  return f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), x));
}

/** Whole numbers nearest to x as integers, for 0 ≤ x < 2²², by the bits of x + 2²³ (a saturating conversion takes seven instructions). */
// @ts-ignore: decorator
@inline
export function whole4(x: v128): v128 {
  return v128.and(f32x4.add(x, f32x4.splat(8388608)), i32x4.splat(0x3fffff));
}

/** The same cut off instead of rounded. */
// @ts-ignore: decorator
@inline
export function floor4(x: v128): v128 {
  return whole4(f32x4.floor(x));
}

// @ts-ignore: decorator
@inline
export function smooth1(e0: f32, e1: f32, x: f32): f32 {
  const t = clamp1((x - e0) / (e1 - e0));
  return t * t * (3 - 2 * t);
}

/** Integer hash (finaliser of MurmurHash3, public domain, with a seed). */
// @ts-ignore: decorator
@inline
export function hash(k: i32, seed: i32): u32 {
  let h = <u32>(k * 0x27d4eb2d) ^ <u32>(seed * 0x165667b1);
  h ^= h >>> 16;
  h *= 0x85ebca6b;
  h ^= h >>> 13;
  h *= 0xc2b2ae35;
  h ^= h >>> 16;
  return h;
}

/** Uniform in [0, 1). */
// @ts-ignore: decorator
@inline
export function unit(h: u32): f32 {
  return <f32>(h >>> 8) * <f32>(1.0 / 16777216.0);
}

/**
 * sRGB transfer function (IEC 61966-2-1), linear to encoded, four lanes in 0..1. The power is a sum of roots, fitted by least squares to a
 * four-hundredth of a level.
 */
// @ts-ignore: decorator
@inline
export function encode4(x: v128): v128 {
  const c = clamp4(x);
  const low = f32x4.mul(c, f32x4.splat(12.92));
  const half = f32x4.sqrt(c);
  const quarter = f32x4.sqrt(half);
  const eighth = f32x4.sqrt(quarter);
  let high = f32x4.add(f32x4.mul(c, f32x4.splat(0.02737408)), f32x4.splat(-0.0314253));
  high = f32x4.add(high, f32x4.mul(f32x4.mul(half, quarter), f32x4.splat(-0.15604499)));
  high = f32x4.add(high, f32x4.mul(half, f32x4.splat(0.87015044)));
  high = f32x4.add(high, f32x4.mul(quarter, f32x4.splat(0.46372115)));
  high = f32x4.add(high, f32x4.mul(eighth, f32x4.splat(-0.17377221)));
  return v128.bitselect(low, high, f32x4.le(c, f32x4.splat(0.0031308)));
}

/** `hash` for four keys. */
// @ts-ignore: decorator
@inline
export function hash4(k: v128, seed: i32): v128 {
  let h = v128.xor(i32x4.mul(k, i32x4.splat(0x27d4eb2d)), i32x4.splat(seed * 0x165667b1));
  h = v128.xor(h, i32x4.shr_u(h, 16));
  h = i32x4.mul(h, i32x4.splat(0x85ebca6b));
  h = v128.xor(h, i32x4.shr_u(h, 13));
  h = i32x4.mul(h, i32x4.splat(0xc2b2ae35));
  return v128.xor(h, i32x4.shr_u(h, 16));
}

/** Stores the first `n` of four lanes. */
// @ts-ignore: decorator
@inline
export function putSome(at: usize, v: v128, n: i32): void {
  if (n >= 4) {
    v128.store(at, v);
    return;
  }
  f32.store(at, f32x4.extract_lane(v, 0));
  if (n > 1) f32.store(at + 4, f32x4.extract_lane(v, 1));
  if (n > 2) f32.store(at + 8, f32x4.extract_lane(v, 2));
}

/**
 * sRGB transfer function (IEC 61966-2-1), encoded to linear, four lanes in 0..1. With t = (v + 0.055) / 1.055 the power t^2.4 is t² times a
 * polynomial in √t, fitted by least squares to a five-thousandth of the value.
 */
// @ts-ignore: decorator
@inline
export function decode4(x: v128): v128 {
  const c = clamp4(x);
  const low = f32x4.mul(c, f32x4.splat(1.0 / 12.92));
  const t = f32x4.mul(f32x4.add(c, f32x4.splat(0.055)), f32x4.splat(1.0 / 1.055));
  const s = f32x4.sqrt(t);
  let p = f32x4.add(f32x4.mul(s, f32x4.splat(-0.08445603)), f32x4.splat(0.31280773));
  p = f32x4.add(f32x4.mul(s, p), f32x4.splat(-0.52938761));
  p = f32x4.add(f32x4.mul(s, p), f32x4.splat(1.25619184));
  p = f32x4.add(f32x4.mul(s, p), f32x4.splat(0.04484407));
  return v128.bitselect(low, f32x4.mul(f32x4.mul(t, t), p), f32x4.le(c, f32x4.splat(0.04045)));
}
