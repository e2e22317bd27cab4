import { ciede2000 } from '../color/difference';
import { srgbToLab, type Triple } from '../color/srgb';

export interface Rgba {
  data: ArrayLike<number>;
  width: number;
  height: number;
}

export interface Comparison {
  /** CIEDE2000 over the pixels counted. */
  mean: number;
  p95: number;
  max: number;
  /** Mean structural similarity of Rec. 709 luma (Wang et al. 2004). */
  ssim: number;
  pixels: number;
  /** Largest difference of any channel, in levels of 255. */
  levels: number;
}

/**
 * Compares two RGBA8 pictures of one size, where `mask` (one byte a pixel, optional) is over half. Command line and reports only: a plain
 * loop with a cache for colours met before.
 * @throws RangeError when sizes differ or nothing is counted.
 */
export function compare(a: Rgba, b: Rgba, mask?: ArrayLike<number>): Comparison {
  if (a.width !== b.width || a.height !== b.height) {
    throw new RangeError(`The pictures differ in size: ${a.width} × ${a.height} and ${b.width} × ${b.height}.`);
  }
  const n = a.width * a.height;
  const found: number[] = [];
  let levels = 0;
  const labs = new Map<number, Triple>();
  const lab = (d: ArrayLike<number>, i: number): Triple => {
    const key = (d[i] << 16) | (d[i + 1] << 8) | d[i + 2];
    let v = labs.get(key);
    if (!v) labs.set(key, (v = srgbToLab([d[i] / 255, d[i + 1] / 255, d[i + 2] / 255])));
    return v;
  };
  for (let p = 0; p < n; p++) {
    if (mask && mask[p] <= 127) continue;
    const i = p * 4;
    for (let c = 0; c < 3; c++) levels = Math.max(levels, Math.abs(a.data[i + c] - b.data[i + c]));
    found.push(ciede2000(lab(a.data, i), lab(b.data, i)));
  }
  if (found.length === 0) throw new RangeError('The mask leaves no pixel to compare.');
  const sorted = Float64Array.from(found).sort();
  return {
    mean: sorted.reduce((s, v) => s + v, 0) / sorted.length,
    p95: sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.95))],
    max: sorted[sorted.length - 1],
    ssim: ssim(a, b, mask),
    pixels: found.length,
    levels,
  };
}

/** Gaussian of 11 × 11, σ 1.5, K1 = 0.01, K2 = 0.03, range 255, as in the paper; windows are whole ones only. */
function ssim(a: Rgba, b: Rgba, mask?: ArrayLike<number>): number {
  const { width: w, height: h } = a;
  const luma = (d: ArrayLike<number>) =>
    Float64Array.from({ length: w * h }, (_, p) => 0.2126 * d[4 * p] + 0.7152 * d[4 * p + 1] + 0.0722 * d[4 * p + 2]);
  const x = luma(a.data);
  const y = luma(b.data);
  const r = Math.min(5, Math.floor((Math.min(w, h) - 1) / 2));
  const taps = Array.from({ length: 2 * r + 1 }, (_, i) => Math.exp(-((i - r) ** 2) / (2 * 1.5 * 1.5)));
  const sum = taps.reduce((s, v) => s + v, 0);
  const blur = (f: (p: number) => number) => {
    const rows = new Float64Array(w * h);
    const out = new Float64Array(w * h);
    for (let j = 0; j < h; j++)
      for (let i = r; i < w - r; i++) for (let k = -r; k <= r; k++) rows[j * w + i] += (taps[k + r] / sum) * f(j * w + i + k);
    for (let j = r; j < h - r; j++)
      for (let i = r; i < w - r; i++) for (let k = -r; k <= r; k++) out[j * w + i] += (taps[k + r] / sum) * rows[(j + k) * w + i];
    return out;
  };
  const [mx, my, xx, yy, xy] = [blur((p) => x[p]), blur((p) => y[p]), blur((p) => x[p] ** 2), blur((p) => y[p] ** 2), blur((p) => x[p] * y[p])];
  const c1 = (0.01 * 255) ** 2;
  const c2 = (0.03 * 255) ** 2;
  let total = 0;
  let count = 0;
  for (let j = r; j < h - r; j++) {
    for (let i = r; i < w - r; i++) {
      const p = j * w + i;
      if (mask && mask[p] <= 127) continue;
      const cov = xy[p] - mx[p] * my[p];
      total += ((2 * mx[p] * my[p] + c1) * (2 * cov + c2)) / ((mx[p] ** 2 + my[p] ** 2 + c1) * (xx[p] - mx[p] ** 2 + yy[p] - my[p] ** 2 + c2));
      count++;
    }
  }
  return count ? total / count : 1;
}
