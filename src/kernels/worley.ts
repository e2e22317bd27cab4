// Distances to the points of a jittered periodic lattice.
import { gx, gy, key, near } from './lattice';
import { hash } from './math';

/**
 * Worley 1996: distances to the nearest points of a jittered periodic lattice turned by integers (a, b); `cache` is scratch for 168 bytes. Reads places
 * `x`, `y` (fractions of the long side) and writes F1, F2, F3 in cells. `sx` stretches the metric along the lattice's first axis.
 */
export function worley(
  f1: usize, f2: usize, f3: usize, count: i32, a: f32, b: f32, n: i32, t: i32, sx: f32, seed: i32, x: usize, y: usize, cache: usize,
): void {
  let ci: i32 = i32.MIN_VALUE;
  let cj: i32 = i32.MIN_VALUE;
  const wide = f32x4.splat(sx);
  for (let i = 0; i < count; i++) {
    const at = <usize>i << 2;
    if (i + 4 <= count && ci != i32.MIN_VALUE) {
      // Four pixels of the cell whose points are at hand.
      const x4 = v128.load(x + at);
      const y4 = v128.load(y + at);
      const u4 = f32x4.sub(f32x4.mul(f32x4.splat(a), x4), f32x4.mul(f32x4.splat(b), y4));
      const v4 = f32x4.add(f32x4.mul(f32x4.splat(b), x4), f32x4.mul(f32x4.splat(a), y4));
      if (i32x4.all_true(v128.and(f32x4.eq(f32x4.floor(u4), f32x4.splat(<f32>ci)), f32x4.eq(f32x4.floor(v4), f32x4.splat(<f32>cj))))) {
        let n1 = f32x4.splat(1e9), n2 = n1, n3 = n1;
        for (let c = cache, end = cache + 168; c < end; c += 8) {
          const du = f32x4.mul(f32x4.sub(v128.load32_splat(c), u4), wide);
          const dv = f32x4.sub(v128.load32_splat(c + 4), v4);
          const d = f32x4.add(f32x4.mul(du, du), f32x4.mul(dv, dv));
          n3 = f32x4.pmin(n3, f32x4.pmax(n2, d));
          n2 = f32x4.pmin(n2, f32x4.pmax(n1, d));
          n1 = f32x4.pmin(n1, d);
        }
        v128.store(f1 + at, f32x4.sqrt(n1));
        v128.store(f2 + at, f32x4.sqrt(n2));
        v128.store(f3 + at, f32x4.sqrt(n3));
        i += 3;
        continue;
      }
    }
    const px = f32.load(x + at);
    const py = f32.load(y + at);
    const u = a * px - b * py;
    const v = b * px + a * py;
    const iu = <i32>floor<f32>(u);
    const iv = <i32>floor<f32>(v);
    if (iu != ci || iv != cj) {
      // The 21 points that can be among the nearest three, kept while pixels stay in one cell.
      ci = iu;
      cj = iv;
      let c = cache;
      for (let q = -2; q <= 2; q++) {
        const base = key(0, iv + q, n, t, 0, 0);
        for (let p = -2; p <= 2; p++) {
          if (p * p + q * q > 5) continue;
          const k = hash(near(iu + p + base, n), seed);
          f32.store(c, <f32>(iu + p) + gx(k) * 0.5 + 0.5);
          f32.store(c + 4, <f32>(iv + q) + gy(k) * 0.5 + 0.5);
          c += 8;
        }
      }
    }
    let d1: f32 = 1e9, d2: f32 = 1e9, d3: f32 = 1e9;
    for (let c = cache, end = cache + 168; c < end; c += 8) {
      const du = (f32.load(c) - u) * sx;
      const dv = f32.load(c + 4) - v;
      const d = du * du + dv * dv;
      if (d < d3) {
        if (d < d1) { d3 = d2; d2 = d1; d1 = d; }
        else if (d < d2) { d3 = d2; d2 = d; }
        else d3 = d;
      }
    }
    f32.store(f1 + at, sqrt<f32>(d1));
    f32.store(f2 + at, sqrt<f32>(d2));
    f32.store(f3 + at, sqrt<f32>(d3));
  }
}
