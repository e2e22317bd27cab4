// How much a picture differs from another: CIEDE2000 and structural similarity, pixel by pixel, and their sums under masks.
import { cos1, exp1, sin1 } from './math';

/** x^(1/3) for x > 0, by three steps of Newton from a guess in the exponent. */
// @ts-ignore: decorator
@inline
function cubeRoot(x: f32): f32 {
  let y = reinterpret<f32>(<u32>(reinterpret<u32>(x) / 3) + 709921077);
  y = (2 * y + x / (y * y)) * <f32>(1 / 3.0);
  y = (2 * y + x / (y * y)) * <f32>(1 / 3.0);
  return (2 * y + x / (y * y)) * <f32>(1 / 3.0);
}

// @ts-ignore: decorator
@inline
function labCurve(t: f32): f32 {
  return t > <f32>0.008856452 ? cubeRoot(t) : t * <f32>7.787037 + <f32>0.13793103;
}

/** atan2 in radians, 0 to 2π; a minimax polynomial on 0..1, error under 1e-5. */
function turn(y: f32, x: f32): f32 {
  const ax = abs<f32>(x);
  const ay = abs<f32>(y);
  const big = max<f32>(ax, ay);
  if (big == 0) return 0;
  const t = min<f32>(ax, ay) / big;
  const z = t * t;
  let a: f32 = t * (<f32>0.99997726 + z * (<f32>-0.33262347 + z * (<f32>0.19354346 + z * (<f32>-0.11643287 + z * (<f32>0.05265332 + z * <f32>-0.01172120)))));
  if (ay > ax) a = <f32>1.57079633 - a;
  if (x < 0) a = <f32>3.14159265 - a;
  return y < 0 ? <f32>6.28318531 - a : a;
}

// @ts-ignore: decorator
@inline
function seventh(x: f32): f32 {
  const x2 = x * x;
  return x2 * x2 * x2 * x;
}

/** CIEDE2000 of two CIE Lab colours (Sharma, Wu & Dalal 2005), with kL = kC = kH = 1; within 2e-3 of double precision. */
export function ciede2000(L1: f32, a1: f32, b1: f32, L2: f32, a2: f32, b2: f32): f32 {
  const pi: f32 = 3.14159265;
  const rad: f32 = 0.01745329252;
  const c7 = seventh((sqrt<f32>(a1 * a1 + b1 * b1) + sqrt<f32>(a2 * a2 + b2 * b2)) * 0.5);
  const g: f32 = 0.5 * (1 - sqrt<f32>(c7 / (c7 + <f32>6103515625)));
  const p1: f32 = (1 + g) * a1;
  const p2: f32 = (1 + g) * a2;
  const C1 = sqrt<f32>(p1 * p1 + b1 * b1);
  const C2 = sqrt<f32>(p2 * p2 + b2 * b2);
  const h1 = turn(b1, p1);
  const h2 = turn(b2, p2);
  let dh = h2 - h1;
  let h = h1 + h2;
  if (C1 * C2 == 0) dh = 0;
  else {
    // More than half a turn apart: by the sign of the sine, which is exact where the angles are not.
    const sine = p1 * b2 - b1 * p2;
    if (dh > 0 ? sine < 0 : sine > 0) {
      h += h < 2 * pi ? 2 * pi : -2 * pi;
      dh += dh > 0 ? -2 * pi : 2 * pi;
    }
    h *= 0.5;
  }
  const dL = L2 - L1;
  const dC = C2 - C1;
  const dH: f32 = 2 * sqrt<f32>(C1 * C2) * sin1(dh * 0.5);
  const L: f32 = (L1 + L2) * 0.5 - 50;
  const C: f32 = (C1 + C2) * 0.5;
  const T: f32 = 1 - <f32>0.17 * cos1(h - 30 * rad) + <f32>0.24 * cos1(2 * h) + <f32>0.32 * cos1(3 * h + 6 * rad) - <f32>0.2 * cos1(4 * h - 63 * rad);
  const SL: f32 = 1 + (<f32>0.015 * L * L) / sqrt<f32>(20 + L * L);
  const SC: f32 = 1 + <f32>0.045 * C;
  const SH: f32 = 1 + <f32>0.015 * C * T;
  const m7 = seventh(C);
  const q: f32 = (h / rad - 275) * <f32>0.04;
  const RT: f32 = -2 * sqrt<f32>(m7 / (m7 + <f32>6103515625)) * sin1(60 * rad * exp1(max<f32>(-80, -q * q)));
  const l = dL / SL;
  const c = dC / SC;
  const k = dH / SH;
  return sqrt<f32>(max<f32>(0, l * l + c * c + k * k + RT * c * k));
}

