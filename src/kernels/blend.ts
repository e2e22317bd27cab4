// Blend modes and source-over compositing of W3C Compositing and Blending Level 1 and those of common practice, four pixels at a time.
import { clamp4 } from './math';

import {
  NORMAL,
  MULTIPLY,
  SCREEN,
  OVERLAY,
  DARKEN,
  LIGHTEN,
  COLOR_DODGE,
  COLOR_BURN,
  HARD_LIGHT,
  SOFT_LIGHT,
  DIFFERENCE,
  EXCLUSION,
  HUE,
  SATURATION,
  COLOR,
  LUMINOSITY,
  LINEAR_BURN,
  LINEAR_DODGE,
  LINEAR_LIGHT,
  VIVID_LIGHT,
  PIN_LIGHT,
  SUBTRACT,
  DIVIDE,
  HARD_STEP,
  FOLD,
  PLUS_LIGHTER,
} from './blendModes';

// @ts-ignore: decorator
@inline
function one(): v128 {
  return f32x4.splat(1);
}

// @ts-ignore: decorator
@inline
function screen(b: v128, s: v128): v128 {
  return f32x4.sub(f32x4.add(b, s), f32x4.mul(b, s));
}

// @ts-ignore: decorator
@inline
function hardLight(b: v128, s: v128): v128 {
  const twice = f32x4.add(s, s);
  return v128.bitselect(f32x4.mul(b, twice), screen(b, f32x4.sub(twice, one())), f32x4.le(s, f32x4.splat(0.5)));
}

// @ts-ignore: decorator
@inline
function softLight(b: v128, s: v128): v128 {
  const twice = f32x4.sub(f32x4.add(s, s), one());
  const low = f32x4.add(b, f32x4.mul(twice, f32x4.mul(b, f32x4.sub(one(), b))));
  const poly = f32x4.mul(
    f32x4.add(f32x4.mul(f32x4.sub(f32x4.mul(f32x4.splat(16), b), f32x4.splat(12)), b), f32x4.splat(4)),
    b,
  );
  const d = v128.bitselect(poly, f32x4.sqrt(b), f32x4.le(b, f32x4.splat(0.25)));
  const high = f32x4.add(b, f32x4.mul(twice, f32x4.sub(d, b)));
  return v128.bitselect(low, high, f32x4.le(s, f32x4.splat(0.5)));
}

// @ts-ignore: decorator
@inline
function dodge(b: v128, s: v128): v128 {
  const q = f32x4.pmin(one(), f32x4.div(b, f32x4.pmax(f32x4.sub(one(), s), f32x4.splat(1e-7))));
  const lit = v128.bitselect(one(), q, f32x4.ge(s, one()));
  return v128.bitselect(f32x4.splat(0), lit, f32x4.le(b, f32x4.splat(0)));
}

// @ts-ignore: decorator
@inline
function burn(b: v128, s: v128): v128 {
  const q = f32x4.sub(one(), f32x4.pmin(one(), f32x4.div(f32x4.sub(one(), b), f32x4.pmax(s, f32x4.splat(1e-7)))));
  const burnt = v128.bitselect(f32x4.splat(0), q, f32x4.le(s, f32x4.splat(0)));
  return v128.bitselect(one(), burnt, f32x4.ge(b, one()));
}

