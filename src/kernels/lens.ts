// Sampling of the photo through a lens, and the light that the lens took from its corners.
import { added, cubicAt, cubicOne, four, linearAt, put, shares } from './cubic';
import { clamp4, putSome } from './math';
import { allInside, apart, firstOf, fourTogether, lane0, lane1, lane2, lane3, putFour, rowOf, solid, tapTable } from './taps';

/**
 * As `sampleProjected`, through a lens besides: with p `zoom` times the place under the map, from the centre (cx, cy), and r its distance in
 * units of `radius`, the picture is read at centre + p·(1 + k1·r² + k2·r⁴), red and blue at (1 + `red`) and (1 + `blue`) times as far
 * (Brown 1966, Conrady 1919, radial terms). Places are known to a few thousandths of a pixel (f32). `taps` is 16400 bytes of scratch memory.
 */
export function sampleLens(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
  cx: f64, cy: f64, radius: f64, zoom: f64, k1: f64, k2: f64, red: f64, blue: f64, taps: usize,
): void {
  tapTable(taps, smooth);
  const pitch = <usize>w << 2;
  const scale = f32x4.splat(<f32>(zoom / radius));
  const size = f32x4.splat(<f32>radius);
  const split = red != 0 || blue != 0;
  const kr: f32 = <f32>red;
  const kb: f32 = <f32>blue;
  const centreX = <f32>cx;
  const centreY = <f32>cy;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i += 4) {
      const X = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3));
      const below = f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m6)), f32x4.splat(<f32>(m7 * Y + m8)));
      // From the centre already in the numerator: the difference of two large numbers would be coarse.
      const ux = f32x4.mul(
        f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m0 - cx * m6))), f32x4.splat(<f32>((m1 - cx * m7) * Y + m2 - cx * m8))), below),
        scale,
      );
      const uy = f32x4.mul(
        f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m3 - cy * m6))), f32x4.splat(<f32>((m4 - cy * m7) * Y + m5 - cy * m8))), below),
        scale,
      );
      const rr = f32x4.add(f32x4.mul(ux, ux), f32x4.mul(uy, uy));
      const bend = f32x4.mul(
        f32x4.add(f32x4.splat(1), f32x4.mul(rr, f32x4.add(f32x4.splat(<f32>k1), f32x4.mul(rr, f32x4.splat(<f32>k2))))),
        size,
      );
      const dx4 = f32x4.mul(ux, bend);
      const dy4 = f32x4.mul(uy, bend);
      const at = dst + ((<usize>(j * tw + i)) << 2);
      const n = tw - i;
      if (n > 3 && !clear) {
        const x = f32x4.add(f32x4.splat(centreX), dx4);
        const y = f32x4.add(f32x4.splat(centreY), dy4);
        const xr = f32x4.add(x, f32x4.mul(dx4, f32x4.splat(kr)));
        const yr = f32x4.add(y, f32x4.mul(dy4, f32x4.splat(kr)));
        const xb = f32x4.add(x, f32x4.mul(dx4, f32x4.splat(kb)));
        const yb = f32x4.add(y, f32x4.mul(dy4, f32x4.splat(kb)));
        if (allInside(x, y, w, h) && (!split || (allInside(xr, yr, w, h) && allInside(xb, yb, w, h)))) {
          if (split ? fourApart(src, pitch, at, stride, x, y, xr, yr, xb, yb, taps, mix) : fourTogether(src, pitch, at, stride, x, y, taps, mix)) continue;
        }
      }
      lensPixel(src, w, h, at, stride, centreX, centreY, f32x4.extract_lane(dx4, 0), f32x4.extract_lane(dy4, 0), kr, kb, split, smooth, clear, mix);
      if (n > 1) lensPixel(src, w, h, at + 4, stride, centreX, centreY, f32x4.extract_lane(dx4, 1), f32x4.extract_lane(dy4, 1), kr, kb, split, smooth, clear, mix);
      if (n > 2) lensPixel(src, w, h, at + 8, stride, centreX, centreY, f32x4.extract_lane(dx4, 2), f32x4.extract_lane(dy4, 2), kr, kb, split, smooth, clear, mix);
      if (n > 3) lensPixel(src, w, h, at + 12, stride, centreX, centreY, f32x4.extract_lane(dx4, 3), f32x4.extract_lane(dy4, 3), kr, kb, split, smooth, clear, mix);
    }
  }
}

