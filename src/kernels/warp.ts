// Sampling of the photo under a projective map: Catmull–Rom where it is shown at its own size, bilinear on a mip level where smaller.
import { decode4, encode4 } from './math';

// @ts-ignore: decorator
@inline
function pixel(p: usize): v128 {
  return f32x4.convert_i32x4_s(i32x4.extend_low_i16x8_u(i16x8.extend_low_i8x16_u(v128.load32_zero(p))));
}

// @ts-ignore: decorator
@inline
function within(i: i32, size: i32): i32 {
  return max<i32>(0, min<i32>(size - 1, i));
}

/** Catmull–Rom between b and c, four channels at once. */
// @ts-ignore: decorator
@inline
function cubic(a: v128, b: v128, c: v128, d: v128, t: f32): v128 {
  const t2: f32 = t * t;
  const t3: f32 = t2 * t;
  return f32x4.add(
    f32x4.add(f32x4.mul(a, f32x4.splat(<f32>0.5 * (2 * t2 - t - t3))), f32x4.mul(b, f32x4.splat(<f32>0.5 * (3 * t3 - 5 * t2 + 2)))),
    f32x4.add(f32x4.mul(c, f32x4.splat(<f32>0.5 * (4 * t2 + t - 3 * t3))), f32x4.mul(d, f32x4.splat(<f32>0.5 * (t3 - t2)))),
  );
}

/**
 * RGBA8 picture into a planar tile: tile pixel (i, j) reads it at ((m0·X + m1·Y + m2) / w, (m3·X + m4·Y + m5) / w), w = m6·X + m7·Y + m8,
 * X = i + .5, Y = j + .5, in its own pixels with centres at .5. Outside, the edge is extended, or with `clear` alpha falls to 0 over a pixel.
 * `mix` below 1 blends into what the tile holds (two mip levels). `smooth` reads 4 × 4 pixels by Catmull–Rom instead of 2 × 2.
 */
export function sampleProjected(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
): void {
  const norm = f32x4.splat(1.0 / 255.0);
  const pitch = <usize>w << 2;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i++) {
      const X: f64 = <f64>i + 0.5;
      const k: f64 = 1 / (m6 * X + m7 * Y + m8);
      const x: f64 = (m0 * X + m1 * Y + m2) * k;
      const y: f64 = (m3 * X + m4 * Y + m5) * k;
      // Far outside every pixel is the edge's; kept near, so that integers do not overflow.
      const sx: f64 = max<f64>(-8, min<f64>(<f64>w + 8, x)) - 0.5;
      const sy: f64 = max<f64>(-8, min<f64>(<f64>h + 8, y)) - 0.5;
      const x0 = <i32>Math.floor(sx);
      const y0 = <i32>Math.floor(sy);
      const fx = <f32>(sx - <f64>x0);
      const fy = <f32>(sy - <f64>y0);
      const xb = <usize>within(x0, w) << 2;
      const xc = <usize>within(x0 + 1, w) << 2;
      const rb = src + <usize>within(y0, h) * pitch;
      const rc = src + <usize>within(y0 + 1, h) * pitch;
      let v = f32x4.splat(0);
      if (smooth) {
        const xa = <usize>within(x0 - 1, w) << 2;
        const xd = <usize>within(x0 + 2, w) << 2;
        const ra = src + <usize>within(y0 - 1, h) * pitch;
        const rd = src + <usize>within(y0 + 2, h) * pitch;
        v = cubic(
          cubic(pixel(ra + xa), pixel(ra + xb), pixel(ra + xc), pixel(ra + xd), fx),
          cubic(pixel(rb + xa), pixel(rb + xb), pixel(rb + xc), pixel(rb + xd), fx),
          cubic(pixel(rc + xa), pixel(rc + xb), pixel(rc + xc), pixel(rc + xd), fx),
          cubic(pixel(rd + xa), pixel(rd + xb), pixel(rd + xc), pixel(rd + xd), fx),
          fy,
        );
        v = f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(1), f32x4.mul(v, norm)));
      } else {
        const across = f32x4.splat(fx);
        const b = pixel(rb + xb);
        const c = pixel(rc + xb);
        const top = f32x4.add(b, f32x4.mul(across, f32x4.sub(pixel(rb + xc), b)));
        const bottom = f32x4.add(c, f32x4.mul(across, f32x4.sub(pixel(rc + xc), c)));
        v = f32x4.mul(f32x4.add(top, f32x4.mul(f32x4.splat(fy), f32x4.sub(bottom, top))), norm);
      }
      let alpha: f32 = f32x4.extract_lane(v, 3);
      if (clear) {
        const inside: f64 = min<f64>(min<f64>(x, <f64>w - x), min<f64>(y, <f64>h - y)) + 0.5;
        alpha *= <f32>max<f64>(0, min<f64>(1, inside));
      }
      const at = dst + ((<usize>(j * tw + i)) << 2);
      put(at, f32x4.extract_lane(v, 0), mix);
      put(at + stride, f32x4.extract_lane(v, 1), mix);
      put(at + 2 * stride, f32x4.extract_lane(v, 2), mix);
      put(at + 3 * stride, alpha, mix);
    }
  }
}

// @ts-ignore: decorator
@inline
function put(at: usize, v: f32, mix: f32): void {
  f32.store(at, mix < 1 ? f32.load(at) * (1 - mix) + v * mix : v);
}