// @ts-ignore: decorator
@inline
function separable(mode: i32, b: v128, s: v128): v128 {
  if (mode == MULTIPLY) return f32x4.mul(b, s);
  if (mode == SCREEN) return screen(b, s);
  if (mode == OVERLAY) return hardLight(s, b);
  if (mode == DARKEN) return f32x4.pmin(b, s);
  if (mode == LIGHTEN) return f32x4.pmax(b, s);
  if (mode == COLOR_DODGE) return dodge(b, s);
  if (mode == COLOR_BURN) return burn(b, s);
  if (mode == HARD_LIGHT) return hardLight(b, s);
  if (mode == SOFT_LIGHT) return softLight(b, s);
  if (mode == DIFFERENCE) return f32x4.abs(f32x4.sub(b, s));
  if (mode == EXCLUSION) return f32x4.sub(f32x4.add(b, s), f32x4.mul(f32x4.splat(2), f32x4.mul(b, s)));
  if (mode == LINEAR_BURN) return clamp4(f32x4.sub(f32x4.add(b, s), one()));
  if (mode == LINEAR_DODGE || mode == PLUS_LIGHTER) return f32x4.pmin(one(), f32x4.add(b, s));
  if (mode == LINEAR_LIGHT) return clamp4(f32x4.add(b, f32x4.sub(f32x4.add(s, s), one())));
  if (mode == VIVID_LIGHT) {
    const twice = f32x4.add(s, s);
    return v128.bitselect(burn(b, twice), dodge(b, f32x4.sub(twice, one())), f32x4.le(s, f32x4.splat(0.5)));
  }
  if (mode == PIN_LIGHT) {
    const twice = f32x4.add(s, s);
    return v128.bitselect(f32x4.pmin(b, twice), f32x4.pmax(b, f32x4.sub(twice, one())), f32x4.le(s, f32x4.splat(0.5)));
  }
  if (mode == SUBTRACT) return f32x4.pmax(f32x4.splat(0), f32x4.sub(b, s));
  if (mode == DIVIDE) {
    const q = f32x4.pmin(one(), f32x4.div(b, f32x4.pmax(s, f32x4.splat(1e-7))));
    return v128.bitselect(f32x4.splat(0), q, f32x4.le(b, f32x4.splat(0)));
  }
  // Half a 16-bit level of tolerance: a sum of one that rounding has left just under it counts as one.
  if (mode == HARD_STEP) return v128.and(one(), f32x4.ge(f32x4.add(b, s), f32x4.splat(1 - 0.5 / 65535)));
  if (mode == FOLD) return f32x4.sub(one(), f32x4.abs(f32x4.sub(f32x4.sub(one(), b), s)));
  return s;
}

// @ts-ignore: decorator
@inline
function lum(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(
    f32x4.add(f32x4.mul(r, f32x4.splat(0.3)), f32x4.mul(g, f32x4.splat(0.59))),
    f32x4.mul(b, f32x4.splat(0.11)),
  );
}

/** One channel of ClipColor: pulls c towards the luminosity l where the colour leaves 0..1. */
// @ts-ignore: decorator
@inline
function clip(c: v128, l: v128, low: v128, high: v128): v128 {
  const tiny = f32x4.splat(1e-7);
  const up = f32x4.add(l, f32x4.div(f32x4.mul(f32x4.sub(c, l), l), f32x4.pmax(f32x4.sub(l, low), tiny)));
  const c1 = v128.bitselect(up, c, f32x4.lt(low, f32x4.splat(0)));
  const down = f32x4.add(
    l,
    f32x4.div(f32x4.mul(f32x4.sub(c1, l), f32x4.sub(one(), l)), f32x4.pmax(f32x4.sub(high, l), tiny)),
  );
  return v128.bitselect(down, c1, f32x4.gt(high, one()));
}

/** (1−αs)·αb·Cb + αs·((1−αb)·Cs + αb·B) over the resulting alpha. */
// @ts-ignore: decorator
@inline
function over(cb: v128, cs: v128, mixed: v128, ab: v128, as_: v128, scale: v128): v128 {
  const source = f32x4.add(cs, f32x4.mul(ab, f32x4.sub(mixed, cs)));
  const back = f32x4.mul(f32x4.mul(f32x4.sub(one(), as_), ab), cb);
  return clamp4(f32x4.mul(f32x4.add(back, f32x4.mul(as_, source)), scale));
}

// @ts-ignore: decorator
@inline
function plus(cb: v128, cs: v128, ab: v128, as_: v128, scale: v128): v128 {
  return clamp4(f32x4.mul(f32x4.pmin(one(), f32x4.add(f32x4.mul(as_, cs), f32x4.mul(ab, cb))), scale));
}

