// Sampling of the photo under a projective map: Catmull–Rom where it is shown at its own size, bilinear on a mip level where smaller.
import { cubicAt, pixel, put, within } from './cubic';
import { allInside, fourTogether, tapTable } from './taps';

/**
 * RGBA8 picture into a planar tile: tile pixel (i, j) reads it at ((m0·X + m1·Y + m2) / w, (m3·X + m4·Y + m5) / w), w = m6·X + m7·Y + m8,
 * X = i + .5, Y = j + .5, in its own pixels with centres at .5. Outside, the edge is extended, or with `clear` alpha falls to 0 over a pixel.
 * `mix` below 1 blends into what the tile holds (two mip levels). `smooth` reads 4 × 4 pixels by Catmull–Rom instead of 2 × 2.
 * `taps` is 16400 bytes of scratch memory.
 */
export function sampleProjected(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, tw: i32, th: i32,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32, taps: usize,
): void {
  tapTable(taps, smooth);
  const pitch = <usize>w << 2;
  for (let j = 0; j < th; j++) {
    const Y: f64 = <f64>j + 0.5;
    // Whole pixels near the row's middle: from there places are small numbers, which f32 holds finely.
    const half: f64 = <f64>(tw >> 1);
    const k: f64 = 1 / (m6 * half + m7 * Y + m8);
    const ox = Math.floor((m0 * half + m1 * Y + m2) * k);
    const oy = Math.floor((m3 * half + m4 * Y + m5) * k);
    let i = 0;
    if (!clear)
      for (; i + 4 <= tw; i += 4) {
        const X = f32x4.add(f32x4.splat(<f32>i + 0.5), f32x4(0, 1, 2, 3));
        const below = f32x4.add(f32x4.mul(X, f32x4.splat(<f32>m6)), f32x4.splat(<f32>(m7 * Y + m8)));
        const dx = f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m0 - ox * m6))), f32x4.splat(<f32>((m1 - ox * m7) * Y + m2 - ox * m8))), below);
        const dy = f32x4.div(f32x4.add(f32x4.mul(X, f32x4.splat(<f32>(m3 - oy * m6))), f32x4.splat(<f32>((m4 - oy * m7) * Y + m5 - oy * m8))), below);
        const x = f32x4.add(f32x4.splat(<f32>ox), dx);
        const y = f32x4.add(f32x4.splat(<f32>oy), dy);
        const at = dst + ((<usize>(j * tw + i)) << 2);
        if (allInside(x, y, w, h) && fourTogether(src, pitch, at, stride, x, y, taps, mix)) continue;
        for (let n = 0; n < 4; n++) one(src, w, h, dst, stride, j * tw + i + n, <f64>(i + n) + 0.5, Y, m0, m1, m2, m3, m4, m5, m6, m7, m8, smooth, clear, mix);
      }
    for (; i < tw; i++) one(src, w, h, dst, stride, j * tw + i, <f64>i + 0.5, Y, m0, m1, m2, m3, m4, m5, m6, m7, m8, smooth, clear, mix);
  }
}

/** One pixel of `sampleProjected`, wherever it lies. */
function one(
  src: usize, w: i32, h: i32, dst: usize, stride: usize, index: i32, X: f64, Y: f64,
  m0: f64, m1: f64, m2: f64, m3: f64, m4: f64, m5: f64, m6: f64, m7: f64, m8: f64, smooth: i32, clear: i32, mix: f32,
): void {
  const norm = f32x4.splat(1.0 / 255.0);
  const pitch = <usize>w << 2;
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
    v = f32x4.mul(cubicAt(src, w, h, x0, y0, fx, fy), norm);
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
  const at = dst + (<usize>index << 2);
  put(at, f32x4.extract_lane(v, 0), mix);
  put(at + stride, f32x4.extract_lane(v, 1), mix);
  put(at + 2 * stride, f32x4.extract_lane(v, 2), mix);
  put(at + 3 * stride, alpha, mix);
}
