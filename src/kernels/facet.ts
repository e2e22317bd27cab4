// Flat facets, and values on a fixed grid read at any size.

// @ts-ignore: decorator
@inline
function fold(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/** Triangles with a height at each corner, (x, y, z) three times each in px; the last one drawn stands. */
export function drawTriangles(dst: usize, w: i32, h: i32, table: usize, count: i32, wrap: i32): void {
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
    const x0 = <i32>floor<f32>(ax + min<f32>(0, min<f32>(bx, cx)));
    const x1 = <i32>ceil<f32>(ax + max<f32>(0, max<f32>(bx, cx)));
    const y0 = <i32>floor<f32>(ay + min<f32>(0, min<f32>(by, cy)));
    const y1 = <i32>ceil<f32>(ay + max<f32>(0, max<f32>(by, cy)));
    for (let j = y0; j <= y1; j++) {
      if (!wrap && (j < 0 || j >= h)) continue;
      const row = dst + ((<usize>fold(j, h) * <usize>w) << 2);
      const py: f32 = <f32>j + 0.5 - ay;
      for (let i = x0; i <= x1; i++) {
        if (!wrap && (i < 0 || i >= w)) continue;
        const px: f32 = <f32>i + 0.5 - ax;
        const p = px * cy - py * cx;
        const q = py * bx - px * by;
        // Slightly more than the triangle, so that neighbours leave no gap.
        const u = p * per;
        const v = q * per;
        if (u < -0.002 || v < -0.002 || u + v > 1.002) continue;
        f32.store(row + (<usize>fold(i, w) << 2), az + p * bz + q * cz);
      }
    }
  }
}

/** A periodic grid of n × n values spread over w × h pixels, bilinear. */
export function readGrid(src: usize, n: i32, dst: usize, w: i32, h: i32): void {
  for (let j = 0; j < h; j++) {
    const v: f32 = ((<f32>j + 0.5) / <f32>h) * <f32>n - 0.5;
    const y = <i32>floor<f32>(v);
    const fy = v - <f32>y;
    const r0 = src + (<usize>(fold(y, n) * n) << 2);
    const r1 = src + (<usize>(fold(y + 1, n) * n) << 2);
    const pitch: f32 = <f32>n / <f32>w;
    for (let i = 0; i < w; i++) {
      const u: f32 = (<f32>i + 0.5) * pitch - 0.5;
      const x = <i32>floor<f32>(u);
      const fx = u - <f32>x;
      const c0 = <usize>(x < 0 ? n - 1 : x) << 2;
      const c1 = <usize>(x + 1 >= n ? 0 : x + 1) << 2;
      const a = f32.load(r0 + c0) * (1 - fx) + f32.load(r0 + c1) * fx;
      const b = f32.load(r1 + c0) * (1 - fx) + f32.load(r1 + c1) * fx;
      f32.store(dst + (<usize>(j * w + i) << 2), a * (1 - fy) + b * fy);
    }
  }
}
