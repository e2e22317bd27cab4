// Colours of a range: of tones, of hues, and those that are clipped.
import { clamp4 } from './math';

// @ts-ignore: decorator
@inline
function luma4(r: v128, g: v128, b: v128): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(g, f32x4.splat(0.7152))), f32x4.mul(b, f32x4.splat(0.0722)));
}

// @ts-ignore: decorator
@inline
function rise4(x: v128, from: f32, to: f32): v128 {
  const t = clamp4(f32x4.mul(f32x4.sub(x, f32x4.splat(from)), f32x4.splat(<f32>1 / (to - from))));
  return f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t)));
}

/**
 * Adds one colour in the shadows (luma under a half), one in the middle tones and one in the highlights; the three weights add up to 1. Luma
 * is kept, as far as clipping lets it.
 */
export function balanceRanges(
  tile: usize, stride: usize, count: i32, shadow0: f32, shadow1: f32, shadow2: f32, middle0: f32, middle1: f32, middle2: f32, highlight0: f32, highlight1: f32, highlight2: f32,
): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    let r = v128.load(p);
    let g = v128.load(p + stride);
    let b = v128.load(p + 2 * stride);
    const y = luma4(r, g, b);
    const s = f32x4.sub(one, rise4(y, 0.05, 0.55));
    const h = rise4(y, 0.45, 0.95);
    const m = f32x4.sub(f32x4.sub(one, s), h);
    r = f32x4.add(r, f32x4.add(f32x4.add(f32x4.mul(s, f32x4.splat(shadow0)), f32x4.mul(m, f32x4.splat(middle0))), f32x4.mul(h, f32x4.splat(highlight0))));
    g = f32x4.add(g, f32x4.add(f32x4.add(f32x4.mul(s, f32x4.splat(shadow1)), f32x4.mul(m, f32x4.splat(middle1))), f32x4.mul(h, f32x4.splat(highlight1))));
    b = f32x4.add(b, f32x4.add(f32x4.add(f32x4.mul(s, f32x4.splat(shadow2)), f32x4.mul(m, f32x4.splat(middle2))), f32x4.mul(h, f32x4.splat(highlight2))));
    const back = f32x4.sub(y, luma4(r, g, b));
    v128.store(p, clamp4(f32x4.add(r, back)));
    v128.store(p + stride, clamp4(f32x4.add(g, back)));
    v128.store(p + 2 * stride, clamp4(f32x4.add(b, back)));
  }
}

/**
 * Turns, strengthens and lightens the colours around one hue. Hue and chroma are polar coordinates of red − (green + blue)/2 and
 * √3/2·(green − blue) (Preucil 1953). `cos`, `sin` of the hue; full effect where the cosine of the distance exceeds `inner`, none under
 * `outer`; little on colours near grey. Luma is kept, then moved by lightness.
 */
