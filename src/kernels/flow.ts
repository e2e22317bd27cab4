// The structure of a picture: which way its edges run, and what is drawn along them.
import { clamp1 } from './math';

/**
 * Products of a picture's derivatives (Sobel, an eighth of its sums: change a pixel), summed over three channels: the structure tensor before it is
 * smoothed. The edge is extended.
 */
export function structureTensor(src: usize, stride: usize, w: i32, h: i32, xx: usize, xy: usize, yy: usize): void {
  const two = f32x4.splat(2);
  const eighth = f32x4.splat(0.125);
  for (let j = 0; j < h; j++) {
    const up = <usize>(max<i32>(0, j - 1) * w) << 2;
    const row = <usize>(j * w) << 2;
    const down = <usize>(min<i32>(h - 1, j + 1) * w) << 2;
    for (let i = 0; i < w; i++) {
      const q = <usize>i << 2;
      // Four at a time inside; at both ends one by one.
      if (i >= 1 && i + 5 <= w) {
        let a = f32x4.splat(0);
        let b = f32x4.splat(0);
        let c = f32x4.splat(0);
        for (let k: usize = 0; k < 3; k++) {
          const p = src + k * stride + q;
          const ul = v128.load(p + up - 4), u = v128.load(p + up), ur = v128.load(p + up + 4);
          const l = v128.load(p + row - 4), r = v128.load(p + row + 4);
          const dl = v128.load(p + down - 4), d = v128.load(p + down), dr = v128.load(p + down + 4);
          const gx = f32x4.mul(eighth, f32x4.add(f32x4.add(f32x4.sub(ur, ul), f32x4.sub(dr, dl)), f32x4.mul(two, f32x4.sub(r, l))));
          const gy = f32x4.mul(eighth, f32x4.add(f32x4.add(f32x4.sub(dl, ul), f32x4.sub(dr, ur)), f32x4.mul(two, f32x4.sub(d, u))));
          a = f32x4.add(a, f32x4.mul(gx, gx));
          b = f32x4.add(b, f32x4.mul(gx, gy));
          c = f32x4.add(c, f32x4.mul(gy, gy));
        }
        v128.store(xx + row + q, a);
        v128.store(xy + row + q, b);
        v128.store(yy + row + q, c);
        i += 3;
        continue;
      }
      const left = <usize>max<i32>(0, i - 1) << 2;
      const right = <usize>min<i32>(w - 1, i + 1) << 2;
      let a: f32 = 0, b: f32 = 0, c: f32 = 0;
      for (let k: usize = 0; k < 3; k++) {
        const p = src + k * stride;
        const ul = f32.load(p + up + left), u = f32.load(p + up + q), ur = f32.load(p + up + right);
        const l = f32.load(p + row + left), r = f32.load(p + row + right);
        const dl = f32.load(p + down + left), d = f32.load(p + down + q), dr = f32.load(p + down + right);
        const gx: f32 = 0.125 * (ur - ul + dr - dl + 2 * (r - l));
        const gy: f32 = 0.125 * (dl - ul + dr - ur + 2 * (d - u));
        a += gx * gx;
        b += gx * gy;
        c += gy * gy;
      }
      f32.store(xx + row + q, a);
      f32.store(xy + row + q, b);
      f32.store(yy + row + q, c);
    }
  }
}

/**
 * From a smoothed structure tensor the direction along the edges, as the cosine and sine of its doubled angle, over xx and xy; over yy how much of one
 * direction there is, (λ₁ − λ₂) / (λ₁ + λ₂). With `strong` the doubled angle is weighed by √λ₁ and that, so that it can be smoothed further.
 */
