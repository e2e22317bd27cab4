// The form of a face as planes: its mesh drawn with depth, the stretch of its surface, and an equation whose solution follows both.
import { exp1 } from './math';

/**
 * Draws triangles with depth into planes: unit normals (nx, ny, nz) and 1 in `cover`. A vertex is six f32: x, y, depth away from the viewer, and its
 * normal; a triangle three u16. Those whose corners go round the other way than `facing` says (1 or −1) are turned away and left out. `depth` holds how
 * far away the nearest triangle is, and must begin very far.
 */
export function drawMesh(
  vertices: usize, triangles: usize, n: i32, w: i32, h: i32, facing: f32, depth: usize, nx: usize, ny: usize, nz: usize, cover: usize,
): void {
  for (let t = 0; t < n; t++) {
    const at = triangles + <usize>(t * 6);
    const a = vertices + <usize>load<u16>(at) * 24;
    const b = vertices + <usize>load<u16>(at, 2) * 24;
    const c = vertices + <usize>load<u16>(at, 4) * 24;
    const ax: f32 = f32.load(a), ay: f32 = f32.load(a, 4);
    const bx: f32 = f32.load(b) - ax, by: f32 = f32.load(b, 4) - ay;
    const cx: f32 = f32.load(c) - ax, cy: f32 = f32.load(c, 4) - ay;
    const area: f32 = bx * cy - by * cx;
    if (area * facing <= 1e-6) continue;
    const x0 = max<i32>(0, <i32>floor<f32>(ax + min<f32>(0, min<f32>(bx, cx))));
    const x1 = min<i32>(w - 1, <i32>ceil<f32>(ax + max<f32>(0, max<f32>(bx, cx))));
    const y0 = max<i32>(0, <i32>floor<f32>(ay + min<f32>(0, min<f32>(by, cy))));
    const y1 = min<i32>(h - 1, <i32>ceil<f32>(ay + max<f32>(0, max<f32>(by, cy))));
    for (let j = y0; j <= y1; j++)
      for (let i = x0; i <= x1; i++) {
        const px: f32 = <f32>i + 0.5 - ax;
        const py: f32 = <f32>j + 0.5 - ay;
        const v: f32 = (px * cy - py * cx) / area;
        const u: f32 = (bx * py - by * px) / area;
        if (v < 0 || u < 0 || v + u > 1) continue;
        const o: f32 = 1 - v - u;
        const far: f32 = o * f32.load(a, 8) + v * f32.load(b, 8) + u * f32.load(c, 8);
        const q = <usize>(j * w + i) << 2;
        if (far >= f32.load(depth + q)) continue;
        f32.store(depth + q, far);
        f32.store(nx + q, o * f32.load(a, 12) + v * f32.load(b, 12) + u * f32.load(c, 12));
        f32.store(ny + q, o * f32.load(a, 16) + v * f32.load(b, 16) + u * f32.load(c, 16));
        f32.store(nz + q, o * f32.load(a, 20) + v * f32.load(b, 20) + u * f32.load(c, 20));
        f32.store(cover + q, 1);
      }
  }
}

/** Normals (nx, ny, nz) of any length become slopes (p, q) = (nx, ny) / max(0.05, nz), in place of nx and ny; their length l is softened to c·tanh(l / c). */
export function slopesOf(nx: usize, ny: usize, nz: usize, count: i32, c: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(nx + i), y: f32 = f32.load(ny + i), z: f32 = f32.load(nz + i);
    const length: f32 = sqrt<f32>(x * x + y * y + z * z);
    if (length < 1e-6) {
      f32.store(nx + i, 0);
      f32.store(ny + i, 0);
      continue;
    }
    const k: f32 = 1 / max<f32>(0.05 * length, z);
    const p: f32 = x * k, q: f32 = y * k;
    const l: f32 = sqrt<f32>(p * p + q * q);
    const e: f32 = exp1(-2 * l / c);
    const soft: f32 = l > 1e-4 ? (c * (1 - e)) / (1 + e) / l : 1;
    f32.store(nx + i, p * soft);
    f32.store(ny + i, q * soft);
  }
}

/**
 * How much longer a surface of slopes (p, q) is than its picture, less the identity: with m² = p² + q² and e = (√(1 + m²) − 1) / m², the symmetric matrix
 * a = e·p², b = e·p·q, c = e·q².
 */
export function stretchOf(p: usize, q: usize, a: usize, b: usize, c: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(p + i), y: f32 = f32.load(q + i);
    const m: f32 = x * x + y * y;
    const e: f32 = m > 1e-6 ? (sqrt<f32>(1 + m) - 1) / m : 0.5;
    f32.store(a + i, e * x * x);
    f32.store(b + i, e * x * y);
    f32.store(c + i, e * y * y);
  }
}

/** ∂x a + ∂y b by central differences, 0 along the border. */
export function divergence(a: usize, b: usize, out: usize, w: i32, h: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const inside = i > 0 && j > 0 && i + 1 < w && j + 1 < h;
      const row = <usize>w << 2;
      f32.store(
        out + at,
        inside ? 0.5 * (f32.load(a + at + 4) - f32.load(a + at - 4) + f32.load(b + at + row) - f32.load(b + at - row)) : 0,
      );
    }
}

/** Means of 2 × 2 values: a plane of ⌊w/2⌋ × ⌊h/2⌋. */
export function halvedPlane(src: usize, w: i32, h: i32, dst: usize): void {
  const hw = w >> 1;
  for (let j = 0; j < h >> 1; j++)
    for (let i = 0; i < hw; i++) {
      const p = src + (<usize>(2 * j * w + 2 * i) << 2);
      const q = p + (<usize>w << 2);
      f32.store(dst + (<usize>(j * hw + i) << 2), 0.25 * (f32.load(p) + f32.load(p, 4) + f32.load(q) + f32.load(q, 4)));
    }
}

