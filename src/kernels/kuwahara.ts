// Anisotropic Kuwahara filtering with polynomial weights: patches of paint that follow the form.
import { cos1, sin1 } from './math';

/** Cells of the table of weights from the middle of the disc to its rim. */
const CELLS = 24;
/** One more cell around, where rounding may lead. */
const SIDE = 2 * CELLS + 3;

/** Bytes of the table that `kuwaharaWeights` fills: eight sectors a place. */
export function kuwaharaTable(): i32 {
  return SIDE * SIDE * 32;
}

/**
 * Weights of the eight sectors of a disc (Kyprianidis, Semmo, Kang & Döllner 2010, polynomial weighting functions): max(0, v + ζ − η·u²)², together 1,
 * times a Gaussian. `zeta` is 2 / radius in pixels; `eta` (ζ + cos π/8) / sin² π/8.
 */
export function kuwaharaWeights(table: usize, zeta: f32, eta: f32): void {
  for (let y = -CELLS - 1; y <= CELLS + 1; y++)
    for (let x = -CELLS - 1; x <= CELLS + 1; x++) {
      const at = table + (<usize>((y + CELLS + 1) * SIDE + x + CELLS + 1) << 5);
      const u: f32 = <f32>x / <f32>CELLS;
      const v: f32 = <f32>y / <f32>CELLS;
      const r: f32 = u * u + v * v;
      let sum: f32 = 0;
      for (let k = 0; k < 8; k++) {
        const angle: f32 = <f32>k * 0.78539816339744831;
        const c: f32 = cos1(angle);
        const s: f32 = sin1(angle);
        const along: f32 = u * c + v * s;
        const across: f32 = v * c - u * s;
        const z: f32 = max<f32>(0, along + zeta - eta * across * across);
        f32.store(at + (<usize>k << 2), z * z);
        sum += z * z;
      }
      // A Gaussian, e^(−3.125·r²), by squaring.
      let g: f32 = 1 - (3.125 * r) / 1024;
      for (let k = 0; k < 10; k++) g *= g;
      const scale: f32 = sum == 0 ? 0 : g / sum;
      for (let k = 0; k < 8; k++) f32.store(at + (<usize>k << 2), f32.load(at + (<usize>k << 2)) * scale);
    }
}

/**
 * The filter on three planes: around each pixel an ellipse along (tx, ty), radius·ease·(1 + along·A) pixels long to each side and radius·ease / (1 + along·A)
 * wide, in eight sectors; their means weighed by how even they are. `share` is A, a plane, `ease` one too or 0; `squares` the sum of the squares of the
 * channels. Pixels nearer to the edges than the ellipse are read as if the edge were extended. Rows y0 to y1 are written.
 */
