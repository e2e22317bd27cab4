// The last step of a material: from its planes to a picture.
import { modulo } from './lattice';
import { encode4, hash, hash4 } from './math';

/** A number of −65535..65535 with a triangular distribution for four keys. */
// @ts-ignore: decorator
@inline
function triangle(k: v128, seed: i32): v128 {
  const h = hash4(k, seed);
  return f32x4.convert_i32x4_s(i32x4.sub(i32x4.add(v128.and(h, i32x4.splat(0xffff)), i32x4.shr_u(h, 16)), i32x4.splat(65535)));
}

// @ts-ignore: decorator
@inline
function level(v: v128, extra: v128): v128 {
  return i32x4.trunc_sat_f32x4_s(f32x4.pmax(f32x4.splat(0), f32x4.pmin(f32x4.splat(255), f32x4.add(f32x4.mul(v, f32x4.splat(255)), extra))));
}

/**
 * Last step of every material: Lab (D65 white) to linear sRGB, times light (1 + (lit − 1)·c)·(1 − m + m·ao)·gain, encoded, a little
 * scanner noise, RGBA8 with dither. When `emit` is set, L, a, b already hold encoded red, green and blue. `first` is the number of the first pixel in
 * its sheet, to which noise and dither belong. Where `scan` is not 0, it is a plane that holds the noise, as from `scanGrain`; it may lie at `dst`.
 */
export function develop(
  L: usize, A: usize, B: usize, lit: usize, ao: usize, c: f32, m: f32, gain: f32, noise: f32, seed: i32, emit: i32, scan: usize, dst: usize, count: i32, first: i32,
): void {
  const k16 = f32x4.splat(16.0 / 116.0);
  const delta = f32x4.splat(6.0 / 29.0);
  const slope = f32x4.splat(3.0 * 36.0 / 841.0);
  for (let i = 0; i < count; i += 4) {
    const at = <usize>i << 2;
    let r = v128.load(L + at);
    let g = v128.load(A + at);
    let b = v128.load(B + at);
    if (!emit) {
      const fy = f32x4.mul(f32x4.add(r, f32x4.splat(16)), f32x4.splat(1.0 / 116.0));
      const fx = f32x4.add(fy, f32x4.mul(g, f32x4.splat(1.0 / 500.0)));
      const fz = f32x4.sub(fy, f32x4.mul(b, f32x4.splat(1.0 / 200.0)));
      const x = f32x4.mul(v128.bitselect(f32x4.mul(f32x4.mul(fx, fx), fx), f32x4.mul(slope, f32x4.sub(fx, k16)), f32x4.gt(fx, delta)), f32x4.splat(0.95047));
      const y = v128.bitselect(f32x4.mul(f32x4.mul(fy, fy), fy), f32x4.mul(slope, f32x4.sub(fy, k16)), f32x4.gt(fy, delta));
      const z = f32x4.mul(v128.bitselect(f32x4.mul(f32x4.mul(fz, fz), fz), f32x4.mul(slope, f32x4.sub(fz, k16)), f32x4.gt(fz, delta)), f32x4.splat(1.08883));
      const shade = f32x4.mul(
        f32x4.mul(
          f32x4.add(f32x4.splat(1), f32x4.mul(f32x4.sub(v128.load(lit + at), f32x4.splat(1)), f32x4.splat(c))),
          f32x4.add(f32x4.splat(1 - m), f32x4.mul(v128.load(ao + at), f32x4.splat(m))),
        ),
        f32x4.splat(gain),
      );
      r = encode4(f32x4.mul(shade, f32x4.add(f32x4.add(f32x4.mul(x, f32x4.splat(3.2404542)), f32x4.mul(y, f32x4.splat(-1.5371385))), f32x4.mul(z, f32x4.splat(-0.4985314)))));
      g = encode4(f32x4.mul(shade, f32x4.add(f32x4.add(f32x4.mul(x, f32x4.splat(-0.969266)), f32x4.mul(y, f32x4.splat(1.8760108))), f32x4.mul(z, f32x4.splat(0.041556)))));
      b = encode4(f32x4.mul(shade, f32x4.add(f32x4.add(f32x4.mul(x, f32x4.splat(0.0556434)), f32x4.mul(y, f32x4.splat(-0.2040259))), f32x4.mul(z, f32x4.splat(1.0572252)))));
    }
    const at4 = i32x4.add(i32x4.splat(first + i), i32x4(0, 1, 2, 3));
    const grain = f32x4.mul(scan ? v128.load(scan + at) : triangle(at4, seed), f32x4.splat(noise * <f32>(255.0 / 65535.0)));
    const dither = f32x4.mul(triangle(at4, seed ^ 0x3779fb9), f32x4.splat(<f32>(0.5 / 65535.0)));
    const extra = f32x4.add(f32x4.add(grain, dither), f32x4.splat(0.5));
    const low = v128.or(level(r, extra), i32x4.shl(level(g, extra), 8));
    v128.store(dst + at, v128.or(v128.or(low, i32x4.shl(level(b, extra), 16)), i32x4.splat(0xff000000)));
  }
}

// @ts-ignore: decorator
@inline
function triangleOne(k: i32, seed: i32): f32 {
  const h = hash(k, seed);
  return <f32>(<i32>((h & 0xffff) + (h >>> 16)) - 65535);
}

/**
 * The noise of a scan of W × H pixels on a part of a sheet `finer` times as fine, which is w × h pixels from (x0, y0), `pitch` pixels wide in all: what lies
 * between the pixels of the scan is interpolated, and what that leaves of their variance is noise of the sheet's own pixels. ±65535, as `develop` takes it.
 */
export function scanGrain(dst: usize, w: i32, h: i32, x0: i32, y0: i32, pitch: i32, rows: i32, W: i32, H: i32, finer: f64, seed: i32): void {
  for (let j = 0; j < h; j++) {
    const y = modulo(y0 + j, rows);
    const v = (<f64>y + 0.5) / finer - 0.5;
    const iy = <i32>Math.floor(v);
    const fy = <f32>(v - <f64>iy);
    const upper = modulo(iy, H) * W;
    const lower = modulo(iy + 1, H) * W;
    const down: f32 = (1 - fy) * (1 - fy) + fy * fy;
    let last = -2;
    let a: f32 = 0, b: f32 = 0, c: f32 = 0, d: f32 = 0;
    for (let i = 0; i < w; i++) {
      const x = modulo(x0 + i, pitch);
      const u = (<f64>x + 0.5) / finer - 0.5;
      const ix = <i32>Math.floor(u);
      if (ix != last) {
        const left = modulo(ix, W);
        const right = modulo(ix + 1, W);
        a = triangleOne(upper + left, seed);
        b = triangleOne(upper + right, seed);
        c = triangleOne(lower + left, seed);
        d = triangleOne(lower + right, seed);
        last = ix;
      }
      const fx = <f32>(u - <f64>ix);
      const top = a + (b - a) * fx;
      const rest: f32 = 1 - ((1 - fx) * (1 - fx) + fx * fx) * down;
      const own = triangleOne(y * pitch + x, seed + 1);
      f32.store(dst + (<usize>(j * w + i) << 2), top + (c + (d - c) * fx - top) * fy + sqrt<f32>(rest) * own);
    }
  }
}
