// Events of a material drawn one by one: strokes as capsules, spots with a lobed edge. All wrap when asked to.
import { clamp1, clamp4, putSome, smooth1 } from './math';
import { line, noiseAt } from './noise';

// @ts-ignore: decorator
@inline
function fold(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/** Least whole k with from + k·n ≥ low. */
// @ts-ignore: decorator
@inline
export function leastTurn(low: i32, from: i32, n: i32): i32 {
  return <i32>Math.ceil(<f64>(low - from) / <f64>n);
}

/** Value of a capsule from the origin to (dx, dy) at four places (x, py). */
// @ts-ignore: decorator
@inline
function capsule4(x: v128, py: f32, dx: f32, dy: f32, len2: f32, ra: f32, rb: f32, va: f32, vb: f32, rough: v128): v128 {
  const t = clamp4(f32x4.mul(f32x4.add(f32x4.mul(x, f32x4.splat(dx)), f32x4.splat(py * dy)), f32x4.splat(1 / len2)));
  const ex = f32x4.sub(x, f32x4.mul(t, f32x4.splat(dx)));
  const ey = f32x4.sub(f32x4.splat(py), f32x4.mul(t, f32x4.splat(dy)));
  const half = f32x4.mul(f32x4.add(f32x4.splat(ra), f32x4.mul(t, f32x4.splat(rb - ra))), rough);
  const wide = f32x4.pmax(half, f32x4.splat(0.5));
  const cover = clamp4(
    f32x4.sub(f32x4.add(wide, f32x4.splat(0.5)), f32x4.sqrt(f32x4.add(f32x4.mul(ex, ex), f32x4.mul(ey, ey)))),
  );
  const value = f32x4.add(f32x4.splat(va), f32x4.mul(t, f32x4.splat(vb - va)));
  return f32x4.mul(f32x4.mul(value, f32x4.div(half, wide)), cover);
}

/**
 * By how much the half width of a stroke differs at four places, because its edges are broken: waves of a few half widths, others on either side. Nothing
 * where the stroke is hardly wider than a pixel. `wave` is the length of the waves in px, `seed` differs from stroke to stroke.
 */
// @ts-ignore: decorator
@inline
function broken4(x: v128, py: f32, dx: f32, dy: f32, len2: f32, start: f32, wave: f32, amount: f32, seed: i32): v128 {
  const length = sqrt<f32>(len2);
  let out = f32x4.splat(1);
  for (let lane = 0; lane < 4; lane++) {
    const px = lane == 0 ? f32x4.extract_lane(x, 0) : lane == 1 ? f32x4.extract_lane(x, 1) : lane == 2 ? f32x4.extract_lane(x, 2) : f32x4.extract_lane(x, 3);
    const along = (start + (px * dx + py * dy) / length) / wave;
    const side = px * dy - py * dx > 0 ? seed : seed + 7919;
    const k: f32 = 1 + amount * (line(along, side, 0) + <f32>0.6 * line(along * <f32>2.4, side + 1, 0));
    out = lane == 0 ? f32x4.replace_lane(out, 0, k) : lane == 1 ? f32x4.replace_lane(out, 1, k) : lane == 2 ? f32x4.replace_lane(out, 2, k) : f32x4.replace_lane(out, 3, k);
  }
  return out;
}

/** By how much the value of a stroke differs at four places, because it is a bundle of strands: streaks along it, many half widths long, of mean 1. */
// @ts-ignore: decorator
@inline
function strands4(x: v128, py: f32, dx: f32, dy: f32, len2: f32, ra: f32, rb: f32, start: f32, count: f32, amount: f32, seed: i32): v128 {
  const length = sqrt<f32>(len2);
  let out = f32x4.splat(1);
  for (let lane = 0; lane < 4; lane++) {
    const px = lane == 0 ? f32x4.extract_lane(x, 0) : lane == 1 ? f32x4.extract_lane(x, 1) : lane == 2 ? f32x4.extract_lane(x, 2) : f32x4.extract_lane(x, 3);
    const along = (px * dx + py * dy) / length;
    const half = max<f32>(0.5, ra + (rb - ra) * clamp1(along / length));
    const across = (px * dy - py * dx) / (length * half);
    const k: f32 = max<f32>(0.1, 1 + amount * noiseAt((start + along) * <f32>0.06 / max<f32>(ra, rb) + <f32>seed * <f32>3.7, across * count * <f32>0.5, seed));
    out = lane == 0 ? f32x4.replace_lane(out, 0, k) : lane == 1 ? f32x4.replace_lane(out, 1, k) : lane == 2 ? f32x4.replace_lane(out, 2, k) : f32x4.replace_lane(out, 3, k);
  }
  return out;
}

/**
 * Strokes into a plane, combined by maximum. `points` holds (x, y, half width, value, way from its beginning, wave, strands) f32 in px of a sheet, then a
 * word that is not read; a negative half width starts a new stroke (its absolute value is used). Where `wave` is over 0 the edges are broken in waves of that
 * length; where `strands` is, the stroke is a bundle of so many, which are seen where each is wider than a pixel. A line under one pixel wide keeps half a pixel and loses value instead. The plane is w × h pixels whose first is (x0, y0) of
 * the sheet; with `wrap` the sheet, W × H, is a torus.
 */
export function drawStrokes(dst: usize, w: i32, h: i32, x0: i32, y0: i32, W: i32, H: i32, points: usize, count: i32, wrap: i32): void {
  let seed = 0;
  for (let k = 1; k < count; k++) {
    const q = points + (<usize>k << 5);
    if (f32.load(q + 8) < 0) {
      seed = k;
      continue;
    }
    const p = q - 32;
    const xa = f32.load(p);
    const ya = f32.load(p + 4);
    const ra = abs<f32>(f32.load(p + 8));
    const va = f32.load(p + 12);
    const xb = f32.load(q);
    const yb = f32.load(q + 4);
    const rb = f32.load(q + 8);
    const vb = f32.load(q + 12);
    const wave = f32.load(q + 20);
    const start = f32.load(p + 16);
    const strands = f32.load(q + 24);
    const streaked: f32 = strands > 0 ? <f32>1.5 * clamp1(<f32>2.4 * max<f32>(ra, rb) / strands - <f32>0.9) : 0;
    const broken: f32 = wave > 0 ? <f32>0.2 * clamp1(max<f32>(ra, rb) - <f32>0.8) : 0;
    const r = max<f32>(max<f32>(ra, rb) * (1 + 2 * broken), 0.5) + 1;
    const dx = xb - xa;
    const dy = yb - ya;
    const left = <i32>floor<f32>(min<f32>(xa, xb) - r);
    const right = <i32>ceil<f32>(max<f32>(xa, xb) + r);
    const top = <i32>floor<f32>(min<f32>(ya, yb) - r);
    const bottom = <i32>ceil<f32>(max<f32>(ya, yb) + r);
    // Turns of the torus after which the stroke lies on the plane.
    const firstX = wrap ? leastTurn(x0, right, W) : 0;
    const firstY = wrap ? leastTurn(y0, bottom, H) : 0;
    if (left + firstX * W >= x0 + w || right + firstX * W < x0) continue;
    if (top + firstY * H >= y0 + h || bottom + firstY * H < y0) continue;
    const len2 = max<f32>(dx * dx + dy * dy, 1e-6);
    // A row crosses a slanting capsule only where it lies within r of the line.
    const slant: f32 = abs<f32>(dy) > 0.01 ? 1 / dy : 0;
    const reach: f32 = abs<f32>(slant) * r * sqrt<f32>(len2) + 1;
    for (let turnY = firstY * H; top + turnY < y0 + h; turnY += H) {
      for (let j = max<i32>(top, y0 - turnY), end = min<i32>(bottom, y0 + h - 1 - turnY); j <= end; j++) {
        const row = dst + ((<usize>(j + turnY - y0) * <usize>w) << 2);
        const py: f32 = <f32>j + 0.5 - ya;
        let from = left;
        let to = right;
        if (slant != 0) {
          const middle: f32 = xa + py * dx * slant;
          from = max<i32>(from, <i32>floor<f32>(middle - reach));
          to = min<i32>(to, <i32>ceil<f32>(middle + reach));
        }
        for (let turnX = firstX * W; from + turnX < x0 + w; turnX += W) {
          const last = min<i32>(to, x0 + w - 1 - turnX);
          for (let i = max<i32>(from, x0 - turnX); i <= last; i += 4) {
            const x = f32x4.sub(f32x4.add(f32x4.splat(<f32>i), f32x4(0.5, 1.5, 2.5, 3.5)), f32x4.splat(xa));
            const at = row + (<usize>(i + turnX - x0) << 2);
            const rough = broken > 0 ? broken4(x, py, dx, dy, len2, start, wave, broken, seed) : f32x4.splat(1);
            let value = capsule4(x, py, dx, dy, len2, ra, rb, va, vb, rough);
            if (streaked > 0 && v128.any_true(value)) value = f32x4.mul(value, strands4(x, py, dx, dy, len2, ra, rb, start, strands, streaked, seed));
            putSome(at, f32x4.pmax(v128.load(at), value), last + 1 - i);
          }
          if (!wrap) break;
        }
      }
      if (!wrap) break;
    }
  }
}

/**
 * Spots into a plane, combined by maximum. `spots` holds (x, y, r, elongation, angle cos, angle sin, lobes, value) f32 in px of a sheet; `rim` is the softness
 * of the edge in parts of r (at least one pixel), `uneven` by how much large ones differ from place to place. Plane, sheet and torus as in `drawStrokes`.
 */
export function drawSpots(
  dst: usize, w: i32, h: i32, x0: i32, y0: i32, W: i32, H: i32, spots: usize, count: i32, rim: f32, uneven: f32, seed: i32, wrap: i32,
): void {
  for (let k = 0; k < count; k++) {
    const s = spots + (<usize>k << 5);
    const x = f32.load(s);
    const y = f32.load(s + 4);
    const real = f32.load(s + 8);
    const r = max<f32>(real, 0.5);
    const long = f32.load(s + 12);
    const cos = f32.load(s + 16);
    const sin = f32.load(s + 20);
    const lob = f32.load(s + 24);
    // A spot under a pixel keeps a pixel's size and loses value by area.
    const value = f32.load(s + 28) * min<f32>(1, (real / r) * (real / r));
    // Finer lobes and patches, where they are wider than a pixel.
    const frayed: f32 = lob > 0 ? clamp1((r - 2.5) * <f32>0.3) : 0;
    const reach = r * long * (1 + lob * 0.5) + 2;
    const left = <i32>floor<f32>(x - reach);
    const right = <i32>ceil<f32>(x + reach);
    const top = <i32>floor<f32>(y - reach);
    const bottom = <i32>ceil<f32>(y + reach);
    const firstX = wrap ? leastTurn(x0, right, W) : 0;
    const firstY = wrap ? leastTurn(y0, bottom, H) : 0;
    for (let turnY = firstY * H; top + turnY < y0 + h; turnY += H) {
      for (let j = max<i32>(top, y0 - turnY), end = min<i32>(bottom, y0 + h - 1 - turnY); j <= end; j++) {
        const row = dst + ((<usize>(j + turnY - y0) * <usize>w) << 2);
        for (let turnX = firstX * W; left + turnX < x0 + w; turnX += W) {
          for (let i = max<i32>(left, x0 - turnX), last = min<i32>(right, x0 + w - 1 - turnX); i <= last; i++) {
            const dx: f32 = <f32>i + 0.5 - x;
            const dy: f32 = <f32>j + 0.5 - y;
            const u = (dx * cos + dy * sin) / long;
            const v = dy * cos - dx * sin;
            const d = sqrt<f32>(u * u + v * v);
            if (d > r * (1 + lob * 0.5) + 1.5) continue;
            let edge = r;
            if (lob > 0) {
              const nu = u / max<f32>(d, 1e-4);
              const nv = v / max<f32>(d, 1e-4);
              const wob = noiseAt(nu * 0.9 + <f32>k * 7.31, nv * 0.9, seed) + 0.5 * noiseAt(nu * 2.1 + <f32>k * 3.77, nv * 2.1, seed + 1);
              edge = r * max<f32>(0.35, 1 + lob * 0.42 * (wob + frayed * (0.3 * noiseAt(nu * 5.3 + <f32>k * 1.93, nv * 5.3, seed + 2) + 0.2 * noiseAt(nu * 12.1 + <f32>k * 5.11, nv * 12.1, seed + 3))));
            }
            const soft = max<f32>(1, r * rim);
            const cover: f32 = <f32>1 - smooth1(edge - soft * 0.5, edge + soft * 0.5, d);
            if (cover <= 0) continue;
            const at = row + (<usize>(i + turnX - x0) << 2);
            const mottled: f32 = frayed > 0 && uneven > 0 ? 1 - uneven * frayed * clamp1(0.4 + noiseAt(u * 3.1 / r + <f32>k * 2.7, v * 3.1 / r, seed + 4) + 0.7 * noiseAt(u * 0.35, v * 0.35 + <f32>k, seed + 5)) : 1;
            if (value * cover * mottled > f32.load(at)) f32.store(at, value * cover * mottled);
          }
          if (!wrap) break;
        }
      }
      if (!wrap) break;
    }
  }
}

/** How far from a pixel of `value`, at or under `level`, towards a neighbour the level lies, in px; `cap` when the neighbour is not over it either. */
// @ts-ignore: decorator
@inline
function crossing(value: f32, neighbour: f32, level: f32, cap: f32): f32 {
  return neighbour > level ? (level - value) / (neighbour - value) : cap;
}

/**
 * Distance in px from each pixel to where `src` is over `level`, by two chamfer sweeps (3-4 weights), capped at `cap`: to the nearest pixel that is, or with
 * `between` to where the level lies between two pixels, which depends less on their size.
 */
export function distance(src: usize, dst: usize, w: i32, h: i32, level: f32, cap: f32, wrap: i32, between: i32): void {
  for (let j = 0; j < h; j++) {
    const up = src + ((<usize>((wrap ? (j + h - 1) % h : max<i32>(0, j - 1)) * w)) << 2);
    const down = src + ((<usize>((wrap ? (j + 1) % h : min<i32>(h - 1, j + 1)) * w)) << 2);
    const row = src + ((<usize>(j * w)) << 2);
    for (let i = 0; i < w; i++) {
      const at = <usize>i << 2;
      const value = f32.load(row + at);
      let best: f32 = cap;
      if (value > level) best = 0;
      else if (between) {
        const l = <usize>(wrap ? (i + w - 1) % w : max<i32>(0, i - 1)) << 2;
        const r = <usize>(wrap ? (i + 1) % w : min<i32>(w - 1, i + 1)) << 2;
        best = min<f32>(best, crossing(value, f32.load(row + l), level, cap));
        best = min<f32>(best, crossing(value, f32.load(row + r), level, cap));
        best = min<f32>(best, crossing(value, f32.load(up + at), level, cap));
        best = min<f32>(best, crossing(value, f32.load(down + at), level, cap));
      }
      f32.store(dst + ((<usize>(j * w + i)) << 2), best);
    }
  }
  // With wrap, a second round carries distances across the border.
  for (let round = 0, rounds = wrap ? 2 : 1; round < rounds; round++) {
    for (let j = 0; j < h; j++) {
      for (let i = 0; i < w; i++) relax(dst, w, h, i, j, -1, wrap);
    }
    for (let j = h - 1; j >= 0; j--) {
      for (let i = w - 1; i >= 0; i--) relax(dst, w, h, i, j, 1, wrap);
    }
  }
}

// @ts-ignore: decorator
@inline
function at(dst: usize, w: i32, h: i32, i: i32, j: i32, wrap: i32): f32 {
  if (i >= 0 && j >= 0 && i < w && j < h) return f32.load(dst + ((<usize>(j * w + i)) << 2));
  if (wrap) return f32.load(dst + ((<usize>(fold(j, h) * w + fold(i, w))) << 2));
  return 1e9;
}

// @ts-ignore: decorator
@inline
function relax(dst: usize, w: i32, h: i32, i: i32, j: i32, s: i32, wrap: i32): void {
  const p = dst + ((<usize>(j * w + i)) << 2);
  let best = f32.load(p);
  best = min<f32>(best, at(dst, w, h, i + s, j, wrap) + 0.955);
  best = min<f32>(best, at(dst, w, h, i, j + s, wrap) + 0.955);
  best = min<f32>(best, at(dst, w, h, i + s, j + s, wrap) + 1.3693);
  best = min<f32>(best, at(dst, w, h, i - s, j + s, wrap) + 1.3693);
  f32.store(p, best);
}