/** A plane twice as large, bilinearly; beyond the edge it is 0. */
export function doubledPlane(src: usize, w: i32, h: i32, dst: usize): void {
  for (let j = 0; j < 2 * h; j++)
    for (let i = 0; i < 2 * w; i++) {
      const i0 = i >> 1, j0 = j >> 1;
      const i1 = (i & 1) == 0 ? i0 - 1 : i0 + 1;
      const j1 = (j & 1) == 0 ? j0 - 1 : j0 + 1;
      const a: f32 = f32.load(src + (<usize>(j0 * w + i0) << 2));
      const b: f32 = i1 >= 0 && i1 < w ? f32.load(src + (<usize>(j0 * w + i1) << 2)) : 0;
      const c: f32 = j1 >= 0 && j1 < h ? f32.load(src + (<usize>(j1 * w + i0) << 2)) : 0;
      const d: f32 = i1 >= 0 && i1 < w && j1 >= 0 && j1 < h ? f32.load(src + (<usize>(j1 * w + i1) << 2)) : 0;
      f32.store(dst + (<usize>(j * 2 * w + i) << 2), 0.5625 * a + 0.1875 * (b + c) + 0.0625 * d);
    }
}

/**
 * Sweeps of successive over-relaxation, factor `over`, in two colours of a board, on the screened Poisson equation ∇²u − λu = f with u = 0 beyond the
 * plane; the distance between values is `step`.
 */
export function solveScreened(u: usize, f: usize, w: i32, h: i32, step: f32, lambda: f32, over: f32, sweeps: i32): void {
  const square: f32 = step * step;
  const k: f32 = 1 / (4 + lambda * square);
  const row = <usize>w << 2;
  for (let s = 0; s < 2 * sweeps; s++)
    for (let j = 0; j < h; j++)
      for (let i = (j + s) & 1; i < w; i += 2) {
        const at = <usize>(j * w + i) << 2;
        let sum: f32 = -square * f32.load(f + at);
        if (i > 0) sum += f32.load(u + at - 4);
        if (i + 1 < w) sum += f32.load(u + at + 4);
        if (j > 0) sum += f32.load(u + at - row);
        if (j + 1 < h) sum += f32.load(u + at + row);
        const old: f32 = f32.load(u + at);
        f32.store(u + at, old + over * (sum * k - old));
      }
}

/** The least determinant of I + k·∇(dx, dy), offsets in pixels of their own planes, by central differences. */
export function leastDeterminant(dx: usize, dy: usize, w: i32, h: i32, k: f32): f32 {
  let least: f32 = 1;
  const row = <usize>w << 2;
  const half: f32 = 0.5 * k;
  for (let j = 1; j + 1 < h; j++)
    for (let i = 1; i + 1 < w; i++) {
      const at = <usize>(j * w + i) << 2;
      const xx: f32 = half * (f32.load(dx + at + 4) - f32.load(dx + at - 4));
      const xy: f32 = half * (f32.load(dx + at + row) - f32.load(dx + at - row));
      const yx: f32 = half * (f32.load(dy + at + 4) - f32.load(dy + at - 4));
      const yy: f32 = half * (f32.load(dy + at + row) - f32.load(dy + at - row));
      least = min<f32>(least, (1 + xx) * (1 + yy) - xy * yx);
    }
  return least;
}

/** a = a / max(least, b). */
export function dividedBy(a: usize, b: usize, count: i32, least: f32): void {
  const floor4 = f32x4.splat(least);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16)
    v128.store(a + i, f32x4.div(v128.load(a + i), f32x4.pmax(floor4, v128.load(b + i))));
}

/**
 * Lets neighbours share a place: each value is multiplied, for every other centre, by d⁴ / (d⁴ + own⁴), with the distances to it and to the own centre each
 * in widths of that face. `centres` are triples of f32 (x, y, width) in pixels of the plane, the own one first.
 */
export function shareByDistance(plane: usize, w: i32, h: i32, centres: usize, n: i32): void {
  for (let j = 0; j < h; j++)
    for (let i = 0; i < w; i++) {
      let share: f32 = 1;
      let own: f32 = 0;
      for (let c = 0; c < n; c++) {
        const at = centres + <usize>(c * 12);
        const x: f32 = (<f32>i + 0.5 - f32.load(at)) / f32.load(at, 8);
        const y: f32 = (<f32>j + 0.5 - f32.load(at, 4)) / f32.load(at, 8);
        const square: f32 = x * x + y * y;
        if (c == 0) own = square * square;
        else share *= (square * square) / max<f32>(1e-9, square * square + own);
      }
      const at = plane + (<usize>(j * w + i) << 2);
      f32.store(at, f32.load(at) * share);
    }
}


/** The third part of unit normals, in place of nz; 0 where there is none. */
export function facingOf(nx: usize, ny: usize, nz: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const x: f32 = f32.load(nx + i), y: f32 = f32.load(ny + i), z: f32 = f32.load(nz + i);
    const length: f32 = sqrt<f32>(x * x + y * y + z * z);
    f32.store(nz + i, length > 1e-6 ? max<f32>(0, z / length) : 0);
  }
}

/** Distances d from an edge, in pixels, become the third part of the normal of a surface that is round there: √(1 − (1 − min(1, d / radius))²). */
export function roundedOf(plane: usize, count: i32, radius: f32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 4) {
    const q: f32 = 1 - min<f32>(1, f32.load(plane + i) / radius);
    f32.store(plane + i, sqrt<f32>(max<f32>(0, 1 - q * q)));
  }
}