/** Four pixels read channel by channel; false, and nothing written, where some are not opaque. */
// @ts-ignore: decorator
@inline
function fourApart(
  src: usize, pitch: usize, at: usize, stride: usize, x: v128, y: v128, xr: v128, yr: v128, xb: v128, yb: v128, taps: usize, mix: f32,
): bool {
  const pr = firstOf(xr, yr, src, <i32>pitch);
  const pg = firstOf(x, y, src, <i32>pitch);
  const pb = firstOf(xb, yb, src, <i32>pitch);
  const g0 = <usize>i32x4.extract_lane(pg, 0);
  const g1 = <usize>i32x4.extract_lane(pg, 1);
  const g2 = <usize>i32x4.extract_lane(pg, 2);
  const g3 = <usize>i32x4.extract_lane(pg, 3);
  const opaque = i32x4.splat(0xff000000);
  const all = v128.and(v128.and(solid(g0, pitch), solid(g1, pitch)), v128.and(solid(g2, pitch), solid(g3, pitch)));
  if (!i32x4.all_true(i32x4.eq(v128.and(all, opaque), opaque))) return false;
  const base = i32x4.splat(<i32>taps);
  const ar = i32x4.add(base, rowOf(xr));
  const ag = i32x4.add(base, rowOf(x));
  const ab = i32x4.add(base, rowOf(xb));
  const dr = i32x4.add(base, rowOf(yr));
  const dg = i32x4.add(base, rowOf(y));
  const db = i32x4.add(base, rowOf(yb));
  putFour(
    at, stride,
    apart(lane0(pr), g0, lane0(pb), pitch, lane0(ar), lane0(ag), lane0(ab), lane0(dr), lane0(dg), lane0(db)),
    apart(lane1(pr), g1, lane1(pb), pitch, lane1(ar), lane1(ag), lane1(ab), lane1(dr), lane1(dg), lane1(db)),
    apart(lane2(pr), g2, lane2(pb), pitch, lane2(ar), lane2(ag), lane2(ab), lane2(dr), lane2(dg), lane2(db)),
    apart(lane3(pr), g3, lane3(pb), pitch, lane3(ar), lane3(ag), lane3(ab), lane3(dr), lane3(dg), lane3(db)),
    mix,
  );
  return true;
}

/** One pixel of `sampleLens`, read at (dx, dy) from the centre. */
function lensPixel(
  src: usize, w: i32, h: i32, at: usize, stride: usize, cx: f32, cy: f32, dx: f32, dy: f32, kr: f32, kb: f32,
  split: bool, smooth: i32, clear: i32, mix: f32,
): void {
  const norm: f32 = 1.0 / 255.0;
  // Far outside every pixel is the edge's; kept near, so that integers do not overflow.
  const limits = f32x4.pmax(f32x4.splat(-16), f32x4.pmin(f32x4(<f32>w + 16, <f32>h + 16, 0, 0), f32x4(cx + dx, cy + dy, 0, 0)));
  const x: f32 = f32x4.extract_lane(limits, 0);
  const y: f32 = f32x4.extract_lane(limits, 1);
  const x0 = <i32>floor<f32>(x - 0.5);
  const y0 = <i32>floor<f32>(y - 0.5);
  const fx: f32 = x - 0.5 - <f32>x0;
  const fy: f32 = y - 0.5 - <f32>y0;
  let red: f32 = 0;
  let green: f32 = 0;
  let blue: f32 = 0;
  let alpha: f32 = 1;
  if (smooth && !split) {
    const v = cubicAt(src, w, h, x0, y0, fx, fy);
    red = f32x4.extract_lane(v, 0);
    green = f32x4.extract_lane(v, 1);
    blue = f32x4.extract_lane(v, 2);
    alpha = f32x4.extract_lane(v, 3) * norm;
  } else {
    const around = four(src, w, h, x0, y0);
    const share = shares(fx, fy);
    const opaque = i32x4.splat(0xff000000);
    if (!i32x4.all_true(i32x4.eq(v128.and(around, opaque), opaque))) alpha = added(f32x4.mul(f32x4.convert_i32x4_s(i32x4.shr_u(around, 24)), share)) * norm;
    const bytes = i32x4.splat(255);
    if (smooth) {
      red = cubicOne(src, w, h, x + dx * kr, y + dy * kr, 0);
      green = cubicOne(src, w, h, x, y, 1);
      blue = cubicOne(src, w, h, x + dx * kb, y + dy * kb, 2);
    } else {
      green = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(around, 8), bytes)), share));
      if (split) {
        red = linearAt(src, w, h, x + dx * kr, y + dy * kr, 0);
        blue = linearAt(src, w, h, x + dx * kb, y + dy * kb, 2);
      } else {
        red = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(around, bytes)), share));
        blue = added(f32x4.mul(f32x4.convert_i32x4_s(v128.and(i32x4.shr_u(around, 16), bytes)), share));
      }
    }
  }
  if (clear) {
    const inside: f32 = min<f32>(min<f32>(cx + dx, <f32>w - cx - dx), min<f32>(cy + dy, <f32>h - cy - dy)) + 0.5;
    alpha *= max<f32>(0, min<f32>(1, inside));
  }
  put(at, red * norm, mix);
  put(at + stride, green * norm, mix);
  put(at + 2 * stride, blue * norm, mix);
  put(at + 3 * stride, alpha, mix);
}

/**
 * Light in the corners: values of a tile times 1 + f1·s² + f2·s⁴ in linear light, s the distance at which `sampleLens` reads a pixel. The
 * factor is found for every fourth pixel and runs straight in between.
 */
