// Pictures drawn larger than their pixels: read by a cubic, with grain like their own where they have none.
import { cubicAt, pixel } from './cubic';
import { exp1, ln1 } from './math';
import { noiseAt } from './noise';
import { put, shownAt } from './sample';

// @ts-ignore: decorator
@inline
function read(src: usize, at: i32, deep: i32): v128 {
  if (!deep) return pixel(src + (<usize>at << 2));
  return f32x4.mul(f32x4.convert_i32x4_u(i32x4.extend_low_i16x8_u(v128.load64_zero(src + (<usize>at << 3)))), f32x4.splat(<f32>(255.0 / 65535.0)));
}

// @ts-ignore: decorator
@inline
function weight(t: f32, k: i32): f32 {
  if (k == 0) return t * (t * (-0.5 * t + 1) - 0.5);
  if (k == 1) return t * t * (1.5 * t - 2.5) + 1;
  if (k == 2) return t * (t * (-1.5 * t + 2) + 0.5);
  return t * t * (0.5 * t - 0.5);
}

/** Catmull–Rom at a place whose neighbourhood reaches over the edge, or of 16 bits. 0..255, not clipped. */
function cubicBy(src: usize, w: i32, h: i32, deep: i32, x0: i32, y0: i32, fx: f32, fy: f32, edge: i32): v128 {
  let sum = f32x4.splat(0);
  for (let j = 0; j < 4; j++) {
    const row = shownAt(y0 + j - 1, h, edge) * w;
    let line = f32x4.splat(0);
    for (let i = 0; i < 4; i++)
      line = f32x4.add(line, f32x4.mul(read(src, row + shownAt(x0 + i - 1, w, edge), deep), f32x4.splat(weight(fx, i))));
    sum = f32x4.add(sum, f32x4.mul(line, f32x4.splat(weight(fy, j))));
  }
  return sum;
}

/** `sampleAffine` by Catmull–Rom (Keys 1981, a = −½) instead of bilinearly, of an RGBA8 picture or, where `deep`, of one of 16 bits. */
export function sampleCubic(
  src: usize, w: i32, h: i32, deep: i32, dst: usize, stride: usize, tw: i32, th: i32,
  a: f64, b: f64, c: f64, d: f64, e: f64, f: f64, edge: i32,
): void {
  const soft = max<f64>(Math.sqrt(a * a + b * b), 1e-6);
  const low = f32x4.splat(0);
  const high = f32x4.splat(255);
  const norm = f32x4.splat(<f32>(1.0 / 255.0));
  let at = dst;
  for (let j = 0; j < th; j++)
    for (let i = 0; i < tw; i++, at += 4) {
      const x = a * (<f64>i + 0.5) + c * (<f64>j + 0.5) + e;
      const y = b * (<f64>i + 0.5) + d * (<f64>j + 0.5) + f;
      const left = Math.floor(x - 0.5);
      const top = Math.floor(y - 0.5);
      const fx = <f32>(x - 0.5 - left);
      const fy = <f32>(y - 0.5 - top);
      const x0 = <i32>left;
      const y0 = <i32>top;
      const inside = !deep && x0 >= 1 && y0 >= 1 && x0 + 2 < w && y0 + 2 < h;
      let v = inside ? cubicAt(src, w, h, x0, y0, fx, fy) : cubicBy(src, w, h, deep, x0, y0, fx, fy, edge);
      v = f32x4.mul(f32x4.pmax(low, f32x4.pmin(high, v)), norm);
      if (edge == 0) {
        const cover = <f32>max<f64>(0, min<f64>(1, min<f64>(min<f64>(x, <f64>w - x), min<f64>(y, <f64>h - y)) / soft + 0.5));
        v = f32x4.replace_lane(v, 3, f32x4.extract_lane(v, 3) * cover);
      }
      put(at, stride, v);
    }
}

