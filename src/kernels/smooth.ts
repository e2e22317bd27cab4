// Means over boxes of any width, the products that a guided filter needs, and its linear model put on luma and colour.
import { clamp4, putSome } from './math';

/**
 * Mean over a box of 2·radius + 1 pixels, radius any number of at least 0: the outermost pixels count by the part of them inside. The edge is
 * extended. `line` holds w + 2·⌈radius⌉ + 16 values of scratch memory, `middle` a plane.
 */
export function boxMean(src: usize, dst: usize, w: i32, h: i32, radius: f32, middle: usize, line: usize): void {
  const whole = <i32>floor<f32>(radius);
  const part: f32 = radius - <f32>whole;
  const norm: f32 = 1 / (2 * radius + 1);
  const reach = whole + 1;
  const n4 = f32x4.splat(norm);
  const p4 = f32x4.splat(part);
  const long = w + 2 * reach;
  const zero = f32x4.splat(0);
  // line[k]: sum of the k first values of the row with its edges extended by `reach`; a box is the difference of two of them.
  const inner = <usize>(2 * whole + 1) << 2;
  for (let j = 0; j < h; j++) {
    const row = src + (<usize>(j * w) << 2);
    const out = middle + (<usize>(j * w) << 2);
    const first: f32 = f32.load(row);
    const last: f32 = f32.load(row + (<usize>(w - 1) << 2));
    let sum: f32 = 0;
    f32.store(line, 0);
    for (let k = 0; k < reach; k++) {
      sum += first;
      f32.store(line + (<usize>(k + 1) << 2), sum);
    }
    let carry = f32x4.splat(sum);
    const body = line + (<usize>(reach + 1) << 2);
    for (let i = 0; i < w; i += 4) {
      let v = v128.load(row + (<usize>i << 2));
      v = f32x4.add(v, i32x4.shuffle(zero, v, 0, 4, 5, 6));
      v = f32x4.add(v, i32x4.shuffle(zero, v, 0, 1, 4, 5));
      v = f32x4.add(v, carry);
      v128.store(body + (<usize>i << 2), v);
      carry = i32x4.shuffle(v, v, 3, 3, 3, 3);
    }
    sum = f32.load(line + (<usize>(reach + w) << 2));
    for (let k = reach + w; k < long; k++) {
      sum += last;
      f32.store(line + (<usize>(k + 1) << 2), sum);
    }
    for (let i = 0; i < w; i += 4) {
      const p = line + (<usize>i << 2);
      const a = v128.load(p);
      const b = v128.load(p + 4);
      const c = v128.load(p + 4 + inner);
      const d = v128.load(p + 8 + inner);
      const box = f32x4.sub(c, b);
      const edges = f32x4.add(f32x4.sub(b, a), f32x4.sub(d, c));
      putSome(out + (<usize>i << 2), f32x4.mul(f32x4.add(box, f32x4.mul(p4, edges)), n4), w - i);
    }
  }
  // Down the columns, row after row with the sums of all columns in `line`: what is read lies side by side.
  const pitch = <usize>w << 2;
  const wide = w & ~3;
  for (let i = 0; i < w; i++) {
    let sum: f32 = 0;
    const column = middle + (<usize>i << 2);
    for (let j = -whole; j <= whole; j++) sum += f32.load(column + <usize>max<i32>(0, min<i32>(h - 1, j)) * pitch);
    f32.store(line + (<usize>i << 2), sum);
  }
  for (let j = 0; j < h; j++) {
    const above = middle + <usize>max<i32>(0, j - whole - 1) * pitch;
    const below = middle + <usize>min<i32>(h - 1, j + whole + 1) * pitch;
    const leaving = middle + <usize>max<i32>(0, j - whole) * pitch;
    const out = dst + <usize>j * pitch;
    for (let i = 0; i < wide; i += 4) {
      const q = <usize>i << 2;
      const sum = v128.load(line + q);
      const b = v128.load(below + q);
      v128.store(out + q, f32x4.mul(f32x4.add(sum, f32x4.mul(p4, f32x4.add(v128.load(above + q), b))), n4));
      v128.store(line + q, f32x4.sub(f32x4.add(sum, b), v128.load(leaving + q)));
    }
    for (let i = wide; i < w; i++) {
      const q = <usize>i << 2;
      const sum = f32.load(line + q);
      const b = f32.load(below + q);
      f32.store(out + q, (sum + part * (f32.load(above + q) + b)) * norm);
      f32.store(line + q, sum + b - f32.load(leaving + q));
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

/**
 * Local linear estimate of a noisy plane (Lee 1980): from its mean and the mean of its squares around each value, p' = mean + k·(p − mean)
 * with k = variance / (variance + eps).
 */
export function calm(plane: usize, mean: usize, squared: usize, count: i32, eps: f32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = v128.load(plane + i);
    const m = v128.load(mean + i);
    const variance = f32x4.pmax(zero, f32x4.sub(v128.load(squared + i), f32x4.mul(m, m)));
    const k = f32x4.div(variance, f32x4.add(variance, f32x4.splat(eps)));
    v128.store(plane + i, f32x4.add(m, f32x4.mul(k, f32x4.sub(p, m))));
  }
}

/** plane += share·(mean − plane) / (1 + ((mean − plane) / most)²): drawn to its mean, but not across a step much larger than `most`. */
export function drawTo(plane: usize, mean: usize, count: i32, share: f32, most: f32): void {
  const one = f32x4.splat(1);
  const scale = f32x4.splat(1 / most);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const p = v128.load(plane + i);
    const d = f32x4.sub(v128.load(mean + i), p);
    const k = f32x4.mul(d, scale);
    v128.store(plane + i, f32x4.add(p, f32x4.div(f32x4.mul(f32x4.splat(share), d), f32x4.add(one, f32x4.mul(k, k)))));
  }
}

/** Standard deviations over means of squares: squared = √max(0, squared − mean²). */
export function deviation(mean: usize, squared: usize, count: i32): void {
  const zero = f32x4.splat(0);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const m = v128.load(mean + i);
    v128.store(squared + i, f32x4.sqrt(f32x4.pmax(zero, f32x4.sub(v128.load(squared + i), f32x4.mul(m, m)))));
  }
}

