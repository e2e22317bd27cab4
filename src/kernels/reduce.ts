// A plane on a coarse grid and back: what a wide blur leaves needs no more.
import { putSome } from './math';

/**
 * Means of cells of cell × cell values (cell a power of two) of a w × h plane, its edge extended: columns × rows of them at `dst`. `line`
 * holds columns · cell + 8 values of scratch memory.
 */
export function meanCells(src: usize, w: i32, h: i32, dst: usize, columns: i32, rows: i32, cell: i32, line: usize): void {
  const norm: f32 = 1 / <f32>(cell * cell);
  const long = columns * cell;
  const inside = min<i32>(w, long);
  for (let r = 0; r < rows; r++) {
    const top = r * cell;
    const row = src + ((<usize>top * <usize>w) << 2);
    // Rows that there are; beyond the last one it stands for the others.
    const there = min<i32>(cell, h - top);
    const pitch = <usize>w << 2;
    const end = <usize>(there - 1) * pitch;
    let i = 0;
    if (there == 4) {
      for (; i + 4 <= inside; i += 4) {
        const p = row + (<usize>i << 2);
        const upper = f32x4.add(v128.load(p), v128.load(p + pitch));
        v128.store(line + (<usize>i << 2), f32x4.add(upper, f32x4.add(v128.load(p + 2 * pitch), v128.load(p + 3 * pitch))));
      }
    } else {
      for (; i + 4 <= inside; i += 4) {
        let p = row + (<usize>i << 2);
        let sum = v128.load(p);
        for (let k = 1; k < there; k++) {
          p += pitch;
          sum = f32x4.add(sum, v128.load(p));
        }
        v128.store(line + (<usize>i << 2), sum);
      }
    }
    for (; i < long; i++) {
      const p = row + (<usize>min<i32>(w - 1, i) << 2);
      let sum: f32 = f32.load(p);
      for (let k = 1; k < there; k++) sum += f32.load(p + <usize>k * pitch);
      f32.store(line + (<usize>i << 2), sum);
    }
    if (there < cell) {
      const last = row + end;
      const lacking = <f32>(cell - there);
      for (let q = 0; q < long; q++) {
        const at = line + (<usize>q << 2);
        f32.store(at, f32.load(at) + lacking * f32.load(last + (<usize>min<i32>(w - 1, q) << 2)));
      }
    }
    // Neighbours are added until each sum stands for a cell; what is written lies behind what is read.
    for (let n = long; n > columns; n >>= 1) {
      for (let q = 0; q < n; q += 8) {
        const from = line + (<usize>q << 2);
        const a = v128.load(from);
        const b = v128.load(from + 16);
        v128.store(line + (<usize>q << 1), f32x4.add(i32x4.shuffle(a, b, 0, 2, 4, 6), i32x4.shuffle(a, b, 1, 3, 5, 7)));
      }
    }
    const out = dst + ((<usize>r * <usize>columns) << 2);
    for (let c = 0; c < columns; c += 4) putSome(out + (<usize>c << 2), f32x4.mul(v128.load(line + (<usize>c << 2)), f32x4.splat(norm)), columns - c);
  }
}

/** Catmull–Rom weight of the sample that lies `k` (−1..2) from the one at or before a point, `f` of the way to the next. */
// @ts-ignore: decorator
@inline
function weight(k: i32, f: f32): f32 {
  if (k == -1) return 0.5 * f * (-1 + f * (2 - f));
  if (k == 0) return 1 + 0.5 * f * f * (3 * f - 5);
  if (k == 1) return 0.5 * f * (1 + f * (4 - 3 * f));
  if (k == 2) return 0.5 * f * f * (f - 1);
  return 0;
}

/**
 * The reverse of `meanCells`, by Catmull–Rom interpolation between the cells' middles: its columns x0 to x1 and rows y0 to y1 as a plane of
 * `pitch` values a row at `dst`. `work` holds columns + 24 + 6 · max(4, cell) values.
 */
