// Mask parts: an ellipse, brush dabs, and the range of tones of what lies below.
import { clamp4, decode4, exp4, ln4, putSome } from './math';

/** Multiplies 1 − v, lifts by v or keeps v, by op: 0 add (m + (1−m)v), 1 subtract (m(1−v)), 2 intersect (m·v). */
// @ts-ignore: decorator
@inline
function combine(m: v128, v: v128, op: i32): v128 {
  if (op == 0) return f32x4.add(m, f32x4.mul(f32x4.sub(f32x4.splat(1), m), v));
  if (op == 1) return f32x4.mul(m, f32x4.sub(f32x4.splat(1), v));
  return f32x4.mul(m, v);
}

/** 1 up to `inner`, falling by smoothstep to 0 at inner + 1/steep. */
// @ts-ignore: decorator
@inline
function fall(distance: v128, inner: v128, steep: v128): v128 {
  const t = clamp4(f32x4.mul(f32x4.sub(distance, inner), steep));
  return f32x4.sub(f32x4.splat(1), f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t))));
}

/**
 * Ellipse with a feathered edge, or from it by `shape` over rounded corners to a box (1). (cx, cy), (rx, ry) in tile pixels, turn given by its cosine and sine. 1 inside the radius
 * 1 − feather, 0 outside 1, smoothstep between; times density. `mask` has room for three values beyond its last.
 */
export function maskEllipse(
  mask: usize, tw: i32, th: i32, cx: f32, cy: f32, rx: f32, ry: f32, cos: f32, sin: f32, feather: f32, density: f32, op: i32, shape: f32,
): void {
  const square = f32x4.splat(shape);
  // Half of 2a² − c², with a corner of radius c = 1 − a.
  const corner = f32x4.splat(2 * shape * shape - (1 - shape) * (1 - shape));
  // Never steeper than one pixel, so that a hard edge is anti-aliased.
  const edge = max<f32>(feather, 1 / max<f32>(1, min<f32>(rx, ry)));
  const inner = f32x4.splat(<f32>1 - edge);
  const steep = f32x4.splat(<f32>1 / edge);
  const dense = f32x4.splat(density);
  const stepU = f32x4.splat(cos / rx);
  const stepV = f32x4.splat(-sin / ry);
  for (let j = 0; j < th; j++) {
    const dy: f32 = <f32>j + 0.5 - cy;
    const u0 = f32x4.splat((dy * sin) / rx);
    const v0 = f32x4.splat((dy * cos) / ry);
    const row = mask + ((<usize>(j * tw)) << 2);
    for (let i = 0; i < tw; i += 4) {
      const dx = f32x4.add(f32x4.splat(<f32>i + 0.5 - cx), f32x4(0, 1, 2, 3));
      const u = f32x4.add(f32x4.mul(dx, stepU), u0);
      const v = f32x4.add(f32x4.mul(dx, stepV), v0);
      const squared = f32x4.add(f32x4.mul(u, u), f32x4.mul(v, v));
      // Outside, adding and subtracting change nothing.
      if (op < 2 && i32x4.all_true(f32x4.ge(squared, f32x4.splat(2)))) continue;
      let d = f32x4.sqrt(squared);
      if (shape > 0) {
        // How many times the rounded box about the centre has to be to reach here: by its straight sides, or on the quarter circle of a corner,
        // (u·s − a)² + (v·s − a)² = c² for s = 1/d.
        const au = f32x4.abs(u);
        const av = f32x4.abs(v);
        const sum = f32x4.mul(square, f32x4.add(au, av));
        const root = f32x4.sqrt(f32x4.pmax(f32x4.splat(0), f32x4.sub(f32x4.mul(sum, sum), f32x4.mul(squared, corner))));
        const s = f32x4.div(f32x4.add(sum, root), f32x4.pmax(squared, f32x4.splat(1e-12)));
        const round = v128.and(f32x4.ge(f32x4.mul(au, s), square), f32x4.ge(f32x4.mul(av, s), square));
        d = v128.bitselect(f32x4.div(f32x4.splat(1), s), f32x4.pmax(au, av), round);
      }
      const p = row + (<usize>i << 2);
      putSome(p, combine(v128.load(p), f32x4.mul(fall(d, inner, steep), dense), op), tw - i);
    }
  }
}