export function hueRange(
  tile: usize, stride: usize, count: i32, cos: f32, sin: f32, inner: f32, outer: f32, turnCos: f32, turnSin: f32, saturation: f32, lightness: f32,
): void {
  const root = f32x4.splat(0.8660254);
  const third = f32x4.splat(1.0 / 3.0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = v128.load(p);
    const g = v128.load(p + stride);
    const b = v128.load(p + 2 * stride);
    const a = f32x4.sub(r, f32x4.mul(f32x4.add(g, b), f32x4.splat(0.5)));
    const o = f32x4.mul(f32x4.sub(g, b), root);
    const chroma = f32x4.sqrt(f32x4.add(f32x4.mul(a, a), f32x4.mul(o, o)));
    const near = f32x4.div(f32x4.add(f32x4.mul(a, f32x4.splat(cos)), f32x4.mul(o, f32x4.splat(sin))), f32x4.pmax(chroma, f32x4.splat(1e-5)));
    const w = f32x4.mul(rise4(near, outer, inner), rise4(chroma, 0.01, 0.08));
    // Turned and stretched by so much of the full effect.
    const ta = f32x4.sub(f32x4.mul(a, f32x4.splat(turnCos)), f32x4.mul(o, f32x4.splat(turnSin)));
    const to = f32x4.add(f32x4.mul(a, f32x4.splat(turnSin)), f32x4.mul(o, f32x4.splat(turnCos)));
    const k = f32x4.splat(<f32>1 + saturation);
    const na = f32x4.add(a, f32x4.mul(w, f32x4.sub(f32x4.mul(ta, k), a)));
    const no = f32x4.add(o, f32x4.mul(w, f32x4.sub(f32x4.mul(to, k), o)));
    const y = luma4(r, g, b);
    // r, g, b of the same chroma plane with mean 0.
    const zr = f32x4.mul(na, f32x4.splat(2.0 / 3.0));
    const half = f32x4.mul(na, third);
    const side = f32x4.mul(no, f32x4.splat(0.57735027));
    const zg = f32x4.sub(side, half);
    const zb = f32x4.sub(f32x4.neg(side), half);
    const lit = f32x4.add(y, f32x4.mul(w, f32x4.mul(f32x4.splat(lightness), f32x4.mul(y, f32x4.sub(f32x4.splat(1), y)))));
    const up = f32x4.sub(lit, luma4(zr, zg, zb));
    v128.store(p, clamp4(f32x4.add(zr, up)));
    v128.store(p + stride, clamp4(f32x4.add(zg, up)));
    v128.store(p + 2 * stride, clamp4(f32x4.add(zb, up)));
  }
}

/** Paints what is clipped: any channel at white over `white`, any at black over `black` (r, g, b each). */
export function markClipped(tile: usize, stride: usize, count: i32, white0: f32, white1: f32, white2: f32, black0: f32, black1: f32, black2: f32): void {
  const high = f32x4.splat(254.5 / 255.0);
  const low = f32x4.splat(0.5 / 255.0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const r = v128.load(p);
    const g = v128.load(p + stride);
    const b = v128.load(p + 2 * stride);
    const light = f32x4.ge(f32x4.pmax(r, f32x4.pmax(g, b)), high);
    const dark = f32x4.le(f32x4.pmin(r, f32x4.pmin(g, b)), low);
    v128.store(p, v128.bitselect(f32x4.splat(white0), v128.bitselect(f32x4.splat(black0), r, dark), light));
    v128.store(p + stride, v128.bitselect(f32x4.splat(white1), v128.bitselect(f32x4.splat(black1), g, dark), light));
    v128.store(p + 2 * stride, v128.bitselect(f32x4.splat(white2), v128.bitselect(f32x4.splat(black2), b, dark), light));
  }
}

/**
 * Colour fringes: where a pixel's colour differences stand out from their mean around it (`mb`, `mr`) towards one hue, and luma is uneven
 * there (`spread`, the variance around it), they are drawn to that mean by `amount`. Direction given by its cosine and sine in the
 * plane of blue − luma (across) and red − luma (up).
 */
export function drawFringe(blue: usize, red: usize, mb: usize, mr: usize, spread: usize, count: i32, cos: f32, sin: f32, amount: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const b = v128.load(blue + i);
    const r = v128.load(red + i);
    const db = f32x4.sub(b, v128.load(mb + i));
    const dr = f32x4.sub(r, v128.load(mr + i));
    const size = f32x4.sqrt(f32x4.add(f32x4.mul(db, db), f32x4.mul(dr, dr)));
    const near = f32x4.div(f32x4.add(f32x4.mul(db, f32x4.splat(cos)), f32x4.mul(dr, f32x4.splat(sin))), f32x4.pmax(size, f32x4.splat(1e-5)));
    const w = f32x4.mul(
      f32x4.mul(rise4(near, 0.5, 0.8), rise4(size, 0.01, 0.04)),
      f32x4.mul(rise4(v128.load(spread + i), 0.0004, 0.004), f32x4.splat(amount)),
    );
    v128.store(blue + i, f32x4.sub(b, f32x4.mul(w, db)));
    v128.store(red + i, f32x4.sub(r, f32x4.mul(w, dr)));
  }
}