// @ts-ignore: decorator
@inline
function run(mode: i32, backdrop: usize, source: usize, mask: usize, stride: usize, count: i32, strength: f32): void {
  const weight = f32x4.splat(strength);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = backdrop + i;
    const q = source + i;
    const rb = v128.load(p);
    const gb = v128.load(p + stride);
    const bb = v128.load(p + 2 * stride);
    const ab = v128.load(p + 3 * stride);
    const rs = v128.load(q);
    const gs = v128.load(q + stride);
    const bs = v128.load(q + 2 * stride);
    const alpha = f32x4.mul(f32x4.mul(v128.load(q + 3 * stride), v128.load(mask + i)), weight);
    let r = rs;
    let g = gs;
    let b = bs;
    if (mode < HUE || mode > LUMINOSITY) {
      r = separable(mode, rb, rs);
      g = separable(mode, gb, gs);
      b = separable(mode, bb, bs);
    } else {
      let l = lum(rb, gb, bb);
      if (mode == LUMINOSITY) {
        l = lum(rs, gs, bs);
        r = rb;
        g = gb;
        b = bb;
      } else if (mode == HUE || mode == SATURATION) {
        // SetSat: the spread of one colour on the order of the other.
        const spread = mode == HUE
          ? f32x4.sub(f32x4.pmax(rb, f32x4.pmax(gb, bb)), f32x4.pmin(rb, f32x4.pmin(gb, bb)))
          : f32x4.sub(f32x4.pmax(rs, f32x4.pmax(gs, bs)), f32x4.pmin(rs, f32x4.pmin(gs, bs)));
        if (mode == SATURATION) {
          r = rb;
          g = gb;
          b = bb;
        }
        const low = f32x4.pmin(r, f32x4.pmin(g, b));
        const own = f32x4.sub(f32x4.pmax(r, f32x4.pmax(g, b)), low);
        const k = f32x4.div(spread, f32x4.pmax(own, f32x4.splat(1e-7)));
        r = f32x4.mul(f32x4.sub(r, low), k);
        g = f32x4.mul(f32x4.sub(g, low), k);
        b = f32x4.mul(f32x4.sub(b, low), k);
      }
      const d = f32x4.sub(l, lum(r, g, b));
      r = f32x4.add(r, d);
      g = f32x4.add(g, d);
      b = f32x4.add(b, d);
      const low = f32x4.pmin(r, f32x4.pmin(g, b));
      const high = f32x4.pmax(r, f32x4.pmax(g, b));
      r = clip(r, l, low, high);
      g = clip(g, l, low, high);
      b = clip(b, l, low, high);
    }
    if (mode == PLUS_LIGHTER) {
      // Not a mix: αs·Cs + αb·Cb, cut off at full.
      const ao = f32x4.pmin(one(), f32x4.add(alpha, ab));
      const scale = v128.bitselect(f32x4.splat(0), f32x4.div(one(), ao), f32x4.le(ao, f32x4.splat(0)));
      v128.store(p, plus(rb, rs, ab, alpha, scale));
      v128.store(p + stride, plus(gb, gs, ab, alpha, scale));
      v128.store(p + 2 * stride, plus(bb, bs, ab, alpha, scale));
      v128.store(p + 3 * stride, ao);
      continue;
    }
    // On an opaque backdrop, the usual case, the result is a plain mix. Lanes that are opaque take it in any company, so that a
    // picture does not depend on how it is cut into tiles.
    const opaque = f32x4.ge(ab, one());
    const rm = clamp4(f32x4.add(rb, f32x4.mul(alpha, f32x4.sub(r, rb))));
    const gm = clamp4(f32x4.add(gb, f32x4.mul(alpha, f32x4.sub(g, gb))));
    const bm = clamp4(f32x4.add(bb, f32x4.mul(alpha, f32x4.sub(b, bb))));
    if (i32x4.all_true(opaque)) {
      v128.store(p, rm);
      v128.store(p + stride, gm);
      v128.store(p + 2 * stride, bm);
      continue;
    }
    const ao = f32x4.sub(f32x4.add(alpha, ab), f32x4.mul(alpha, ab));
    const scale = v128.bitselect(f32x4.splat(0), f32x4.div(one(), ao), f32x4.le(ao, f32x4.splat(0)));
    v128.store(p, v128.bitselect(rm, over(rb, rs, r, ab, alpha, scale), opaque));
    v128.store(p + stride, v128.bitselect(gm, over(gb, gs, g, ab, alpha, scale), opaque));
    v128.store(p + 2 * stride, v128.bitselect(bm, over(bb, bs, b, ab, alpha, scale), opaque));
    v128.store(p + 3 * stride, ao);
  }
}