// Bytes of a dab: see core/strokes/dabs.ts.
// @ts-ignore: decorator
@inline
const DAB: usize = 28;

/**
 * Dabs into a stroke's cover plane: c += (1 − c)·flow·tip. `dabs` holds (x, y, radius, flow, cosine, sine, start) in tile pixels, f32, `count` of them;
 * the tip is 1 up to hardness·radius and falls by smoothstep to 0 at the radius; `flat` times as thick across its turned axis. `cover` has room
 * for three values beyond its last.
 */
export function stampDabs(cover: usize, tw: i32, th: i32, dabs: usize, count: i32, hardness: f32, flat: f32): void {
  for (let k = 0; k < count; k++) {
    const d = dabs + <usize>k * DAB;
    const x = f32.load(d);
    const y = f32.load(d + 4);
    const r = max<f32>(0.5, f32.load(d + 8));
    const flow = f32x4.splat(f32.load(d + 12));
    const y0 = max<i32>(0, <i32>floor<f32>(y - r - 1));
    const y1 = min<i32>(th - 1, <i32>ceil<f32>(y + r + 1));
    // A tip with hardness 1 still has a one-pixel edge.
    const inner = min<f32>(r * hardness, r - 0.5);
    const outer = max<f32>(r, inner + 1);
    const from = f32x4.splat(inner);
    const steep = f32x4.splat(1 / (outer - inner));
    const cos = f32.load(d + 16);
    const sin = f32.load(d + 20);
    // The stroke's own direction is thin: it is measured as if it were longer.
    const across: f32 = 1 / (flat * flat) - 1;
    for (let j = y0; j <= y1; j++) {
      const dy: f32 = <f32>j + 0.5 - y;
      // Only as far across as the disc reaches in this row.
      const left: f32 = outer * outer - dy * dy;
      if (left <= 0) continue;
      const half = sqrt<f32>(left);
      const x0 = max<i32>(0, <i32>floor<f32>(x - half - 0.5));
      const x1 = min<i32>(tw, <i32>ceil<f32>(x + half + 0.5));
      const dy2 = f32x4.splat(dy * dy);
      const row = cover + ((<usize>(j * tw)) << 2);
      for (let i = x0; i < x1; i += 4) {
        const dx = f32x4.add(f32x4.splat(<f32>i + 0.5 - x), f32x4(0, 1, 2, 3));
        let d2 = f32x4.add(f32x4.mul(dx, dx), dy2);
        if (flat < 1) {
          const u = f32x4.add(f32x4.mul(dx, f32x4.splat(cos)), f32x4.splat(dy * sin));
          d2 = f32x4.add(d2, f32x4.mul(f32x4.mul(u, u), f32x4.splat(across)));
        }
        const tip = fall(f32x4.sqrt(d2), from, steep);
        const p = row + (<usize>i << 2);
        const c = v128.load(p);
        putSome(p, f32x4.add(c, f32x4.mul(f32x4.mul(f32x4.sub(f32x4.splat(1), c), flow), tip)), x1 - i);
      }
    }
  }
}

/**
 * Dabs of a tip cut from a picture: the round tip times the grain of an RGBA8 picture (see `cutTip`) that lies over the dab and turns with it. Each dab shows
 * another part of the picture, so that a stroke does not repeat. `levels` has an address, a width and a height for each of the picture's `depth` mip levels, as i32;
 * a dab reads the one on which a texel is about as large as a pixel.
 */
