// Masks drawn to the edges of a picture, and what is cut out by them.
import { clamp4 } from './math';

/**
 * The linear model of a guided filter with a colour guide (He, Sun & Tang 2013, §3.5): from the means of the guide (r, g, b), of the input,
 * of the six products of the guide and of its three with the input, the slopes (ar, ag, ab) and the offset. All planes; the results replace
 * the three products with the input and the mean of the input.
 */
export function guidedColour(
  r: usize, g: usize, b: usize, rr: usize, rg: usize, rb: usize, gg: usize, gb: usize, bb: usize,
  pr: usize, pg: usize, pb: usize, p: usize, count: i32, eps: f32,
): void {
  const e = f32x4.splat(eps);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const mr = v128.load(r + i);
    const mg = v128.load(g + i);
    const mb = v128.load(b + i);
    const mp = v128.load(p + i);
    const crr = f32x4.add(f32x4.sub(v128.load(rr + i), f32x4.mul(mr, mr)), e);
    const crg = f32x4.sub(v128.load(rg + i), f32x4.mul(mr, mg));
    const crb = f32x4.sub(v128.load(rb + i), f32x4.mul(mr, mb));
    const cgg = f32x4.add(f32x4.sub(v128.load(gg + i), f32x4.mul(mg, mg)), e);
    const cgb = f32x4.sub(v128.load(gb + i), f32x4.mul(mg, mb));
    const cbb = f32x4.add(f32x4.sub(v128.load(bb + i), f32x4.mul(mb, mb)), e);
    const vr = f32x4.sub(v128.load(pr + i), f32x4.mul(mr, mp));
    const vg = f32x4.sub(v128.load(pg + i), f32x4.mul(mg, mp));
    const vb = f32x4.sub(v128.load(pb + i), f32x4.mul(mb, mp));
    // The symmetric matrix inverted by its cofactors.
    const k00 = f32x4.sub(f32x4.mul(cgg, cbb), f32x4.mul(cgb, cgb));
    const k01 = f32x4.sub(f32x4.mul(crb, cgb), f32x4.mul(crg, cbb));
    const k02 = f32x4.sub(f32x4.mul(crg, cgb), f32x4.mul(crb, cgg));
    const k11 = f32x4.sub(f32x4.mul(crr, cbb), f32x4.mul(crb, crb));
    const k12 = f32x4.sub(f32x4.mul(crg, crb), f32x4.mul(crr, cgb));
    const k22 = f32x4.sub(f32x4.mul(crr, cgg), f32x4.mul(crg, crg));
    const det = f32x4.add(f32x4.mul(crr, k00), f32x4.add(f32x4.mul(crg, k01), f32x4.mul(crb, k02)));
    const one = f32x4.div(f32x4.splat(1), det);
    const ar = f32x4.mul(one, f32x4.add(f32x4.mul(k00, vr), f32x4.add(f32x4.mul(k01, vg), f32x4.mul(k02, vb))));
    const ag = f32x4.mul(one, f32x4.add(f32x4.mul(k01, vr), f32x4.add(f32x4.mul(k11, vg), f32x4.mul(k12, vb))));
    const ab = f32x4.mul(one, f32x4.add(f32x4.mul(k02, vr), f32x4.add(f32x4.mul(k12, vg), f32x4.mul(k22, vb))));
    v128.store(pr + i, ar);
    v128.store(pg + i, ag);
    v128.store(pb + i, ab);
    v128.store(p + i, f32x4.sub(mp, f32x4.add(f32x4.mul(ar, mr), f32x4.add(f32x4.mul(ag, mg), f32x4.mul(ab, mb)))));
  }
}

/** dst = slopes · guide + offset, within 0..1. */
export function applyGuided(r: usize, g: usize, b: usize, ar: usize, ag: usize, ab: usize, offset: usize, dst: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const v = f32x4.add(
      f32x4.add(f32x4.mul(v128.load(r + i), v128.load(ar + i)), f32x4.mul(v128.load(g + i), v128.load(ag + i))),
      f32x4.add(f32x4.mul(v128.load(b + i), v128.load(ab + i)), v128.load(offset + i)),
    );
    v128.store(dst + i, clamp4(v));
  }
}

