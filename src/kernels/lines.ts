// Lines: what a pen, a brush or a pencil leaves, cut off softly.
import { one } from './flow';
import { clamp4, exp4 } from './math';

/** plane = min(1, gain·(plane + lift) / (other + lift)). */
export function divided(plane: usize, other: usize, count: i32, gain: f32, lift: f32): void {
  const l = f32x4.splat(lift);
  const g = f32x4.splat(gain);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    v128.store(plane + i, clamp4(f32x4.div(f32x4.mul(g, f32x4.add(v128.load(plane + i), l)), f32x4.add(v128.load(other + i), l))));
  }
}

/** Soft threshold (Winnemöller et al. 2012, equation 4): 1 where D ≥ edge, else 1 + tanh(slope·(D − edge)). */
export function inked(plane: usize, count: i32, edge: f32, slope: f32): void {
  const one = f32x4.splat(1);
  const e = f32x4.splat(edge);
  const k = f32x4.splat(2 * slope);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const d = f32x4.pmin(f32x4.splat(0), f32x4.sub(v128.load(plane + i), e));
    // 1 + tanh x = 2 − 2 / (e^2x + 1).
    const t = exp4(f32x4.mul(d, k));
    v128.store(plane + i, clamp4(f32x4.sub(f32x4.splat(2), f32x4.div(f32x4.splat(2), f32x4.add(t, one)))));
  }
}

/** Strength of a structure tensor in the place of xx: the root of its greater eigenvalue, the change of colour a pixel. */
export function edgeStrength(xx: usize, xy: usize, yy: usize, count: i32): void {
  const half = f32x4.splat(0.5);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const a = v128.load(xx + i);
    const b = f32x4.mul(f32x4.splat(2), v128.load(xy + i));
    const c = v128.load(yy + i);
    const d = f32x4.sub(a, c);
    const gap = f32x4.sqrt(f32x4.add(f32x4.mul(d, d), f32x4.mul(b, b)));
    v128.store(xx + i, f32x4.sqrt(f32x4.mul(half, f32x4.add(f32x4.add(a, c), gap))));
  }
}

/** Pigment on a ground (Bousseau et al. 2006): density d = 1 − plane becomes d + gain·d·(1 − d)·tooth; a plane of tone, and one of tooth about 0. */
export function pigmented(plane: usize, tooth: usize, count: i32, gain: f32): void {
  const g = f32x4.splat(gain);
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = v128.load(plane + i);
    const change = f32x4.mul(f32x4.mul(g, f32x4.mul(v, f32x4.sub(one, v))), v128.load(tooth + i));
    v128.store(plane + i, clamp4(f32x4.sub(v, change)));
  }
}

/** Watercolour (Bousseau et al. 2006, equation 1): C becomes C − (C − C²)(d − 1), d the pigment's depth, a plane with 1 for none. */
export function deepened(plane: usize, depth: usize, count: i32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = v128.load(plane + i);
    const change = f32x4.mul(f32x4.sub(v, f32x4.mul(v, v)), f32x4.sub(v128.load(depth + i), one));
    v128.store(plane + i, clamp4(f32x4.sub(v, change)));
  }
}

/**
 * Thinned edges: where `strength` is greatest across the flow within `reach` pixels to both sides it stays, elsewhere it is 0 (non-maximum suppression,
 * Canny 1986), with a soft shoulder.
 */
export function thinned(strength: usize, w: i32, h: i32, tx: usize, ty: usize, reach: f32, dst: usize): void {
  const steps = <i32>ceil<f32>(reach);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const own: f32 = f32.load(strength + at);
      const nx: f32 = -f32.load(ty + at);
      const ny: f32 = f32.load(tx + at);
      let most: f32 = 0;
      for (let k = 1; k <= steps; k++) {
        const d: f32 = min<f32>(<f32>k, reach);
        most = max<f32>(most, one(strength, w, h, <f32>i + nx * d, <f32>j + ny * d));
        most = max<f32>(most, one(strength, w, h, <f32>i - nx * d, <f32>j - ny * d));
      }
      const share: f32 = most > 0 ? (own / most - 0.82) / 0.16 : 1;
      f32.store(dst + at, own * max<f32>(0, min<f32>(1, share)));
    }
}