export function stampCut(cover: usize, tw: i32, th: i32, dabs: usize, count: i32, hardness: f32, levels: usize, depth: i32): void {
  for (let k = 0; k < count; k++) {
    const d = dabs + <usize>k * DAB;
    const x = f32.load(d);
    const y = f32.load(d + 4);
    const r = max<f32>(0.5, f32.load(d + 8));
    const flow = f32.load(d + 12);
    const cos = f32.load(d + 16);
    const sin = f32.load(d + 20);
    const inner = min<f32>(r * hardness, r - 0.5);
    const outer = max<f32>(r, inner + 1);
    // A quarter of the picture's width lies under a tip's radius.
    let level = levels;
    for (let l = 1; l < depth && <f32>load<i32>(level, 4) * 0.25 > r * 1.4; l++) level += 12;
    const picture = <usize>load<i32>(level);
    const pw = load<i32>(level, 4);
    const ph = load<i32>(level, 8);
    const y0 = max<i32>(0, <i32>floor<f32>(y - r));
    const y1 = min<i32>(th - 1, <i32>ceil<f32>(y + r));
    const x0 = max<i32>(0, <i32>floor<f32>(x - r));
    const x1 = min<i32>(tw - 1, <i32>ceil<f32>(x + r));
    const per: f32 = (<f32>pw * 0.25) / r;
    const shift: f32 = f32.load(d + 24) * <f32>pw;
    for (let j = y0; j <= y1; j++) {
      const dy: f32 = <f32>j + 0.5 - y;
      for (let i = x0; i <= x1; i++) {
        const dx: f32 = <f32>i + 0.5 - x;
        const far = sqrt<f32>(dx * dx + dy * dy);
        if (far >= outer) continue;
        const t = max<f32>(0, min<f32>(1, (far - inner) / (outer - inner)));
        const tip: f32 = 1 - t * t * (3 - 2 * t);
        const u = (dx * cos + dy * sin) * per + shift;
        const v = (dy * cos - dx * sin) * per + <f32>ph * 0.5;
        const iu = <i32>floor<f32>(u);
        const iv = <i32>floor<f32>(v);
        const fu = u - <f32>iu;
        const fv = v - <f32>iv;
        const a = grainAt(picture, pw, ph, iu, iv);
        const b = grainAt(picture, pw, ph, iu + 1, iv);
        const c = grainAt(picture, pw, ph, iu, iv + 1);
        const e = grainAt(picture, pw, ph, iu + 1, iv + 1);
        const grain: f32 = (a + (b - a) * fu) * (1 - fv) + (c + (e - c) * fu) * fv;
        const p = cover + (<usize>(j * tw + i) << 2);
        const there = f32.load(p);
        f32.store(p, there + (1 - there) * flow * tip * grain);
      }
    }
  }
}

// @ts-ignore: decorator
@inline
function wrapped(i: i32, n: i32): i32 {
  const m = i % n;
  return m < 0 ? m + n : m;
}

// @ts-ignore: decorator
@inline
function grainAt(picture: usize, w: i32, h: i32, i: i32, j: i32): f32 {
  return <f32>load<u8>(picture + (<usize>(wrapped(j, h) * w + wrapped(i, w)) << 2)) * <f32>(1 / 255.0);
}

/** The grain with which an RGBA8 picture prints when a tip is cut from it, as a grey picture of the same size. `bins` has room for 128 values. */
export function cutTip(picture: usize, w: i32, h: i32, darks: i32, dst: usize, bins: usize): void {
  markLevels(picture, w, h, darks, bins);
  const from = f32.load(bins);
  const gain = f32.load(bins, 4);
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const light: f32 = texel(picture, w, h, i, j);
      const value: f32 = darks ? <f32>1 - light : light;
      const grain = <u32>(max<f32>(0, min<f32>(1, (value - from) * gain)) * 255 + 0.5);
      store<u32>(dst + (<usize>(j * w + i) << 2), grain | (grain << 8) | (grain << 16) | 0xff000000);
    }
}

/** Bins of the histogram of a tip. */
const BINS = 128;

/** The value under which a part of a histogram lies, 0..1. */
function percentile(bins: usize, total: i32, part: f32): f32 {
  const wanted = <i32>(<f32>total * part);
  let sum = 0;
  for (let b = 0; b < BINS; b++) {
    sum += load<i32>(bins + (<usize>b << 2));
    if (sum > wanted) return (<f32>b + 0.5) * <f32>(1 / 128.0);
  }
  return 1;
}

/**
 * What of a tip paints, as the value from which it does and the gain from there on, at `bins` and behind it. A picture of marks on a plain ground, such as a net of
 * cracks, prints its marks and nothing of the ground, however faint they are; others paint with their upper half. `bins` has room for 128 values.
 */