export function flowOf(xx: usize, xy: usize, yy: usize, count: i32, strong: i32): void {
  const tiny = f32x4.splat(1e-12);
  const half = f32x4.splat(0.5);
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const a = v128.load(xx + i);
    const b = v128.load(xy + i);
    const c = v128.load(yy + i);
    const d = f32x4.sub(a, c);
    const b2 = f32x4.add(b, b);
    const gap = f32x4.sqrt(f32x4.add(f32x4.mul(d, d), f32x4.mul(b2, b2)));
    const sum = f32x4.add(a, c);
    const share = f32x4.div(gap, f32x4.add(sum, tiny));
    const weight = strong ? f32x4.mul(share, f32x4.sqrt(f32x4.mul(half, f32x4.add(sum, gap)))) : one;
    const k = f32x4.div(weight, f32x4.add(gap, tiny));
    v128.store(xx + i, f32x4.neg(f32x4.mul(d, k)));
    v128.store(xy + i, f32x4.neg(f32x4.mul(b2, k)));
    v128.store(yy + i, share);
  }
}

/** Halves doubled angles (cosine and sine, of any length): unit vectors in their place. Where there is none, across. */
export function halfAngles(c: usize, s: usize, count: i32): void {
  const half = f32x4.splat(0.5);
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const x = v128.load(c + i);
    const y = v128.load(s + i);
    const length = f32x4.sqrt(f32x4.add(f32x4.mul(x, x), f32x4.mul(y, y)));
    const none = f32x4.lt(length, f32x4.splat(1e-12));
    const cos = v128.bitselect(one, f32x4.div(x, length), none);
    const zero = f32x4.splat(0);
    const across = f32x4.sqrt(f32x4.pmax(zero, f32x4.mul(half, f32x4.add(one, cos))));
    const down = f32x4.sqrt(f32x4.pmax(zero, f32x4.mul(half, f32x4.sub(one, cos))));
    v128.store(c + i, across);
    v128.store(s + i, v128.or(down, v128.and(y, f32x4.splat(-0.0))));
  }
}

/** Planes as pixels of four values side by side; the fourth is 0 where `planes` is three. */
export function interleave(src: usize, stride: usize, count: i32, dst: usize, planes: i32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const r = v128.load(src + i);
    const g = planes > 1 ? v128.load(src + stride + i) : zero;
    const b = planes > 2 ? v128.load(src + 2 * stride + i) : zero;
    const a = planes > 3 ? v128.load(src + 3 * stride + i) : zero;
    const rg0 = i32x4.shuffle(r, g, 0, 4, 1, 5), rg1 = i32x4.shuffle(r, g, 2, 6, 3, 7);
    const ba0 = i32x4.shuffle(b, a, 0, 4, 1, 5), ba1 = i32x4.shuffle(b, a, 2, 6, 3, 7);
    const out = dst + (i << 2);
    v128.store(out, i64x2.shuffle(rg0, ba0, 0, 2));
    v128.store(out + 16, i64x2.shuffle(rg0, ba0, 1, 3));
    v128.store(out + 32, i64x2.shuffle(rg1, ba1, 0, 2));
    v128.store(out + 48, i64x2.shuffle(rg1, ba1, 1, 3));
  }
}

/** Four values at a place between pixels, bilinearly; the edge is extended. */
// @ts-ignore: decorator
@inline
export function between(src: usize, w: i32, h: i32, x: f32, y: f32): v128 {
  const cx: f32 = max<f32>(0, min<f32>(<f32>(w - 1), x));
  const cy: f32 = max<f32>(0, min<f32>(<f32>(h - 1), y));
  const i = min<i32>(<i32>cx, max<i32>(0, w - 2));
  const j = min<i32>(<i32>cy, max<i32>(0, h - 2));
  const fx = f32x4.splat(cx - <f32>i);
  const fy = f32x4.splat(cy - <f32>j);
  const p = src + ((<usize>(j * w + i)) << 4);
  const right: usize = w > 1 ? 16 : 0;
  const q = h > 1 ? p + (<usize>w << 4) : p;
  const a = v128.load(p);
  const c = v128.load(q);
  const top = f32x4.add(a, f32x4.mul(f32x4.sub(v128.load(p + right), a), fx));
  const low = f32x4.add(c, f32x4.mul(f32x4.sub(v128.load(q + right), c), fx));
  return f32x4.add(top, f32x4.mul(f32x4.sub(low, top), fy));
}