/** Contrast given back: colours go away from the mean luma around them by was / is, between 1 and `most`, by an amount. */
export function evenSpread(tile: usize, stride: usize, count: i32, mean: usize, was: usize, is: usize, amount: f32, most: f32): void {
  const one = f32x4.splat(1);
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    const ratio = f32x4.div(v128.load(was + i), f32x4.add(v128.load(is + i), f32x4.splat(0.002)));
    const k = f32x4.mul(f32x4.splat(amount), f32x4.sub(f32x4.pmin(f32x4.splat(most), f32x4.pmax(one, ratio)), one));
    const r = v128.load(tile + i), g = v128.load(tile + stride + i), b = v128.load(tile + 2 * stride + i);
    const y = f32x4.add(f32x4.add(f32x4.mul(r, f32x4.splat(0.2126)), f32x4.mul(g, f32x4.splat(0.7152))), f32x4.mul(b, f32x4.splat(0.0722)));
    const more = f32x4.mul(k, f32x4.sub(y, v128.load(mean + i)));
    v128.store(tile + i, clamp4(f32x4.add(r, more)));
    v128.store(tile + stride + i, clamp4(f32x4.add(g, more)));
    v128.store(tile + 2 * stride + i, clamp4(f32x4.add(b, more)));
  }
}

/** dst = slope·luma + offset, clipped to 0..1. */
export function modelled(slope: usize, offset: usize, luma: usize, dst: usize, count: i32): void {
  for (let i: usize = 0, end = <usize>count << 2; i < end; i += 16) {
    v128.store(dst + i, clamp4(f32x4.add(f32x4.mul(v128.load(slope + i), v128.load(luma + i)), v128.load(offset + i))));
  }
}