function markLevels(picture: usize, w: i32, h: i32, darks: i32, bins: usize): void {
  memory.fill(bins, 0, BINS << 2);
  let total = 0;
  for (let j = 1; j < h; j += 3)
    for (let i = 1; i < w; i += 3) {
      const light: f32 = texel(picture, w, h, i, j);
      const value: f32 = darks ? <f32>1 - light : light;
      const at = bins + (<usize>min<i32>(BINS - 1, <i32>(value * <f32>BINS)) << 2);
      store<i32>(at, load<i32>(at) + 1);
      total++;
    }
  const low = percentile(bins, total, 0.005);
  const ground = percentile(bins, total, 0.5);
  const high = percentile(bins, total, 0.995);
  let from: f32 = 0.35;
  let to: f32 = 0.65;
  if (high - ground > 2.5 * (ground - low) && high - ground > 0.05) {
    from = ground + 0.25 * (high - ground);
    to = ground + 0.6 * (high - ground);
  }
  f32.store(bins, from);
  f32.store(bins, 1 / (to - from), 4);
}

// @ts-ignore: decorator
@inline
function texel(picture: usize, w: i32, h: i32, i: i32, j: i32): f32 {
  const p = picture + (<usize>(wrapped(j, h) * w + wrapped(i, w)) << 2);
  return (<f32>0.2126 * <f32>load<u8>(p) + <f32>0.7152 * <f32>load<u8>(p, 1) + <f32>0.0722 * <f32>load<u8>(p, 2)) * <f32>(1 / 255.0);
}

/** Adds a straight gradient to a plane: 0 up to (x0, y0), rising by smoothstep to `most` at (x1, y1); tile pixels. */
export function maskRamp(mask: usize, tw: i32, th: i32, x0: f32, y0: f32, x1: f32, y1: f32, most: f32): void {
  const dx = x1 - x0;
  const dy = y1 - y0;
  const per: f32 = 1 / max<f32>(1e-6, dx * dx + dy * dy);
  const m = f32x4.splat(most);
  for (let j = 0; j < th; j++) {
    const along: f32 = ((<f32>j + 0.5 - y0) * dy - x0 * dx) * per;
    const row = mask + ((<usize>(j * tw)) << 2);
    for (let i = 0; i < tw; i += 4) {
      const x = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3));
      const t = clamp4(f32x4.add(f32x4.mul(x, f32x4.splat(dx * per)), f32x4.splat(along)));
      const v = f32x4.mul(f32x4.mul(t, t), f32x4.sub(f32x4.splat(3), f32x4.add(t, t)));
      const p = row + (<usize>i << 2);
      putSome(p, f32x4.add(v128.load(p), f32x4.mul(m, v)), tw - i);
    }
  }
}

// @ts-ignore: decorator
@inline
function labCurve4(t: v128): v128 {
  const root = exp4(f32x4.mul(ln4(f32x4.pmax(t, f32x4.splat(1e-6))), f32x4.splat(1.0 / 3.0)));
  const line = f32x4.add(f32x4.mul(t, f32x4.splat(7.787037)), f32x4.splat(0.13793103));
  return v128.bitselect(root, line, f32x4.gt(t, f32x4.splat(0.008856452)));
}

/**
 * How near each pixel of a tile is to one of `count` colours (L, a, b as f32 at `table`): 1 up to a distance of `inner` in CIE Lab (CIE 1976),
 * falling by smoothstep to 0 at `outer`.
 */