export function spreadCells(
  src: usize, columns: i32, rows: i32, cell: i32, dst: usize, pitch: i32, x0: i32, x1: i32, y0: i32, y1: i32, work: usize,
): void {
  // For each of the four lanes of each vector of a cell (or of the two cells that a vector covers), the weights of six cells: −2 to 3 from the
  // one in which x0 lies.
  const span = max<i32>(4, cell);
  const phase = x0 % cell;
  const vectors = span >> 2;
  const table = work;
  for (let v = 0; v < vectors; v++) {
    for (let lane = 0; lane < 4; lane++) {
      const u: f32 = (<f32>(phase + v * 4 + lane) + 0.5) / <f32>cell - 0.5;
      const i = <i32>floor<f32>(u);
      for (let k = -2; k <= 3; k++) f32.store(table + (<usize>((v * 6 + k + 2) * 4 + lane) << 2), weight(k - i, u - <f32>i));
    }
  }
  // One row of cells, with three at either end for what lies beyond.
  const line = work + (<usize>(6 * span) << 2) + 32;
  const cells = cell < 4 ? 2 : 1;
  const step = <usize>cells << 2;
  const start = line + (<usize>(x0 / cell) << 2);
  const width = x1 - x0;
  for (let y = y0; y < y1; y++) {
    const v: f32 = (<f32>y + 0.5) / <f32>cell - 0.5;
    const j = <i32>floor<f32>(v);
    const f = v - <f32>j;
    const a = src + ((<usize>max<i32>(0, min<i32>(rows - 1, j - 1)) * <usize>columns) << 2);
    const b = src + ((<usize>max<i32>(0, min<i32>(rows - 1, j)) * <usize>columns) << 2);
    const c = src + ((<usize>max<i32>(0, min<i32>(rows - 1, j + 1)) * <usize>columns) << 2);
    const d = src + ((<usize>max<i32>(0, min<i32>(rows - 1, j + 2)) * <usize>columns) << 2);
    const wa = weight(-1, f);
    const wb = weight(0, f);
    const wc = weight(1, f);
    const wd = weight(2, f);
    let i = 0;
    for (; i + 4 <= columns; i += 4) {
      const q = <usize>i << 2;
      const upper = f32x4.add(f32x4.mul(f32x4.splat(wa), v128.load(a + q)), f32x4.mul(f32x4.splat(wb), v128.load(b + q)));
      const lower = f32x4.add(f32x4.mul(f32x4.splat(wc), v128.load(c + q)), f32x4.mul(f32x4.splat(wd), v128.load(d + q)));
      v128.store(line + q, f32x4.add(upper, lower));
    }
    for (; i < columns; i++) {
      const q = <usize>i << 2;
      f32.store(line + q, wa * f32.load(a + q) + wb * f32.load(b + q) + (wc * f32.load(c + q) + wd * f32.load(d + q)));
    }
    const first: f32 = f32.load(line);
    const last: f32 = f32.load(line + (<usize>(columns - 1) << 2));
    for (let k = 1; k <= 2; k++) f32.store(line - (<usize>k << 2), first);
    for (let k = 0; k < 6; k++) f32.store(line + (<usize>(columns + k) << 2), last);
    const out = dst + ((<usize>(y - y0) * <usize>pitch) << 2);
    // One vector of every cell after another: its weights stay where they are.
    for (let n = 0; n < vectors; n++) {
      const w0 = v128.load(table + <usize>(96 * n));
      const w1 = v128.load(table + <usize>(96 * n) + 16);
      const w2 = v128.load(table + <usize>(96 * n) + 32);
      const w3 = v128.load(table + <usize>(96 * n) + 48);
      const w4 = v128.load(table + <usize>(96 * n) + 64);
      const w5 = v128.load(table + <usize>(96 * n) + 80);
      let at = start;
      for (let x = 4 * n; x < width; x += span) {
        const left = f32x4.add(f32x4.mul(v128.load32_splat(at - 8), w0), f32x4.mul(v128.load32_splat(at - 4), w1));
        const middle = f32x4.add(f32x4.mul(v128.load32_splat(at), w2), f32x4.mul(v128.load32_splat(at + 4), w3));
        const right = f32x4.add(f32x4.mul(v128.load32_splat(at + 8), w4), f32x4.mul(v128.load32_splat(at + 12), w5));
        const six = f32x4.add(f32x4.add(left, middle), right);
        const p = out + (<usize>x << 2);
        if (x + 4 <= width) v128.store(p, six);
        else putSome(p, six, width - x);
        at += step;
      }
    }
  }
}

/** Whether every value of a plane is `value`: 1 or 0. Planes end in a multiple of four values. */
export function isFilled(src: usize, count: i32, value: f32): i32 {
  const want = f32x4.splat(value);
  const whole = count & ~3;
  for (let i = 0; i < whole; i += 4) if (!i32x4.all_true(f32x4.eq(v128.load(src + (<usize>i << 2)), want))) return 0;
  for (let i = whole; i < count; i++) if (f32.load(src + (<usize>i << 2)) != value) return 0;
  return 1;
}