/** L, a, b of an RGBA8 pixel into three f32 at `out`; `linear` holds the 256 values of the sRGB curve. */
function labOf(pixel: usize, linear: usize, out: usize): void {
  const r = f32.load(linear + (<usize>load<u8>(pixel) << 2));
  const g = f32.load(linear + (<usize>load<u8>(pixel, 1) << 2));
  const b = f32.load(linear + (<usize>load<u8>(pixel, 2) << 2));
  const x = labCurve((<f32>0.4123908 * r + <f32>0.35758434 * g + <f32>0.18048079 * b) * <f32>1.05212634);
  const y = labCurve(<f32>0.212639 * r + <f32>0.7151687 * g + <f32>0.0721923 * b);
  const z = labCurve((<f32>0.01933082 * r + <f32>0.11919478 * g + <f32>0.95053215 * b) * <f32>0.91822493);
  f32.store(out, 116 * y - 16);
  f32.store(out, 500 * (x - y), 4);
  f32.store(out, 200 * (y - z), 8);
}

/** CIEDE2000 between two RGBA8 pictures, a plane; `work` has room for six f32. */
export function differences(a: usize, b: usize, dst: usize, count: i32, linear: usize, work: usize): void {
  for (let i = 0; i < count; i++) {
    const p = a + (<usize>i << 2);
    const q = b + (<usize>i << 2);
    let d: f32 = 0;
    if ((load<u32>(p) ^ load<u32>(q)) & 0xffffff) {
      labOf(p, linear, work);
      labOf(q, linear, work + 12);
      d = ciede2000(
        f32.load(work), f32.load(work, 4), f32.load(work, 8), f32.load(work, 12), f32.load(work, 16), f32.load(work, 20),
      );
    }
    f32.store(dst + (<usize>i << 2), d);
  }
}

/** Structural similarity (Wang et al. 2004, K1 = 0.01, K2 = 0.03, values 0..1) from local means of x, y, x², y², xy. */
export function similarity(mx: usize, my: usize, xx: usize, yy: usize, xy: usize, dst: usize, count: i32): void {
  const c1 = f32x4.splat(0.0001);
  const c2 = f32x4.splat(0.0009);
  const two = f32x4.splat(2);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const x = v128.load(mx + i);
    const y = v128.load(my + i);
    const x2 = f32x4.mul(x, x);
    const y2 = f32x4.mul(y, y);
    const p = f32x4.mul(x, y);
    const cov = f32x4.sub(v128.load(xy + i), p);
    const variance = f32x4.sub(f32x4.add(v128.load(xx + i), v128.load(yy + i)), f32x4.add(x2, y2));
    const above = f32x4.mul(f32x4.add(f32x4.mul(two, p), c1), f32x4.add(f32x4.mul(two, cov), c2));
    const under = f32x4.mul(f32x4.add(f32x4.add(x2, y2), c1), f32x4.add(variance, c2));
    v128.store(dst + i, f32x4.div(above, under));
  }
}