/** Least deviation that is told from none, in levels. */
const LEAST: f32 = 0.05;
/** A root of mean squares by a geometric mean of squares of 2 × 2, for noise by chance. */
const PER_MEAN: f32 = 1.2026;
/** How finely the deviation is kept: steps to one level. */
const STEPS: f32 = 8;

/** Logarithms of the deviations of four pixels from their mean, for each channel. */
// @ts-ignore: decorator
@inline
function spread(p: v128, q: v128, r: v128, s: v128): v128 {
  const mean = f32x4.mul(f32x4.add(f32x4.add(p, q), f32x4.add(r, s)), f32x4.splat(0.25));
  let sum = f32x4.splat(0);
  sum = f32x4.add(sum, square(f32x4.sub(p, mean)));
  sum = f32x4.add(sum, square(f32x4.sub(q, mean)));
  sum = f32x4.add(sum, square(f32x4.sub(r, mean)));
  sum = f32x4.add(sum, square(f32x4.sub(s, mean)));
  const v = f32x4.pmax(f32x4.splat(LEAST), f32x4.sqrt(f32x4.mul(sum, f32x4.splat(0.25))));
  return f32x4(ln1(f32x4.extract_lane(v, 0)), ln1(f32x4.extract_lane(v, 1)), ln1(f32x4.extract_lane(v, 2)), 0);
}

// @ts-ignore: decorator
@inline
function square(v: v128): v128 {
  return f32x4.mul(v, v);
}

/**
 * Measures the grain of a picture in squares of `cell` pixels, a multiple of four, into an RGBA8 picture of mw × mh: for red, green and blue the deviation of
 * its highest octave (Haar 1910), in eighths of a level, by a geometric mean, to which edges count little; as alpha, what the deviation of one octave is of
 * that of the next coarser one, in 1/255, alike everywhere.
 */
export function measureGrain(src: usize, w: i32, h: i32, deep: i32, dst: usize, mw: i32, mh: i32, cell: i32): void {
  let fine: f64 = 0;
  let coarse: f64 = 0;
  for (let my = 0; my < mh; my++)
    for (let mx = 0; mx < mw; mx++) {
      let sum = f32x4.splat(0);
      let wide = f32x4.splat(0);
      for (let j = 0; j < cell; j += 4)
        for (let i = 0; i < cell; i += 4) {
          let p = f32x4.splat(0), q = p, r = p, s = p;
          for (let k = 0; k < 4; k++) {
            const x = mx * cell + i + ((k & 1) << 1);
            const y = my * cell + j + (k & 2);
            const r0 = shownAt(y, h, 3) * w;
            const r1 = shownAt(y + 1, h, 3) * w;
            const c0 = shownAt(x, w, 3);
            const c1 = shownAt(x + 1, w, 3);
            const a = read(src, r0 + c0, deep), b = read(src, r0 + c1, deep), c = read(src, r1 + c0, deep), d = read(src, r1 + c1, deep);
            sum = f32x4.add(sum, spread(a, b, c, d));
            const mean = f32x4.mul(f32x4.add(f32x4.add(a, b), f32x4.add(c, d)), f32x4.splat(0.25));
            if (k == 0) p = mean;
            else if (k == 1) q = mean;
            else if (k == 2) r = mean;
            else s = mean;
          }
          wide = f32x4.add(wide, spread(p, q, r, s));
        }
      const count = <f32>((cell * cell) >> 2);
      sum = f32x4.mul(sum, f32x4.splat(1 / count));
      wide = f32x4.mul(wide, f32x4.splat(4 / count));
      fine += <f64>f32x4.extract_lane(sum, 1);
      coarse += <f64>f32x4.extract_lane(wide, 1);
      const at = dst + (<usize>(my * mw + mx) << 2);
      store<u8>(at, level(f32x4.extract_lane(sum, 0)), 0);
      store<u8>(at, level(f32x4.extract_lane(sum, 1)), 1);
      store<u8>(at, level(f32x4.extract_lane(sum, 2)), 2);
    }
  const cells = mw * mh;
  const ratio = exp1(<f32>((fine - coarse) / <f64>cells));
  for (let i = 0; i < cells; i++) store<u8>(dst + (<usize>i << 2), <u8>(255 * min<f32>(1, ratio) + 0.5), 3);
}

