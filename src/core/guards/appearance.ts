import type { Planes } from '../image/planes';
import type { Tones } from './faces';

/** Four planes that tell skin from hair: two colour differences relative to the light, the logarithm of luma, and that of the contrast close by. */
export type Features = readonly [blue: number, red: number, light: number, contrast: number];

/** Smallest variances that are assumed: colours within a photograph's noise and light within a shadow of half a stop say nothing. */
const LEAST = { skin: [4e-4, 4e-4, 0.12, 0.35], hair: [6e-4, 6e-4, 0.08, 0.25] } as const;

/** A Gaussian of the four features as the kernel reads it: mean, inverse covariance, logarithm of its peak; and how many pixels it was learned from. */
export interface Gaussian {
  numbers: Float32Array;
  mean: readonly number[];
  weight: number;
}

/** A colour difference divided by luma, smoothed over `sigma` pixels. In the dark, where JPEG's colours are coarse, it tends to nothing. */
export function relative(planes: Planes, plane: number, luma: number, sigma: number): number {
  const out = planes.copy(plane);
  planes.briefly(() => {
    const under = planes.copy(luma);
    planes.blur(out, sigma);
    planes.blur(under, sigma);
    planes.machine.kernels.mixIn(under, under, planes.count, 1, 0, 0.06);
    planes.machine.kernels.power(under, planes.count, -1);
    planes.times(out, under);
  });
  return out;
}

/** Measures the features for faces of that width. */
export function measureFeatures(planes: Planes, { luma, blue, red }: Tones, width: number): Features {
  const { kernels } = planes.machine;
  const [calmBlue, calmRed] = [blue, red].map((plane) => relative(planes, plane, luma, 0.012 * width));
  const light = planes.copy(luma);
  planes.blur(light, 0.01 * width);
  kernels.clampTo(light, planes.count, 0, 1);
  kernels.mixIn(light, light, planes.count, 1, 0, 0.02);
  kernels.logarithm(light, planes.count);
  const contrast = planes.make();
  planes.briefly(() => {
    const radius = Math.max(1, 0.03 * width);
    const mean = planes.mean(luma, radius);
    const spread = planes.mean(planes.product(luma, luma), radius);
    kernels.mixIn(spread, planes.product(mean, mean), planes.count, 1, -1, 0);
    kernels.clampTo(spread, planes.count, 0, 1);
    kernels.power(spread, planes.count, 0.5);
    kernels.mixIn(mean, mean, planes.count, 1, 0, 0.05);
    kernels.power(mean, planes.count, -1);
    planes.times(spread, mean);
    kernels.mixIn(spread, spread, planes.count, 1, 0, 0.02);
    kernels.logarithm(spread, planes.count);
    planes.put(spread, contrast);
  });
  return [calmBlue, calmRed, light, contrast];
}

const table = (planes: Planes, features: Features): number => {
  const at = planes.scratch.take(16);
  new Int32Array(planes.machine.memory.buffer, at, 4).set(features);
  return at;
};

/** Learns what lies under a weight; null where that is close to nothing. */
export function learn(planes: Planes, features: Features, weight: number, kind: keyof typeof LEAST): Gaussian | null {
  return planes.briefly(() => {
    const sums = planes.scratch.take(15 * 8);
    planes.machine.kernels.fourMoments(weight, table(planes, features), planes.width * planes.height, sums);
    const [w, ...s] = new Float64Array(planes.machine.memory.buffer, sums, 15);
    if (w < 8) return null;
    const mean = s.slice(0, 4).map((v) => v / w);
    const covariance = [0, 1, 2, 3].map(() => [0, 0, 0, 0]);
    let k = 4;
    for (let i = 0; i < 4; i++)
      for (let j = i; j < 4; j++, k++) covariance[i][j] = covariance[j][i] = s[k] / w - mean[i] * mean[j] + (i === j ? LEAST[kind][i] : 0);
    const { inverse, determinant } = inverted(covariance);
    const upper = [0, 1, 2, 3].flatMap((i) => inverse[i].slice(i));
    return { mean, weight: w, numbers: Float32Array.from([...mean, ...upper, -0.5 * Math.log(determinant)]) };
  });
}

/** The logarithm of the greatest density of some Gaussians, as a new plane. */
export function density(planes: Planes, features: Features, gaussians: readonly Gaussian[]): number {
  const out = planes.make(-60);
  planes.briefly(() => {
    const at = table(planes, features);
    const numbers = planes.scratch.take(15 * 4);
    for (const { numbers: values } of gaussians) {
      planes.machine.floats.set(values, numbers / 4);
      planes.machine.kernels.logDensity(at, out, planes.count, numbers, 1);
    }
  });
  return out;
}

/** Where a pixel lies within `free` squared deviations of the mean of one of some Gaussians: 1, falling softly to 0. */
export function within(planes: Planes, features: Features, gaussians: readonly Gaussian[], free: number): number {
  const out = planes.make();
  for (const gaussian of gaussians)
    planes.briefly(() => {
      const one = density(planes, features, [gaussian]);
      planes.machine.kernels.oddsOf(one, planes.make(gaussian.numbers[14] - free / 2), planes.count, 0, 2);
      planes.most(out, one);
    });
  return out;
}

/** By elimination with pivots of a symmetric matrix that has an inverse. */
function inverted(matrix: readonly (readonly number[])[]): { inverse: number[][]; determinant: number } {
  const n = matrix.length;
  const a = matrix.map((row, i) => [...row, ...row.map((_, j) => +(i === j))]);
  let determinant = 1;
  for (let c = 0; c < n; c++) {
    const pivot = a[c][c];
    determinant *= pivot;
    for (let j = 0; j < 2 * n; j++) a[c][j] /= pivot;
    for (let r = 0; r < n; r++) {
      if (r === c) continue;
      const k = a[r][c];
      for (let j = 0; j < 2 * n; j++) a[r][j] -= k * a[c][j];
    }
  }
  return { inverse: a.map((row) => row.slice(n)), determinant };
}
