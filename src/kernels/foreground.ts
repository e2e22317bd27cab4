// The colours in front of and behind an edge.

/** A colour behind or in front of six f32 (front r, g, b, behind r, g, b) held in 8. */
const SIZE: usize = 32;

// @ts-ignore: decorator
@inline
function solve(i: f32, f: f32, b: f32, a: f32, weight: f32, out: usize): void {
  const rest: f32 = 1 - a;
  const aa = a * a + weight, ab = a * rest, bb = rest * rest + weight;
  const p = a * i + f, q = rest * i + b;
  const one: f32 = 1 / (aa * bb - ab * ab);
  f32.store(out, max<f32>(0, min<f32>(1, (bb * p - ab * q) * one)));
  f32.store(out, max<f32>(0, min<f32>(1, (aa * q - ab * p) * one)), 12);
}

/**
 * The colours in front and behind of a picture with a known alpha, from one pixel up to its size by doublings (Germer, Uelwer, Conrad & Harmeling, Fast
 * Multi-Level Foreground Estimation, 2020). `out` has six planes of w · h f32, each `stride` bytes from the next: front r, g, b, behind r, g, b. `work`
 * has room for 64 bytes a pixel and 128 more.
 */
export function estimateColours(r: usize, g: usize, b: usize, alpha: usize, w: i32, h: i32, out: usize, stride: usize, work: usize): void {
  let now = work;
  let before = work + SIZE * <usize>(w * h) + 64;
  let levels = 1;
  while (1 << (levels - 1) < max<i32>(w, h)) levels++;
  let pw = 1, ph = 1;
  memory.fill(before, 0, SIZE);
  for (let level = 0; level < levels; level++) {
    const lw = max<i32>(1, level == levels - 1 ? w : min<i32>(w, (w * (1 << level)) / (1 << (levels - 1))));
    const lh = max<i32>(1, level == levels - 1 ? h : min<i32>(h, (h * (1 << level)) / (1 << (levels - 1))));
    for (let y = 0; y < lh; y++) {
      for (let x = 0; x < lw; x++) {
        memory.copy(now + SIZE * <usize>(y * lw + x), before + SIZE * <usize>(((y * ph) / lh) * pw + (x * pw) / lw), SIZE);
      }
    }
    const rounds = lw <= 32 && lh <= 32 ? 10 : 2;
    for (let k = 0; k < rounds; k++) {
      for (let y = 0; y < lh; y++) {
        const sy = (((y * 2 + 1) * h) / (2 * lh)) * w;
        for (let x = 0; x < lw; x++) {
          const p = <usize>(sy + ((x * 2 + 1) * w) / (2 * lw)) << 2;
          const a = f32.load(alpha + p);
          let weight: f32 = 0;
          let f = f32x4.splat(0), s = f32x4.splat(0);
          for (let t = 0; t < 4; t++) {
            const nx = max<i32>(0, min<i32>(lw - 1, x + (t == 0 ? -1 : t == 1 ? 1 : 0)));
            const ny = max<i32>(0, min<i32>(lh - 1, y + (t == 2 ? -1 : t == 3 ? 1 : 0)));
            const q = <usize>((((ny * 2 + 1) * h) / (2 * lh)) * w + ((nx * 2 + 1) * w) / (2 * lw)) << 2;
            const d: f32 = 1e-5 + abs<f32>(a - f32.load(alpha + q));
            const there = now + SIZE * <usize>(ny * lw + nx);
            weight += d;
            f = f32x4.add(f, f32x4.mul(f32x4.splat(d), v128.load(there)));
            s = f32x4.add(s, f32x4.mul(f32x4.splat(d), v128.load(there, 12)));
          }
          const here = now + SIZE * <usize>(y * lw + x);
          solve(f32.load(r + p), f32x4.extract_lane(f, 0), f32x4.extract_lane(s, 0), a, weight, here);
          solve(f32.load(g + p), f32x4.extract_lane(f, 1), f32x4.extract_lane(s, 1), a, weight, here + 4);
          solve(f32.load(b + p), f32x4.extract_lane(f, 2), f32x4.extract_lane(s, 2), a, weight, here + 8);
        }
      }
    }
    pw = lw;
    ph = lh;
    const t = now;
    now = before;
    before = t;
  }
  for (let i = 0; i < w * h; i++) {
    for (let c: usize = 0; c < 6; c++) f32.store(out + c * stride + (<usize>i << 2), f32.load(before + SIZE * <usize>i + (c << 2)));
  }
}