/** One channel of an RGBA8 picture at (x, y), pixel centres at .5, edge extended: bilinear, or Catmull–Rom when `smooth`. 0..255. */
function channelAt(src: usize, w: i32, h: i32, x: f64, y: f64, channel: i32, smooth: i32): f32 {
  const sx: f64 = max<f64>(-8, min<f64>(<f64>w + 8, x)) - 0.5;
  const sy: f64 = max<f64>(-8, min<f64>(<f64>h + 8, y)) - 0.5;
  const x0 = <i32>Math.floor(sx);
  const y0 = <i32>Math.floor(sy);
  const fx = <f32>(sx - <f64>x0);
  const fy = <f32>(sy - <f64>y0);
  const c = src + <usize>channel;
  if (!smooth) {
    const xa = <usize>within(x0, w) << 2;
    const xb = <usize>within(x0 + 1, w) << 2;
    const ra = c + (<usize>(within(y0, h) * w) << 2);
    const rb = c + (<usize>(within(y0 + 1, h) * w) << 2);
    const top: f32 = <f32>load<u8>(ra + xa) + fx * <f32>(<i32>load<u8>(ra + xb) - <i32>load<u8>(ra + xa));
    const bottom: f32 = <f32>load<u8>(rb + xa) + fx * <f32>(<i32>load<u8>(rb + xb) - <i32>load<u8>(rb + xa));
    return top + fy * (bottom - top);
  }
  const xa = <usize>within(x0 - 1, w) << 2;
  const xb = <usize>within(x0, w) << 2;
  const xc = <usize>within(x0 + 1, w) << 2;
  const xd = <usize>within(x0 + 2, w) << 2;
  // The four rows are the lanes, so that one cubic across serves them all.
  const ra = c + (<usize>(within(y0 - 1, h) * w) << 2);
  const rb = c + (<usize>(within(y0, h) * w) << 2);
  const rc = c + (<usize>(within(y0 + 1, h) * w) << 2);
  const rd = c + (<usize>(within(y0 + 2, h) * w) << 2);
  const v = cubic(column(ra, rb, rc, rd, xa), column(ra, rb, rc, rd, xb), column(ra, rb, rc, rd, xc), column(ra, rb, rc, rd, xd), fx);
  const t2: f32 = fy * fy;
  const t3: f32 = t2 * fy;
  const value: f32 =
    f32x4.extract_lane(v, 0) * (<f32>0.5 * (2 * t2 - fy - t3)) +
    f32x4.extract_lane(v, 1) * (<f32>0.5 * (3 * t3 - 5 * t2 + 2)) +
    f32x4.extract_lane(v, 2) * (<f32>0.5 * (4 * t2 + fy - 3 * t3)) +
    f32x4.extract_lane(v, 3) * (<f32>0.5 * (t3 - t2));
  return max<f32>(0, min<f32>(255, value));
}

// @ts-ignore: decorator
@inline
function column(a: usize, b: usize, c: usize, d: usize, at: usize): v128 {
  return f32x4(<f32>load<u8>(a + at), <f32>load<u8>(b + at), <f32>load<u8>(c + at), <f32>load<u8>(d + at));
}

/**
 * As `sampleProjected`, through a lens besides: with p `zoom` times the place under the map, from the centre (cx, cy), and r its distance in
 * units of `radius`, the picture is read at centre + p·(1 + k1·r² + k2·r⁴), red and blue at (1 + `red`) and (1 + `blue`) times as far
 * (Brown 1966, Conrady 1919, radial terms). Light is multiplied by 1 + f1·s² + f2·s⁴ in linear light, s the distance read at.
 */
export function sampleLens(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
  cx: f64, cy: f64, radius: f64, zoom: f64, k1: f64, k2: f64, red: f64, blue: f64, f1: f32, f2: f32,
): void {
  const norm: f32 = 1.0 / 255.0;
  const back: f64 = 1 / radius;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    for (let i = 0; i < tw; i++) {
      const X: f64 = <f64>i + 0.5;
      const k: f64 = 1 / (m6 * X + m7 * Y + m8);
      const px: f64 = ((m0 * X + m1 * Y + m2) * k - cx) * zoom;
      const py: f64 = ((m3 * X + m4 * Y + m5) * k - cy) * zoom;
      const rr: f64 = (px * px + py * py) * back * back;
      const bend: f64 = 1 + rr * (k1 + rr * k2);
      const dx: f64 = px * bend;
      const dy: f64 = py * bend;
      const x: f64 = cx + dx;
      const y: f64 = cy + dy;
      let alpha = channelAt(src, w, h, x, y, 3, 0) * norm;
      if (clear) {
        const inside: f64 = min<f64>(min<f64>(x, <f64>w - x), min<f64>(y, <f64>h - y)) + 0.5;
        alpha *= <f32>max<f64>(0, min<f64>(1, inside));
      }
      let v = f32x4(
        channelAt(src, w, h, x + dx * red, y + dy * red, 0, smooth) * norm,
        channelAt(src, w, h, x, y, 1, smooth) * norm,
        channelAt(src, w, h, x + dx * blue, y + dy * blue, 2, smooth) * norm,
        0,
      );
      if (f1 != 0 || f2 != 0) {
        const s = <f32>((dx * dx + dy * dy) * back * back);
        v = encode4(f32x4.mul(decode4(v), f32x4.splat(max<f32>(0, <f32>1 + s * (f1 + s * f2)))));
      }
      const at = dst + ((<usize>(j * tw + i)) << 2);
      put(at, f32x4.extract_lane(v, 0), mix);
      put(at + stride, f32x4.extract_lane(v, 1), mix);
      put(at + 2 * stride, f32x4.extract_lane(v, 2), mix);
      put(at + 3 * stride, alpha, mix);
    }
  }
}