export function maskNear(mask: usize, tile: usize, stride: usize, pixels: i32, table: usize, count: i32, inner: f32, outer: f32): void {
  const from = f32x4.splat(inner);
  const steep = f32x4.splat(1 / max<f32>(1e-3, outer - inner));
  for (let i: usize = 0, end = <usize>pixels << 2; i < end; i += 16) {
    const r = decode4(v128.load(tile + i));
    const g = decode4(v128.load(tile + i + stride));
    const b = decode4(v128.load(tile + i + 2 * stride));
    const x = labCurve4(mix3(r, g, b, 0.43388763, 0.37622297, 0.18988855));
    const y = labCurve4(mix3(r, g, b, 0.212639, 0.7151687, 0.0721923));
    const z = labCurve4(mix3(r, g, b, 0.017749988, 0.10944821, 0.8728023));
    const L = f32x4.sub(f32x4.mul(y, f32x4.splat(116)), f32x4.splat(16));
    const A = f32x4.mul(f32x4.sub(x, y), f32x4.splat(500));
    const B = f32x4.mul(f32x4.sub(y, z), f32x4.splat(200));
    let best = f32x4.splat(1e9);
    for (let k = 0; k < count; k++) {
      const c = table + <usize>k * 12;
      const dl = f32x4.sub(L, f32x4.splat(f32.load(c)));
      const da = f32x4.sub(A, f32x4.splat(f32.load(c, 4)));
      const db = f32x4.sub(B, f32x4.splat(f32.load(c, 8)));
      best = f32x4.pmin(best, f32x4.add(f32x4.add(f32x4.mul(dl, dl), f32x4.mul(da, da)), f32x4.mul(db, db)));
    }
    v128.store(mask + i, fall(f32x4.sqrt(best), from, steep));
  }
}

// @ts-ignore: decorator
@inline
function mix3(r: v128, g: v128, b: v128, kr: f32, kg: f32, kb: f32): v128 {
  return f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(kr)), f32x4.mul(g, f32x4.splat(kg))), f32x4.mul(b, f32x4.splat(kb)));
}

/** Joins a part to a mask: its plane, turned inside out first if `invert`, times density, added, taken away or kept inside (0, 1, 2). */
export function joinPart(mask: usize, part: usize, count: i32, op: i32, density: f32, invert: i32): void {
  const dense = f32x4.splat(density);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    let v = clamp4(v128.load(part + i));
    if (invert) v = f32x4.sub(f32x4.splat(1), v);
    // Kept inside, a lower density lets what is outside stay by as much.
    v = op == 2 ? f32x4.sub(f32x4.splat(1), f32x4.mul(dense, f32x4.sub(f32x4.splat(1), v))) : f32x4.mul(v, dense);
    v128.store(mask + i, combine(v128.load(mask + i), v, op));
  }
}

/** m += (target − m)·strength·cover: a whole stroke laid onto the mask, bounded by its strength. */
export function applyStroke(mask: usize, cover: usize, count: i32, target: f32, strength: f32): void {
  const t = f32x4.splat(target);
  const s = f32x4.splat(strength);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const m = v128.load(mask + i);
    v128.store(mask + i, f32x4.add(m, f32x4.mul(f32x4.sub(t, m), f32x4.mul(s, v128.load(cover + i)))));
  }
}

/** Tonal limits on Rec. 709 luma of the encoded backdrop: 0 under b0, rising to 1 at b1, falling from w0 to 0 at w1. */
export function maskLimits(mask: usize, tile: usize, stride: usize, count: i32, b0: f32, b1: f32, w0: f32, w1: f32): void {
  const zero = f32x4.splat(0);
  const one = f32x4.splat(1);
  const up = f32x4.splat(1 / max<f32>(b1 - b0, 1e-6));
  const down = f32x4.splat(1 / max<f32>(w1 - w0, 1e-6));
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = tile + i;
    const y = f32x4.add(
      f32x4.add(f32x4.mul(v128.load(p), f32x4.splat(0.2126)), f32x4.mul(v128.load(p + stride), f32x4.splat(0.7152))),
      f32x4.mul(v128.load(p + 2 * stride), f32x4.splat(0.0722)),
    );
    let m = v128.load(mask + i);
    if (b1 > 0) m = f32x4.mul(m, f32x4.pmax(zero, f32x4.pmin(one, f32x4.mul(f32x4.sub(y, f32x4.splat(b0)), up))));
    if (w0 < 1) m = f32x4.mul(m, f32x4.pmax(zero, f32x4.pmin(one, f32x4.mul(f32x4.sub(f32x4.splat(w1), y), down))));
    v128.store(mask + i, m);
  }
}