export function cornerLight(
  tile: usize, stride: usize, tw: i32, th: i32, m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64,
  cx: f64, cy: f64, radius: f64, zoom: f64, k1: f64, k2: f64, f1: f32, f2: f32,
): void {
  const one = f32x4.splat(1);
  const scale = f32x4.splat(<f32>(zoom / radius));
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    const row = tile + (<usize>(j * tw) << 2);
    for (let i = 0; i < tw; i += 12) {
      const X = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 4, 8, 12));
      const w = f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m6)), f32x4.splat(<f32>(m7 * Y + m8)));
      const px = f32x4.sub(f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m0)), f32x4.splat(<f32>(m1 * Y + m2))), w), f32x4.splat(<f32>cx));
      const py = f32x4.sub(f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m3)), f32x4.splat(<f32>(m4 * Y + m5))), w), f32x4.splat(<f32>cy));
      const ux = f32x4.mul(px, scale);
      const uy = f32x4.mul(py, scale);
      const rr = f32x4.add(f32x4.mul(ux, ux), f32x4.mul(uy, uy));
      const bend = f32x4.add(one, f32x4.mul(rr, f32x4.add(f32x4.splat(<f32>k1), f32x4.mul(rr, f32x4.splat(<f32>k2)))));
      const s = f32x4.mul(rr, f32x4.mul(bend, bend));
      const gain = f32x4.pmax(f32x4.splat(0), f32x4.add(one, f32x4.mul(s, f32x4.add(f32x4.splat(f1), f32x4.mul(s, f32x4.splat(f2))))));
      // In the power part of the transfer function encode(g·decode(v)) is g^(1/2.4)·(v + a) − a, in its straight part g·v; the two meet where
      // one becomes the larger. (IEC 61966-2-1, a = 0.055.)
      // The root of half the gain as `encode4` fits it: to 2^(1/2.4) / 1.055 times so much.
      const half = f32x4.sqrt(f32x4.mul(gain, f32x4.splat(0.5)));
      const quarter = f32x4.sqrt(half);
      const eighth = f32x4.sqrt(quarter);
      let power = f32x4.add(f32x4.mul(gain, f32x4.splat(0.5 * 0.02737408)), f32x4.splat(0.055 - 0.0314253));
      power = f32x4.add(power, f32x4.mul(f32x4.mul(half, quarter), f32x4.splat(-0.15604499)));
      power = f32x4.add(power, f32x4.mul(half, f32x4.splat(0.87015044)));
      power = f32x4.add(power, f32x4.mul(quarter, f32x4.splat(0.46372115)));
      power = f32x4.mul(f32x4.add(power, f32x4.mul(eighth, f32x4.splat(-0.17377221))), f32x4.splat(1.3348398 / 1.055));
      lit(row, stride, i, tw, i32x4.shuffle(gain, gain, 0, 0, 0, 0), i32x4.shuffle(gain, gain, 1, 1, 1, 1), i32x4.shuffle(power, power, 0, 0, 0, 0), i32x4.shuffle(power, power, 1, 1, 1, 1));
      lit(row, stride, i + 4, tw, i32x4.shuffle(gain, gain, 1, 1, 1, 1), i32x4.shuffle(gain, gain, 2, 2, 2, 2), i32x4.shuffle(power, power, 1, 1, 1, 1), i32x4.shuffle(power, power, 2, 2, 2, 2));
      lit(row, stride, i + 8, tw, i32x4.shuffle(gain, gain, 2, 2, 2, 2), i32x4.shuffle(gain, gain, 3, 3, 3, 3), i32x4.shuffle(power, power, 2, 2, 2, 2), i32x4.shuffle(power, power, 3, 3, 3, 3));
    }
  }
}

/** Four pixels of `cornerLight`, with the gain and its power at the first and at the one after the last. */
// @ts-ignore: decorator
@inline
function lit(row: usize, stride: usize, i: i32, tw: i32, gain0: v128, gain1: v128, power0: v128, power1: v128): void {
  if (i >= tw) return;
  const quarters = f32x4(0, 0.25, 0.5, 0.75);
  const gain = f32x4.add(gain0, f32x4.mul(f32x4.sub(gain1, gain0), quarters));
  const power = f32x4.add(power0, f32x4.mul(f32x4.sub(power1, power0), quarters));
  const brighter = f32x4.ge(gain, f32x4.splat(1));
  const foot = f32x4.splat(0.055);
  for (let c: usize = 0; c < 3; c++) {
    const q = row + (<usize>i << 2) + c * stride;
    const v = v128.load(q);
    const straight = f32x4.mul(v, gain);
    const curved = f32x4.sub(f32x4.mul(power, f32x4.add(v, foot)), foot);
    const value = clamp4(v128.bitselect(f32x4.pmin(straight, curved), f32x4.pmax(straight, curved), brighter));
    if (i + 4 <= tw) v128.store(q, value);
    else putSome(q, value, tw - i);
  }
}
