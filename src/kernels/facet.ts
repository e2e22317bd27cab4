// Flat facets, and values on a fixed grid read at any size.
import { leastTurn } from './draw';

// @ts-ignore: decorator
@inline
function fold(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/**
 * Triangles with a height at each corner, (x, y, z) three times each in px of a sheet W × H; the last one drawn stands. The plane is w × h pixels of the sheet,
 * the first of them (x0, y0).
 */
export function drawTriangles(dst: usize, w: i32, h: i32, x0: i32, y0: i32, W: i32, H: i32, table: usize, count: i32, wrap: i32): void {
  for (let k = 0; k < count; k++) {
    const t = table + <usize>(k * 36);
    const ax = f32.load(t);
    const ay = f32.load(t + 4);
    const az = f32.load(t + 8);
    const bx = f32.load(t + 12) - ax;
    const by = f32.load(t + 16) - ay;
    const cx = f32.load(t + 24) - ax;
    const cy = f32.load(t + 28) - ay;
    const area = bx * cy - by * cx;
    if (abs<f32>(area) < 1e-3) continue;
    const bz = (f32.load(t + 20) - az) / area;
    const cz = (f32.load(t + 32) - az) / area;
    const per: f32 = 1 / area;
    const left = <i32>floor<f32>(ax + min<f32>(0, min<f32>(bx, cx)));
    const right = <i32>ceil<f32>(ax + max<f32>(0, max<f32>(bx, cx)));
    const top = <i32>floor<f32>(ay + min<f32>(0, min<f32>(by, cy)));
    const bottom = <i32>ceil<f32>(ay + max<f32>(0, max<f32>(by, cy)));
    const firstX = wrap ? leastTurn(x0, right, W) : 0;
    const firstY = wrap ? leastTurn(y0, bottom, H) : 0;
    for (let turnY = firstY * H; top + turnY < y0 + h; turnY += H) {
      for (let j = max<i32>(top, y0 - turnY), end = min<i32>(bottom, y0 + h - 1 - turnY); j <= end; j++) {
        const row = dst + ((<usize>(j + turnY - y0) * <usize>w) << 2);
        const py: f32 = <f32>j + 0.5 - ay;
        for (let turnX = firstX * W; left + turnX < x0 + w; turnX += W) {
          for (let i = max<i32>(left, x0 - turnX), last = min<i32>(right, x0 + w - 1 - turnX); i <= last; i++) {
            const px: f32 = <f32>i + 0.5 - ax;
            const p = px * cy - py * cx;
            const q = py * bx - px * by;
            // Slightly more than the triangle, so that neighbours leave no gap.
            const u = p * per;
            const v = q * per;
            if (u < -0.002 || v < -0.002 || u + v > 1.002) continue;
            f32.store(row + (<usize>(i + turnX - x0) << 2), az + p * bz + q * cz);
          }
          if (!wrap) break;
        }
      }
      if (!wrap) break;
    }
  }
}

/** A periodic grid of n × n values over a sheet's unit square, bilinear at the places x, y. */
export function readGrid(src: usize, n: i32, dst: usize, count: i32, x: usize, y: usize): void {
  for (let i = 0; i < count; i++) {
    const at = <usize>i << 2;
    const u: f32 = f32.load(x + at) * <f32>n - 0.5;
    const v: f32 = f32.load(y + at) * <f32>n - 0.5;
    const iu = <i32>floor<f32>(u);
    const iv = <i32>floor<f32>(v);
    const fx = u - <f32>iu;
    const fy = v - <f32>iv;
    const r0 = src + (<usize>(fold(iv, n) * n) << 2);
    const r1 = src + (<usize>(fold(iv + 1, n) * n) << 2);
    const c0 = <usize>fold(iu, n) << 2;
    const c1 = <usize>fold(iu + 1, n) << 2;
    const a = f32.load(r0 + c0) * (1 - fx) + f32.load(r0 + c1) * fx;
    const b = f32.load(r1 + c0) * (1 - fx) + f32.load(r1 + c1) * fx;
    f32.store(dst + at, a * (1 - fy) + b * fy);
  }
}

/** How deep each place lies in the union of discs: the greatest of radius less distance, negative outside. `discs` holds (x, y, radius) f32 each. */
export function discDepth(x: usize, y: usize, dst: usize, count: i32, discs: usize, n: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    let depth = f32x4.splat(-1e9);
    for (let k = 0; k < n; k++) {
      const d = discs + <usize>(k * 12);
      const dx = f32x4.sub(v128.load(x + i), f32x4.splat(f32.load(d)));
      const dy = f32x4.sub(v128.load(y + i), f32x4.splat(f32.load(d + 4)));
      const far = f32x4.sqrt(f32x4.add(f32x4.mul(dx, dx), f32x4.mul(dy, dy)));
      depth = f32x4.pmax(depth, f32x4.sub(f32x4.splat(f32.load(d + 8)), far));
    }
    v128.store(dst + i, depth);
  }
}
