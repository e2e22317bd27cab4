import { exp4 } from './math';

/** Numbers of a Gaussian of four values: its mean, the upper half of its inverse covariance row by row, and the logarithm of its peak. */
const MEAN = 0;
const INVERSE = 16;
const PEAK = 56;

/**
 * Weighted sums of four planes whose addresses lie at `planes`: the weight, the four values, and the ten products of two of them, row by row, as f64
 * at `out`.
 */
export function fourMoments(weight: usize, planes: usize, count: i32, out: usize): void {
  memory.fill(out, 0, 15 << 3);
  const a = <usize>load<i32>(planes);
  const b = <usize>load<i32>(planes, 4);
  const c = <usize>load<i32>(planes, 8);
  const d = <usize>load<i32>(planes, 12);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const w: f64 = <f64>f32.load(weight + i);
    if (w < 1e-4) continue;
    const u: f64 = <f64>f32.load(a + i);
    const v: f64 = <f64>f32.load(b + i);
    const x: f64 = <f64>f32.load(c + i);
    const y: f64 = <f64>f32.load(d + i);
    add(out, 0, w);
    add(out, 1, w * u);
    add(out, 2, w * v);
    add(out, 3, w * x);
    add(out, 4, w * y);
    add(out, 5, w * u * u);
    add(out, 6, w * u * v);
    add(out, 7, w * u * x);
    add(out, 8, w * u * y);
    add(out, 9, w * v * v);
    add(out, 10, w * v * x);
    add(out, 11, w * v * y);
    add(out, 12, w * x * x);
    add(out, 13, w * x * y);
    add(out, 14, w * y * y);
  }
}

// @ts-ignore: decorator
@inline
function add(out: usize, k: i32, v: f64): void {
  const p = out + (<usize>k << 3);
  f64.store(p, f64.load(p) + v);
}

// @ts-ignore: decorator
@inline
function at(p: usize): v128 {
  return f32x4.splat(f32.load(p));
}

/** The logarithm of the density of a Gaussian of four planes, at `dst`; with `most`, where it is greater than what is there. `gaussian` has 15 f32: see above. */
export function logDensity(planes: usize, dst: usize, count: i32, gaussian: usize, most: i32): void {
  const a = <usize>load<i32>(planes);
  const b = <usize>load<i32>(planes, 4);
  const c = <usize>load<i32>(planes, 8);
  const d = <usize>load<i32>(planes, 12);
  const two = f32x4.splat(2);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const u = f32x4.sub(v128.load(a + i), at(gaussian + MEAN));
    const v = f32x4.sub(v128.load(b + i), at(gaussian + MEAN + 4));
    const x = f32x4.sub(v128.load(c + i), at(gaussian + MEAN + 8));
    const y = f32x4.sub(v128.load(d + i), at(gaussian + MEAN + 12));
    const inverse = gaussian + INVERSE;
    const ru = f32x4.add(f32x4.mul(u, at(inverse)), f32x4.mul(two, sum3(v, at(inverse + 4), x, at(inverse + 8), y, at(inverse + 12))));
    const rv = f32x4.add(f32x4.mul(v, at(inverse + 16)), f32x4.mul(two, f32x4.add(f32x4.mul(x, at(inverse + 20)), f32x4.mul(y, at(inverse + 24)))));
    const rx = f32x4.add(f32x4.mul(x, at(inverse + 28)), f32x4.mul(two, f32x4.mul(y, at(inverse + 32))));
    const ry = f32x4.mul(y, at(inverse + 36));
    const square = f32x4.add(f32x4.add(f32x4.mul(u, ru), f32x4.mul(v, rv)), f32x4.add(f32x4.mul(x, rx), f32x4.mul(y, ry)));
    const value = f32x4.sub(at(gaussian + PEAK), f32x4.mul(square, f32x4.splat(0.5)));
    v128.store(dst + i, most ? f32x4.pmax(v128.load(dst + i), value) : value);
  }
}

// @ts-ignore: decorator
@inline
function sum3(a: v128, ka: v128, b: v128, kb: v128, c: v128, kc: v128): v128 {
  return f32x4.add(f32x4.mul(a, ka), f32x4.add(f32x4.mul(b, kb), f32x4.mul(c, kc)));
}

/** 1 / (1 + exp(−(a − b + bias) · slope)), at `a`. */
export function oddsOf(a: usize, b: usize, count: i32, bias: f32, slope: f32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = f32x4.mul(f32x4.add(f32x4.sub(v128.load(b + i), v128.load(a + i)), f32x4.splat(-bias)), f32x4.splat(slope));
    const far = f32x4.pmax(f32x4.splat(-30), f32x4.pmin(f32x4.splat(30), v));
    v128.store(a + i, f32x4.div(one, f32x4.add(one, exp4(far))));
  }
}
