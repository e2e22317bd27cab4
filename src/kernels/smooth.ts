// Means over boxes of any width, the products that a guided filter needs, and its linear model put on luma and colour.
import { clamp4 } from './math';

/**
 * Mean over a box of 2·radius + 1 pixels, radius any number of at least 0: the outermost pixels count by the part of them inside. The edge is
 * extended. `line` holds w + 2·⌈radius⌉ + 8 values of scratch memory, `middle` a plane.
 */
export function boxMean(src: usize, dst: usize, w: i32, h: i32, radius: f32, middle: usize, line: usize): void {
  const whole = <i32>floor<f32>(radius);
  const part: f32 = radius - <f32>whole;
  const norm: f32 = 1 / (2 * radius + 1);
  const reach = whole + 1;
  for (let j = 0; j < h; j++) {
    const row = src + (<usize>(j * w) << 2);
    const out = middle + (<usize>(j * w) << 2);
    const first: f32 = f32.load(row);
    const last: f32 = f32.load(row + (<usize>(w - 1) << 2));
    for (let i = 0; i < reach; i++) {
      f32.store(line + (<usize>i << 2), first);
      f32.store(line + (<usize>(w + reach + i) << 2), last);
    }
    memory.copy(line + (<usize>reach << 2), row, <usize>w << 2);
    let sum: f32 = 0;
    for (let i = 1; i < 2 * whole + 2; i++) sum += f32.load(line + (<usize>i << 2));
    for (let i = 0; i < w; i++) {
      const p = line + (<usize>i << 2);
      const a: f32 = f32.load(p);
      const b: f32 = f32.load(p + (<usize>(2 * whole + 2) << 2));
      f32.store(out + (<usize>i << 2), (sum + part * (a + b)) * norm);
      sum += b - f32.load(p + 4);
    }
  }
  // Down the columns, four at a time; sums of a column stay in `line`.
  const n4 = f32x4.splat(norm);
  const p4 = f32x4.splat(part);
  for (let i = 0; i < w; i += 4) {
    const column = middle + (<usize>i << 2);
    const pitch = <usize>w << 2;
    const some = min<i32>(4, w - i);
    let sum = f32x4.splat(0);
    for (let j = -whole; j <= whole; j++) sum = f32x4.add(sum, v128.load(column + <usize>max<i32>(0, min<i32>(h - 1, j)) * pitch));
    for (let j = 0; j < h; j++) {
      const a = v128.load(column + <usize>max<i32>(0, j - whole - 1) * pitch);
      const b = v128.load(column + <usize>min<i32>(h - 1, j + whole + 1) * pitch);
      const v = f32x4.mul(f32x4.add(sum, f32x4.mul(p4, f32x4.add(a, b))), n4);
      const q = dst + (<usize>(j * w + i) << 2);
      if (some == 4) v128.store(q, v);
      else {
        f32.store(q, f32x4.extract_lane(v, 0));
        if (some > 1) f32.store(q + 4, f32x4.extract_lane(v, 1));
        if (some > 2) f32.store(q + 8, f32x4.extract_lane(v, 2));
      }
      sum = f32x4.sub(f32x4.add(sum, b), v128.load(column + <usize>max<i32>(0, j - whole) * pitch));
    }
  }
}

/** out = a·b, value by value. */
export function multiplied(a: usize, b: usize, out: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) v128.store(out + i, f32x4.mul(v128.load(a + i), v128.load(b + i)));
}

/** Rec. 709 luma of the encoded values, and the two colour differences blue − luma and red − luma. */
export function splitLuma(tile: usize, stride: usize, count: i32, luma: usize, blue: usize, red: usize): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const r = v128.load(tile + i);
    const b = v128.load(tile + i + 2 * stride);
    const y = f32x4.add(
      f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(v128.load(tile + i + stride), f32x4.splat(0.7152))),
      f32x4.mul(b, f32x4.splat(0.0722)),
    );
    v128.store(luma + i, y);
    if (blue) v128.store(blue + i, f32x4.sub(b, y));
    if (red) v128.store(red + i, f32x4.sub(r, y));
  }
}

/** The reverse of `splitLuma`, clipped to 0..1. */
export function joinLuma(tile: usize, stride: usize, count: i32, luma: usize, blue: usize, red: usize): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const y = v128.load(luma + i);
    const b = f32x4.add(v128.load(blue + i), y);
    const r = f32x4.add(v128.load(red + i), y);
    const g = f32x4.mul(
      f32x4.sub(y, f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(b, f32x4.splat(0.0722)))),
      f32x4.splat(1.0 / 0.7152),
    );
    v128.store(tile + i, clamp4(r));
    v128.store(tile + i + stride, clamp4(g));
    v128.store(tile + i + 2 * stride, clamp4(b));
  }
}

/**
 * The linear model of a guided filter (He, Sun & Tang 2013, equations 5 and 6) from means of guide, input, guide², guide·input:
 * slope = cov / (var + eps) over `slope`, offset over `offset`; they may be two of the inputs.
 */
export function guidedModel(guide: usize, input: usize, squared: usize, product: usize, slope: usize, offset: usize, count: i32, eps: f32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const g = v128.load(guide + i);
    const p = v128.load(input + i);
    const variance = f32x4.pmax(zero, f32x4.sub(v128.load(squared + i), f32x4.mul(g, g)));
    const a = f32x4.div(f32x4.sub(v128.load(product + i), f32x4.mul(g, p)), f32x4.add(variance, f32x4.splat(eps)));
    v128.store(slope + i, a);
    v128.store(offset + i, f32x4.sub(p, f32x4.mul(a, g)));
  }
}

/** plane += share·(slope·guide + offset − plane). */
export function applyModel(plane: usize, guide: usize, slope: usize, offset: usize, count: i32, share: f32): void {
  const s = f32x4.splat(share);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = v128.load(plane + i);
    const q = f32x4.add(f32x4.mul(v128.load(slope + i), v128.load(guide + i)), v128.load(offset + i));
    v128.store(plane + i, f32x4.add(p, f32x4.mul(s, f32x4.sub(q, p))));
  }
}