export function kuwahara(
  src: usize, stride: usize, squares: usize, w: i32, h: i32, tx: usize, ty: usize, share: usize, ease: usize, radius: f32, along: f32, table: usize,
  dst: usize, target: usize, y0: i32, y1: i32,
): void {
  const zero = f32x4.splat(0);
  const g0 = src + stride;
  const b0 = g0 + stride;
  for (let j = y0; j < y1; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const r: f32 = ease ? radius * f32.load(ease + at) : radius;
      if (r < 0.6) {
        f32.store(dst + at, f32.load(src + at));
        f32.store(dst + target + at, f32.load(g0 + at));
        f32.store(dst + 2 * target + at, f32.load(b0 + at));
        continue;
      }
      const longer: f32 = 1 + along * max<f32>(0, min<f32>(1, f32.load(share + at)));
      const a: f32 = r * longer;
      const b: f32 = r / longer;
      const c: f32 = f32.load(tx + at);
      const s: f32 = f32.load(ty + at);
      const tall = <i32>(sqrt<f32>(a * a * s * s + b * b * c * c));
      const kx: f32 = <f32>CELLS / a;
      const ky: f32 = <f32>CELLS / b;
      let n1 = zero, n2 = zero, r1 = zero, r2 = zero, gg1 = zero, gg2 = zero, b1 = zero, b2 = zero, q1 = zero, q2 = zero;
      // Rows of the ellipse: |x − middle| ≤ half, from its quadratic form.
      const A: f32 = (c * c) / (a * a) + (s * s) / (b * b);
      const B: f32 = c * s * (1 / (a * a) - 1 / (b * b));
      const C: f32 = (s * s) / (a * a) + (c * c) / (b * b);
      const within = i - <i32>ceil<f32>(a) > 0 && i + <i32>ceil<f32>(a) < w - 1;
      const du: f32 = c * kx, dv: f32 = -s * ky;
      for (let y = -tall; y <= tall; y++) {
        const fy = <f32>y;
        const middle: f32 = (-B * fy) / A;
        const root: f32 = (B * B * fy * fy - A * (C * fy * fy - 1)) / (A * A);
        if (root < 0) continue;
        const half: f32 = sqrt<f32>(root);
        const from = <i32>ceil<f32>(middle - half);
        const to = <i32>floor<f32>(middle + half);
        const row = max<i32>(0, min<i32>(h - 1, j + y)) * w;
        // Places in the table, rounded by the bits of a number to which 2²³ is added.
        let u: f32 = (<f32>from * c + fy * s) * kx + <f32>(CELLS + 1);
        let v: f32 = (fy * c - <f32>from * s) * ky + <f32>(CELLS + 1);
        for (let x = from; x <= to; x++) {
          const place = min<i32>(SIDE - 1, reinterpret<i32>(v + 8388608) & 0x3fffff) * SIDE + min<i32>(SIDE - 1, reinterpret<i32>(u + 8388608) & 0x3fffff);
          u += du;
          v += dv;
          const weights = table + (<usize>place << 5);
          const column = within ? i + x : max<i32>(0, min<i32>(w - 1, i + x));
          const p = <usize>(row + column) << 2;
          const w1 = v128.load(weights);
          const w2 = v128.load(weights, 16);
          const red = v128.load32_splat(src + p);
          n1 = f32x4.add(n1, w1);
          n2 = f32x4.add(n2, w2);
          r1 = f32x4.add(r1, f32x4.mul(red, w1));
          r2 = f32x4.add(r2, f32x4.mul(red, w2));
          const green = v128.load32_splat(g0 + p);
          gg1 = f32x4.add(gg1, f32x4.mul(green, w1));
          gg2 = f32x4.add(gg2, f32x4.mul(green, w2));
          const blue = v128.load32_splat(b0 + p);
          b1 = f32x4.add(b1, f32x4.mul(blue, w1));
          b2 = f32x4.add(b2, f32x4.mul(blue, w2));
          const square = v128.load32_splat(squares + p);
          q1 = f32x4.add(q1, f32x4.mul(square, w1));
          q2 = f32x4.add(q2, f32x4.mul(square, w2));
        }
      }
      const e1 = evenness(n1, r1, gg1, b1, q1);
      const e2 = evenness(n2, r2, gg2, b2, q2);
      const total: f32 = 1 / (sum4(e1) + sum4(e2));
      const i1 = f32x4.div(e1, f32x4.pmax(n1, f32x4.splat(1e-20)));
      const i2 = f32x4.div(e2, f32x4.pmax(n2, f32x4.splat(1e-20)));
      f32.store(dst + at, total * (sum4(f32x4.mul(r1, i1)) + sum4(f32x4.mul(r2, i2))));
      f32.store(dst + target + at, total * (sum4(f32x4.mul(gg1, i1)) + sum4(f32x4.mul(gg2, i2))));
      f32.store(dst + 2 * target + at, total * (sum4(f32x4.mul(b1, i1)) + sum4(f32x4.mul(b2, i2))));
    }
}

/** 1 / (1 + (255·s²)⁴) of four sectors, s² their variance summed over the channels; 0 for an empty one. */
// @ts-ignore: decorator
@inline
function evenness(n: v128, r: v128, g: v128, b: v128, q: v128): v128 {
  const k = f32x4.div(f32x4.splat(1), f32x4.pmax(n, f32x4.splat(1e-20)));
  const mr = f32x4.mul(r, k), mg = f32x4.mul(g, k), mb = f32x4.mul(b, k);
  const means = f32x4.add(f32x4.add(f32x4.mul(mr, mr), f32x4.mul(mg, mg)), f32x4.mul(mb, mb));
  let v = f32x4.mul(f32x4.splat(255), f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.mul(q, k), means)));
  v = f32x4.mul(v, v);
  v = f32x4.mul(v, v);
  return v128.andnot(f32x4.div(f32x4.splat(1), f32x4.add(f32x4.splat(1), v)), f32x4.lt(n, f32x4.splat(1e-12)));
}

// @ts-ignore: decorator
@inline
function sum4(v: v128): f32 {
  const s = f32x4.add(v, i32x4.shuffle(v, v, 2, 3, 0, 1));
  return f32x4.extract_lane(s, 0) + f32x4.extract_lane(s, 1);
}
