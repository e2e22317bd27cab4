import { toLinear } from '../../color/srgb';
import type { Small } from './border';

/** Degree of the surface that stands for uneven light: a slope, a bowl and how they bend. */
const DEGREE = 4;
/** Light is made up for by no more than this factor. */
const MOST = 4;

/** Products of Legendre polynomials up to a degree at (x, y) in −1..1. */
function basis(x: number, y: number): number[] {
  const p = (t: number) => [1, t, (3 * t * t - 1) / 2, (5 * t * t * t - 3 * t) / 2, (35 * t ** 4 - 30 * t * t + 3) / 8];
  const [px, py] = [p(x), p(y)];
  const out: number[] = [];
  for (let i = 0; i <= DEGREE; i++) for (let j = 0; i + j <= DEGREE; j++) out.push(px[i] * py[j]);
  return out;
}

/** Solves a symmetric positive system in place by Cholesky's method. */
function solve(a: number[][], b: number[]): number[] {
  const n = b.length;
  for (let i = 0; i < n; i++) {
    for (let j = 0; j <= i; j++) {
      let sum = a[i][j];
      for (let k = 0; k < j; k++) sum -= a[i][k] * a[j][k];
      a[i][j] = i === j ? Math.sqrt(Math.max(sum, 1e-12)) : sum / a[j][j];
    }
  }
  const y = b.map(() => 0);
  for (let i = 0; i < n; i++) y[i] = (b[i] - a[i].slice(0, i).reduce((s, v, k) => s + v * y[k], 0)) / a[i][i];
  for (let i = n - 1; i >= 0; i--) {
    let sum = y[i];
    for (let k = i + 1; k < n; k++) sum -= a[k][i] * y[k];
    y[i] = sum / a[i][i];
  }
  return y;
}

/**
 * Gains in linear light that even a picture out: a polynomial surface of degree 4 is fitted by least squares to the logarithm of its luminance,
 * twice, stains and highlights counting for less the second time. A grid as large as the small picture.
 */
export function lightGains({ width, height, pixels }: Small, amount: number): Float32Array {
  const n = width * height;
  const log = new Float64Array(n);
  for (let i = 0; i < n; i++) {
    const [r, g, b] = [0, 1, 2].map((c) => toLinear(pixels[i * 4 + c]));
    log[i] = Math.log(0.002 + 0.2126 * r + 0.7152 * g + 0.0722 * b);
  }
  const rows = Array.from({ length: n }, (_, i) => basis(((i % width) + 0.5) / (width / 2) - 1, (Math.floor(i / width) + 0.5) / (height / 2) - 1));
  const size = rows[0].length;
  let fit = new Float64Array(n);
  let weight = new Float64Array(n).fill(1);
  for (let pass = 0; pass < 3; pass++) {
    const a = Array.from({ length: size }, () => new Array<number>(size).fill(0));
    const b = new Array<number>(size).fill(0);
    for (let i = 0; i < n; i++) {
      const row = rows[i];
      for (let p = 0; p < size; p++) {
        const wp = weight[i] * row[p];
        b[p] += wp * log[i];
        for (let q = 0; q <= p; q++) a[p][q] += wp * row[q];
      }
    }
    for (let p = 0; p < size; p++) a[p][p] += 1e-6 * n;
    const c = solve(a, b);
    fit = Float64Array.from(rows, (row) => row.reduce((s, v, p) => s + v * c[p], 0));
    const apart = Float64Array.from(fit, (v, i) => Math.abs(v - log[i])).sort();
    const scale = Math.max(1e-3, 2.5 * apart[n >> 1]);
    weight = Float64Array.from(fit, (v, i) => 1 / (1 + ((v - log[i]) / scale) ** 2));
  }
  let mean = 0;
  for (const v of fit) mean += v / n;
  return Float32Array.from(fit, (v) => Math.min(MOST, Math.max(1 / MOST, Math.exp((mean - v) * amount))));
}

/** Light counts as uneven when its brightest twentieth is this many times as bright as its darkest, in linear light. */
const UNEVEN = 1.5;

/** Whether a scan is lit so unevenly that evening it is worth offering. (Our own rule; common practice, no source.) */
export function isUneven(small: Small): boolean {
  const gains = lightGains(small, 1).sort();
  return gains[Math.floor(gains.length * 0.95)] / gains[Math.floor(gains.length * 0.05)] > UNEVEN;
}