/**
 * Line integral convolution with a Gaussian (Cabral & Leedom 1993): means of `src` (interleaved) along the directions (tx, ty), of standard deviation
 * sigma · ease pixels, cut off at twice that. `ease` is a plane, or 0 for 1 everywhere. Steps of `step` pixels by the midpoint method. Writes `planes`
 * planes, their rows y0 to y1.
 */
export function blurAlong(
  src: usize, w: i32, h: i32, tx: usize, ty: usize, sigma: f32, ease: usize, step: f32, dst: usize, stride: usize, planes: i32,
  y0: i32, y1: i32,
): void {
  for (let j = y0; j < y1; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const deviation: f32 = ease ? sigma * f32.load(ease + at) : sigma;
      let sum = v128.load(src + (at << 2));
      if (deviation >= 0.2) {
        let total: f32 = 1;
        const steps = <i32>ceil<f32>((2 * deviation) / step);
        const most: f32 = 2 * deviation;
        const first: f32 = exp1(-(step * step) / (2 * deviation * deviation));
        for (let way = 0; way < 2; way++) {
          let px: f32 = f32.load(tx + at);
          let py: f32 = f32.load(ty + at);
          if (way) {
            px = -px;
            py = -py;
          }
          let x: f32 = <f32>i;
          let y: f32 = <f32>j;
          let weight: f32 = 1;
          let ratio = first;
          const square: f32 = first * first;
          let gone: f32 = 0;
          for (let k = 0; k < steps && gone < most; k++) {
            const mx: f32 = x + px * step * 0.5;
            const my: f32 = y + py * step * 0.5;
            const ni = max<i32>(0, min<i32>(w - 1, <i32>(mx + 0.5)));
            const nj = max<i32>(0, min<i32>(h - 1, <i32>(my + 0.5)));
            const n = <usize>(nj * w + ni) << 2;
            let dx: f32 = f32.load(tx + n);
            let dy: f32 = f32.load(ty + n);
            if (dx * px + dy * py < 0) {
              dx = -dx;
              dy = -dy;
            }
            px = dx;
            py = dy;
            x += dx * step;
            y += dy * step;
            gone += step;
            weight *= ratio;
            ratio *= square;
            total += weight;
            sum = f32x4.add(sum, f32x4.mul(between(src, w, h, x, y), f32x4.splat(weight)));
          }
        }
        sum = f32x4.mul(sum, f32x4.splat(1 / total));
      }
      put(dst + at, stride, sum, planes);
    }
}

// @ts-ignore: decorator
@inline
function put(at: usize, stride: usize, v: v128, planes: i32): void {
  f32.store(at, f32x4.extract_lane(v, 0));
  if (planes > 1) f32.store(at + stride, f32x4.extract_lane(v, 1));
  if (planes > 2) f32.store(at + 2 * stride, f32x4.extract_lane(v, 2));
  if (planes > 3) f32.store(at + 3 * stride, f32x4.extract_lane(v, 3));
}

/**
 * Edges sharpened across the flow (Kyprianidis & Kang 2011, shock filtering): where `luma`, a softened luma, curves up across the flow the pixel goes
 * towards the darkest of the colours `reach` pixels to both sides of it, where it curves down towards the lightest. `amount`, eased by a plane or 0;
 * in full from a curvature of `full` on, over ±`probe` pixels. `src` is interleaved, red, green, blue and the softened luma; three planes are written.
 */
export function sharpenAcross(
  src: usize, w: i32, h: i32, tx: usize, ty: usize, probe: f32, reach: f32, full: f32, amount: f32, ease: usize, dst: usize, stride: usize,
): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const own = v128.load(src + (at << 2));
      const nx: f32 = -f32.load(ty + at);
      const ny: f32 = f32.load(tx + at);
      const x: f32 = <f32>i;
      const y: f32 = <f32>j;
      const luma: f32 = f32x4.extract_lane(own, 3);
      const l1: f32 = f32x4.extract_lane(between(src, w, h, x + nx * probe, y + ny * probe), 3);
      const l2: f32 = f32x4.extract_lane(between(src, w, h, x - nx * probe, y - ny * probe), 3);
      const curve: f32 = l1 + l2 - 2 * luma;
      let k: f32 = amount * clamp1(abs<f32>(curve) / full);
      if (ease) k *= f32.load(ease + at);
      const a = between(src, w, h, x + nx * reach, y + ny * reach);
      const b = between(src, w, h, x - nx * reach, y - ny * reach);
      let best = own;
      let most: f32 = luma;
      const sign: f32 = curve < 0 ? 1 : -1;
      if (sign * (f32x4.extract_lane(a, 3) - most) > 0) {
        best = a;
        most = f32x4.extract_lane(a, 3);
      }
      if (sign * (f32x4.extract_lane(b, 3) - most) > 0) best = b;
      put(dst + at, stride, f32x4.add(own, f32x4.mul(f32x4.sub(best, own), f32x4.splat(k))), 3);
    }
}