function level(ln: f32): u8 {
  return <u8>min<f32>(255, exp1(ln) * (PER_MEAN * STEPS) + 0.5);
}

/** Pixels of the drawing to a grain: finer ones are not seen, from so many on they are seen whole. */
const UNSEEN: f32 = 0.8;
const WHOLE: f32 = 1.4;

// @ts-ignore: decorator
@inline
function seen(pixels: f32): f32 {
  const t: f32 = max<f32>(0, min<f32>(1, (pixels - UNSEEN) / (WHOLE - UNSEEN)));
  return t * t * (3 - 2 * t);
}

/** Pixels of the picture to a grain of the first octave that it lacks: most of the noise lies between one and two cycles to two pixels. */
const GRAIN: f32 = 0.7;
/** By what the sum of two noises is multiplied, so that it and what a cubic leaves have the wanted deviation in the highest octave; measured. */
const GAIN: f32 = 3.4;
/** The most that is left of the deviation from octave to octave: what edges have. A picture that happens to be fullest at its own pixels does not go on so. */
const MOST: f32 = 0.71;

/**
 * Adds grain to three planes: octaves of gradient noise in the picture's own pixels, finer than these, each as strong as `grain` says. That holds the
 * deviations of the picture's highest octave and the ratio of one octave to the next, as `measureGrain` gives them, in planes of 0..1. The map is as in
 * `sampleInPerspective`; grains that are finer than a pixel are left out.
 */
export function addGrain(
  dst: usize, stride: usize, tw: i32, th: i32, grain: usize, grainStride: usize,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, amount: f32, seed: i32,
): void {
  const det = Math.abs(m0 * (m4 * m8 - m5 * m7) - m1 * (m3 * m8 - m5 * m6) + m2 * (m3 * m7 - m4 * m6));
  const k: f32 = amount * GAIN * <f32>(255.0 / (8.0 * 255.0));
  for (let j = 0; j < th; j++) {
    const y = <f64>j + 0.5;
    for (let i = 0; i < tw; i++) {
      const x = <f64>i + 0.5;
      const q = m6 * x + m7 * y + m8;
      if (q <= 1e-9) continue;
      const pixels = <f32>Math.sqrt((q * q * q) / det);
      if (pixels <= 1) continue;
      const at = <usize>(j * tw + i) << 2;
      const ratio = min<f32>(MOST, f32.load(grain + 3 * grainStride + at));
      let u = <f32>((m0 * x + m1 * y + m2) / q) * (1 / GRAIN);
      let v = <f32>((m3 * x + m4 * y + m5) / q) * (1 / GRAIN);
      let sum: f32 = 0;
      let strength: f32 = ratio;
      for (let cell: f32 = GRAIN * pixels, octave = seed; cell > UNSEEN; cell *= 0.5, octave += 2) {
        // Two lattices that are turned against the pixels and each other: at the corners of one the noise is nothing.
        const one = noiseAt(0.8 * u - 0.6 * v, 0.6 * u + 0.8 * v, octave);
        const two = noiseAt(0.923 * u + 0.3848 * v, 0.923 * v - 0.3848 * u, octave + 1);
        sum += seen(cell) * strength * (one + two);
        strength *= ratio;
        u *= 2;
        v *= 2;
      }
      sum *= k;
      for (let c: usize = 0; c < 3; c++) {
        const p = dst + c * stride + at;
        f32.store(p, max<f32>(0, min<f32>(1, f32.load(p) + sum * f32.load(grain + c * grainStride + at))));
      }
    }
  }
}
