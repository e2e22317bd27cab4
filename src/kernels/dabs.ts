// Dabs of a brush or a knife: straight sides, ragged ends, bristles along them, stopped at strong borders.
import { clamp1 } from './math';

/** Values of one dab in the list: middle, direction, half its length and width (pixels), colour, seed. */
const VALUES = 10;
/** Places across a dab at which its bristles are known. */
const LANES = 64;

// @ts-ignore: decorator
@inline
function chance(k: i32, seed: i32): f32 {
  let h = (k * 0x27d4eb2d) ^ (seed * 0x2c1b3c6d);
  h = (h ^ (h >>> 15)) * 0x2c1b3c6d;
  h = (h ^ (h >>> 12)) * 0x297a2d39;
  h ^= h >>> 15;
  return <f32>(h & 0xffff) * <f32>(1.0 / 65535.0);
}

/** Smooth noise along a line, 0..1. */
// @ts-ignore: decorator
@inline
function bristle(x: f32, seed: i32): f32 {
  const i = <i32>floor<f32>(x);
  const f: f32 = x - <f32>i;
  const t: f32 = f * f * (3 - 2 * f);
  const a = chance(i, seed);
  return a + (chance(i + 1, seed) - a) * t;
}

/**
 * Draws dabs one over another on the colours of a tile and on a plane of height. `base` holds what the picture is like there (three planes): where it
 * differs from a dab's colour by more than about 0.2 the dab stops. `bristles` is how many of them a dab has across, `ragged` how far its ends are torn
 * (part of its length), `ridge` how much of its height lies at one side and at its end, as of a knife. `work` has room for 2 · 65 values.
 */
export function drawDabs(
  tile: usize, stride: usize, w: i32, h: i32, height: usize, base: usize, baseStride: usize, list: usize, n: i32, bristles: f32, ragged: f32, ridge: f32,
  work: usize,
): void {
  for (let k = 0; k < n; k++) {
    const d = list + (<usize>(k * VALUES) << 2);
    const cx: f32 = f32.load(d), cy: f32 = f32.load(d, 4);
    const tx: f32 = f32.load(d, 8), ty: f32 = f32.load(d, 12);
    const half: f32 = f32.load(d, 16), wide: f32 = f32.load(d, 20);
    const red: f32 = f32.load(d, 24), green: f32 = f32.load(d, 28), blue: f32 = f32.load(d, 32);
    const seed = <i32>f32.load(d, 36);
    const ex: f32 = abs<f32>(tx) * half + abs<f32>(ty) * wide + 1;
    const ey: f32 = abs<f32>(ty) * half + abs<f32>(tx) * wide + 1;
    const x0 = max<i32>(0, <i32>floor<f32>(cx - ex)), x1 = min<i32>(w - 1, <i32>ceil<f32>(cx + ex));
    const y0 = max<i32>(0, <i32>floor<f32>(cy - ey)), y1 = min<i32>(h - 1, <i32>ceil<f32>(cy + ey));
    const il: f32 = 1 / half, iw: f32 = 1 / wide;
    // What its bristles are like across, once for the dab: how thick, and where each ends at the other side.
    for (let b = 0; b <= LANES; b++) {
      const lane: f32 = (<f32>b / <f32>LANES) * bristles;
      f32.store(work + (<usize>b << 2), bristle(lane, seed));
      f32.store(work + (<usize>(b + LANES + 1) << 2), bristle(lane + 31.7, seed));
    }
    for (let y = y0; y <= y1; y++) {
      const py: f32 = <f32>y - cy;
      // The part of the row between its two sides and its two ends.
      let from = <f32>x0 - cx, to = <f32>x1 - cx;
      if (abs<f32>(ty) > 1e-4) {
        const a: f32 = (py * tx - wide - 1) / ty, b: f32 = (py * tx + wide + 1) / ty;
        from = max<f32>(from, min<f32>(a, b));
        to = min<f32>(to, max<f32>(a, b));
      } else if (abs<f32>(py) > wide + 1) continue;
      if (abs<f32>(tx) > 1e-4) {
        const a: f32 = (-half - 1 - py * ty) / tx, b: f32 = (half + 1 - py * ty) / tx;
        from = max<f32>(from, min<f32>(a, b));
        to = min<f32>(to, max<f32>(a, b));
      } else if (abs<f32>(py) > half + 1) continue;
      for (let x = <i32>ceil<f32>(from + cx), last = <i32>floor<f32>(to + cx); x <= last; x++) {
        const px: f32 = <f32>x - cx;
        const along: f32 = (px * tx + py * ty) * il;
        const across: f32 = (py * tx - px * ty) * iw;
        const lane: f32 = max<f32>(0, min<f32>(<f32>LANES - 0.01, (across + 1) * 0.5 * <f32>LANES));
        const strip = <i32>lane;
        const between: f32 = lane - <f32>strip;
        const shelf = work + (<usize>strip << 2);
        const strand: f32 = f32.load(shelf) + (f32.load(shelf, 4) - f32.load(shelf)) * between;
        // Each bristle begins and ends where it likes.
        const tail: f32 = along > 0 ? strand : f32.load(shelf, 4 * (LANES + 1));
        const end: f32 = 1 - ragged * tail;
        let alpha: f32 = clamp1((1 - abs<f32>(across)) * wide + 0.5) * clamp1((end - abs<f32>(along)) * half * 0.5 + 0.5);
        if (alpha <= 0) continue;
        const at = <usize>(y * w + x) << 2;
        const p = base + at;
        const dr: f32 = f32.load(p) - red, dg: f32 = f32.load(p + baseStride) - green, db: f32 = f32.load(p + 2 * baseStride) - blue;
        alpha *= clamp1(2 - 7 * sqrt<f32>(dr * dr + dg * dg + db * db));
        if (alpha <= 0) continue;
        // Paint thins out along the dab, and lies a little lighter or darker under each bristle.
        const shade: f32 = (strand - 0.5) * 0.05;
        const q = tile + at;
        f32.store(q, f32.load(q) + (clamp1(red + shade) - f32.load(q)) * alpha);
        f32.store(q + stride, f32.load(q + stride) + (clamp1(green + shade) - f32.load(q + stride)) * alpha);
        f32.store(q + 2 * stride, f32.load(q + 2 * stride) + (clamp1(blue + shade) - f32.load(q + 2 * stride)) * alpha);
        const side: f32 = ridge * max<f32>(0, 1 - abs<f32>(across - 0.85) * 5) + ridge * 0.8 * max<f32>(0, 1 - abs<f32>(along - 0.9) * 9);
        const top: f32 = (1 - ridge) * (0.35 + 0.65 * strand) + ridge * 0.3 + side;
        f32.store(height + at, f32.load(height + at) + (top - f32.load(height + at)) * alpha);
      }
    }
  }
}

/** Light on paint: colours by a relief about a half, c + (2r − 1)·amount·(c − c²)·2, which leaves black and white alone. */
export function embossed(tile: usize, stride: usize, count: i32, relief: usize, amount: f32): void {
  const k = f32x4.splat(2 * amount);
  const half = f32x4.splat(0.5);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const r = f32x4.mul(k, f32x4.sub(v128.load(relief + i), half));
    for (let c: usize = 0; c < 3; c++) {
      const at = tile + c * stride + i;
      const v = v128.load(at);
      const room = f32x4.add(f32x4.splat(0.03), f32x4.mul(f32x4.splat(2), f32x4.sub(v, f32x4.mul(v, v))));
      v128.store(at, f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), f32x4.add(v, f32x4.mul(r, room)))));
    }
  }
}