/**
 * Adds up differences and similarity under a grey RGBA8 mask, of which the part over three quarters counts: weights, weighted differences and weighted similarity as f64 at `sums`, and weights
 * by difference in steps of 1/20 as f32 in `bins` of them. Columns `left` to `right` and rows `top` to `bottom` of a picture `w` wide; the mask
 * begins at its first pixel too.
 */
export function tally(
  delta: usize, alike: usize, mask: usize, w: i32, left: i32, right: i32, top: i32, bottom: i32, sums: usize, histogram: usize, bins: i32,
): void {
  let s0 = f64.load(sums);
  let s1 = f64.load(sums, 8);
  let s2 = f64.load(sums, 16);
  for (let j = top; j < bottom; j++) {
    for (let i = left; i < right; i++) {
      const at = <usize>(j * w + i);
      // The soft rim of a region belongs to what lies around it.
      const weight: f32 = <f32>load<u8>(mask + (at << 2)) * <f32>(4 / 255.0) - 3;
      if (weight <= 0) continue;
      const d = f32.load(delta + (at << 2));
      s0 += <f64>weight;
      s1 += <f64>(weight * d);
      s2 += <f64>(weight * f32.load(alike + (at << 2)));
      const bin = histogram + (<usize>min<i32>(bins - 1, <i32>(d * 20)) << 2);
      f32.store(bin, f32.load(bin) + weight);
    }
  }
  f64.store(sums, s0);
  f64.store(sums, s1, 8);
  f64.store(sums, s2, 16);
}

/**
 * Colours a tile by how far it differs from another, linearly from clear over the three colours given: at 2 the first, at 6 the second, at 12 and
 * above the third. Both planar; `work` has room for 8 RGBA8 pixels and 6 f32.
 */
export function heat(
  tile: usize, other: usize, stride: usize, count: i32, linear: usize, work: usize,
  heat0: f32, heat1: f32, heat2: f32, heat3: f32, heat4: f32, heat5: f32, heat6: f32, heat7: f32, heat8: f32,
): void {
  for (let i = 0; i < count; i++) {
    const at = <usize>i << 2;
    let same = true;
    for (let c: usize = 0; c < 3; c++) {
      const p = <u8>(min<f32>(1, max<f32>(0, f32.load(tile + c * stride + at))) * 255 + 0.5);
      const q = <u8>(min<f32>(1, max<f32>(0, f32.load(other + c * stride + at))) * 255 + 0.5);
      if (p != q) same = false;
      store<u8>(work + c, p);
      store<u8>(work + 4 + c, q);
    }
    // What is kept is shown in grey, so that the colours are read by themselves.
    const y: f32 = 0.2126 * f32.load(other + at) + 0.7152 * f32.load(other + stride + at) + 0.0722 * f32.load(other + 2 * stride + at);
    const grey: f32 = 0.25 + 0.5 * y;
    let r = grey, g = grey, b = grey;
    if (!same) {
      labOf(work, linear, work + 32);
      labOf(work + 4, linear, work + 44);
      const d = ciede2000(
        f32.load(work, 32), f32.load(work, 36), f32.load(work, 40), f32.load(work, 44), f32.load(work, 48), f32.load(work, 52),
      );
      const t0 = min<f32>(1, d * 0.5);
      const t1 = min<f32>(1, max<f32>(0, (d - 2) * 0.25));
      const t2 = min<f32>(1, max<f32>(0, (d - 6) * <f32>(1 / 6.0)));
      const a: f32 = 0.8 * t0;
      r += (heat0 + (heat3 - heat0) * t1 + (heat6 - heat3) * t2 - grey) * a;
      g += (heat1 + (heat4 - heat1) * t1 + (heat7 - heat4) * t2 - grey) * a;
      b += (heat2 + (heat5 - heat2) * t1 + (heat8 - heat5) * t2 - grey) * a;
    }
    f32.store(tile + at, r);
    f32.store(tile + stride + at, g);
    f32.store(tile + 2 * stride + at, b);
  }
}