// @ts-ignore: decorator
@inline
function planeAt(plane: usize, i: i32, j: i32, w: i32, fu: f32, fv: f32): f32 {
  const p = plane + (<usize>(j * w + i) << 2);
  const q = p + (<usize>w << 2);
  const a = f32.load(p);
  const c = f32.load(q);
  const top = a + (f32.load(p, 4) - a) * fu;
  return top + (c + (f32.load(q, 4) - c) * fu - top) * fv;
}

/**
 * A guided filter's model, found on a small picture, read on a large one (He & Sun, Fast guided filter, 2015): alpha of RGBA8 `pixels` of w × h as a
 * grey picture. Slopes and offset are planes of sw × sh; what comes out is spread from `low` to `high`.
 */
export function modelOn(
  pixels: usize, w: i32, h: i32, ar: usize, ag: usize, ab: usize, offset: usize, sw: i32, sh: i32, low: f32, high: f32, dst: usize,
): void {
  const kx: f32 = <f32>sw / <f32>w;
  const ky: f32 = <f32>sh / <f32>h;
  const spread: f32 = 1 / (high - low);
  for (let y = 0; y < h; y++) {
    const v = max<f32>(0, min<f32>(<f32>sh - 1.001, (<f32>y + 0.5) * ky - 0.5));
    const j = <i32>v;
    const fv = v - <f32>j;
    for (let x = 0; x < w; x++) {
      const u = max<f32>(0, min<f32>(<f32>sw - 1.001, (<f32>x + 0.5) * kx - 0.5));
      const i = <i32>u;
      const fu = u - <f32>i;
      const at = <usize>(y * w + x) << 2;
      const p = pixels + at;
      const value: f32 =
        (planeAt(ar, i, j, sw, fu, fv) * <f32>load<u8>(p) + planeAt(ag, i, j, sw, fu, fv) * <f32>load<u8>(p, 1) + planeAt(ab, i, j, sw, fu, fv) * <f32>load<u8>(p, 2)) *
          <f32>(1 / 255.0) +
        planeAt(offset, i, j, sw, fu, fv);
      const a = <u32>(max<f32>(0, min<f32>(1, (value - low) * spread)) * 255 + 0.5);
      store<u32>(dst + at, a | (a << 8) | (a << 16) | 0xff000000);
    }
  }
}

/** (a − b)·0.5 + 0.5 of three planes each, as an opaque picture RGBA8: a signed difference of colours. */
export function signedPicture(ar: usize, ag: usize, ab: usize, br: usize, bg: usize, bb: usize, dst: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    store<u8>(dst + i, signed(ar, br, i));
    store<u8>(dst + i, signed(ag, bg, i), 1);
    store<u8>(dst + i, signed(ab, bb, i), 2);
    store<u8>(dst + i, 255, 3);
  }
}

// @ts-ignore: decorator
@inline
function signed(a: usize, b: usize, i: usize): u8 {
  return <u8>(max<f32>(0, min<f32>(1, (f32.load(a + i) - f32.load(b + i)) * 0.5 + 0.5)) * 255 + 0.5);
}

/**
 * Cuts a tile out: its alpha times that of `alpha` (red plane), and its colours freed of what showed through from behind, I + (1 − α)·(F − B),
 * by `amount` of it. `edge` holds F − B as 0.5 + half.
 */
export function cutOut(tile: usize, stride: usize, count: i32, alpha: usize, edge: usize, edgeStride: usize, amount: f32): void {
  const half = f32x4.splat(0.5);
  const gain = f32x4.splat(2 * amount);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const a = clamp4(v128.load(alpha + i));
    const k = f32x4.mul(gain, f32x4.sub(f32x4.splat(1), a));
    for (let c: usize = 0; c < 3; c++) {
      const p = tile + c * stride + i;
      v128.store(p, clamp4(f32x4.add(v128.load(p), f32x4.mul(k, f32x4.sub(v128.load(edge + c * edgeStride + i), half)))));
    }
    const p = tile + 3 * stride + i;
    v128.store(p, f32x4.mul(v128.load(p), a));
  }
}