/**
 * Blends `source` over `backdrop` in place. Both are planar r, g, b, a (not premultiplied) with `stride` bytes between planes;
 * `mask` is one plane; `count` is a multiple of 4.
 */
export function blend(mode: i32, backdrop: usize, source: usize, mask: usize, stride: usize, count: i32, strength: f32): void {
  // One specialised loop a mode: the constant folds every branch inside.
  if (mode == NORMAL) run(NORMAL, backdrop, source, mask, stride, count, strength);
  else if (mode == MULTIPLY) run(MULTIPLY, backdrop, source, mask, stride, count, strength);
  else if (mode == SCREEN) run(SCREEN, backdrop, source, mask, stride, count, strength);
  else if (mode == OVERLAY) run(OVERLAY, backdrop, source, mask, stride, count, strength);
  else if (mode == DARKEN) run(DARKEN, backdrop, source, mask, stride, count, strength);
  else if (mode == LIGHTEN) run(LIGHTEN, backdrop, source, mask, stride, count, strength);
  else if (mode == COLOR_DODGE) run(COLOR_DODGE, backdrop, source, mask, stride, count, strength);
  else if (mode == COLOR_BURN) run(COLOR_BURN, backdrop, source, mask, stride, count, strength);
  else if (mode == HARD_LIGHT) run(HARD_LIGHT, backdrop, source, mask, stride, count, strength);
  else if (mode == SOFT_LIGHT) run(SOFT_LIGHT, backdrop, source, mask, stride, count, strength);
  else if (mode == DIFFERENCE) run(DIFFERENCE, backdrop, source, mask, stride, count, strength);
  else if (mode == EXCLUSION) run(EXCLUSION, backdrop, source, mask, stride, count, strength);
  else if (mode == HUE) run(HUE, backdrop, source, mask, stride, count, strength);
  else if (mode == SATURATION) run(SATURATION, backdrop, source, mask, stride, count, strength);
  else if (mode == COLOR) run(COLOR, backdrop, source, mask, stride, count, strength);
  else if (mode == LUMINOSITY) run(LUMINOSITY, backdrop, source, mask, stride, count, strength);
  else if (mode == LINEAR_BURN) run(LINEAR_BURN, backdrop, source, mask, stride, count, strength);
  else if (mode == LINEAR_DODGE) run(LINEAR_DODGE, backdrop, source, mask, stride, count, strength);
  else if (mode == LINEAR_LIGHT) run(LINEAR_LIGHT, backdrop, source, mask, stride, count, strength);
  else if (mode == VIVID_LIGHT) run(VIVID_LIGHT, backdrop, source, mask, stride, count, strength);
  else if (mode == PIN_LIGHT) run(PIN_LIGHT, backdrop, source, mask, stride, count, strength);
  else if (mode == SUBTRACT) run(SUBTRACT, backdrop, source, mask, stride, count, strength);
  else if (mode == DIVIDE) run(DIVIDE, backdrop, source, mask, stride, count, strength);
  else if (mode == HARD_STEP) run(HARD_STEP, backdrop, source, mask, stride, count, strength);
  else if (mode == FOLD) run(FOLD, backdrop, source, mask, stride, count, strength);
  else if (mode == PLUS_LIGHTER) run(PLUS_LIGHTER, backdrop, source, mask, stride, count, strength);
}