/** e^x, by squaring 1 + x/1024: x between −40 and 0, where a weight needs no more. */
// @ts-ignore: decorator
@inline
function exp1(x: f32): f32 {
  let v: f32 = 1 + max<f32>(x, -40) * 0.0009765625;
  v *= v; v *= v; v *= v; v *= v; v *= v;
  v *= v; v *= v; v *= v; v *= v; v *= v;
  return v;
}

/**
 * Difference of Gaussians along a line across the flow (Winnemöller, Kyprianidis & Olsen 2012): dst = (1 + sharp)·G(sigma) − sharp·G(1.6·sigma) of one
 * plane, sampled on a line across (tx, ty). `src` is a plane.
 */
export function differenceAcross(src: usize, w: i32, h: i32, tx: usize, ty: usize, sigma: f32, sharp: f32, dst: usize): void {
  const wide: f32 = 1.6 * sigma;
  const step: f32 = max<f32>(0.5, sigma * 0.5);
  const steps = <i32>ceil<f32>((2.6 * wide) / step);
  // Each weight from the one before it: their ratios are a geometric series.
  const firstA: f32 = exp1(-(step * step) / (2 * sigma * sigma));
  const firstB: f32 = exp1(-(step * step) / (2 * wide * wide));
  const squareA: f32 = firstA * firstA;
  const squareB: f32 = firstB * firstB;
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const nx: f32 = -f32.load(ty + at);
      const ny: f32 = f32.load(tx + at);
      const own: f32 = f32.load(src + at);
      let a: f32 = own, b: f32 = own, ta: f32 = 1, tb: f32 = 1;
      let wa: f32 = 1, wb: f32 = 1, ratioA = firstA, ratioB = firstB;
      for (let k = 1; k <= steps; k++) {
        const d: f32 = <f32>k * step;
        wa *= ratioA;
        wb *= ratioB;
        ratioA *= squareA;
        ratioB *= squareB;
        const v: f32 = one(src, w, h, <f32>i + nx * d, <f32>j + ny * d) + one(src, w, h, <f32>i - nx * d, <f32>j - ny * d);
        a += wa * v;
        b += wb * v;
        ta += 2 * wa;
        tb += 2 * wb;
      }
      f32.store(dst + at, (1 + sharp) * (a / ta) - sharp * (b / tb));
    }
}

/** One plane at a place between pixels, bilinearly; the edge is extended. */
// @ts-ignore: decorator
@inline
export function one(src: usize, w: i32, h: i32, x: f32, y: f32): f32 {
  const cx: f32 = max<f32>(0, min<f32>(<f32>(w - 1), x));
  const cy: f32 = max<f32>(0, min<f32>(<f32>(h - 1), y));
  const i = min<i32>(<i32>cx, max<i32>(0, w - 2));
  const j = min<i32>(<i32>cy, max<i32>(0, h - 2));
  const fx: f32 = cx - <f32>i;
  const fy: f32 = cy - <f32>j;
  const right: usize = w > 1 ? 4 : 0;
  const p = src + (<usize>(j * w + i) << 2);
  const q = h > 1 ? p + (<usize>w << 2) : p;
  const a = f32.load(p);
  const c = f32.load(q);
  const top: f32 = a + (f32.load(p + right) - a) * fx;
  const low: f32 = c + (f32.load(q + right) - c) * fx;
  return top + (low - top) * fy;
}
