import { inverse3, multiply3, transform3, type Matrix3 } from './matrix3';

/** Chromaticity of CIE daylight of a correlated colour temperature, 4000 to 25000 K. CIE 15:2004, §3.1 (equations 3.3 and 3.4). */
export function daylight(kelvin: number): [x: number, y: number] {
  if (!(kelvin >= 4000 && kelvin <= 25000)) throw new RangeError(`Daylight is defined from 4000 to 25000 K, not ${kelvin}.`);
  const t = 1000 / kelvin;
  const x = kelvin <= 7000 ? ((-4.607 * t + 2.9678) * t + 0.09911) * t + 0.244063 : ((-2.0064 * t + 1.9018) * t + 0.24748) * t + 0.23704;
  return [x, (-3 * x + 2.87) * x - 0.275];
}

/** CIE 1960 u, v of a chromaticity, and back. */
const toUv = ([x, y]: [number, number]): [number, number] => [(4 * x) / (-2 * x + 12 * y + 3), (6 * y) / (-2 * x + 12 * y + 3)];
const toXy = ([u, v]: [number, number]): [number, number] => [(3 * u) / (2 * u - 8 * v + 4), (2 * v) / (2 * u - 8 * v + 4)];

/** Daylight moved off its locus by Duv in CIE 1960 u, v: upwards greener, downwards redder. */
export function tintedDaylight(kelvin: number, duv: number): [x: number, y: number] {
  const [u, v] = toUv(daylight(kelvin));
  const step = kelvin > 24900 ? -50 : 50;
  const [u2, v2] = toUv(daylight(kelvin + step));
  const length = Math.hypot(u2 - u, v2 - v) * Math.sign(step);
  // The locus runs to smaller u with rising temperature; its normal upwards points to green.
  const [nx, ny] = [(v2 - v) / length, -(u2 - u) / length];
  const up = ny >= 0 ? 1 : -1;
  return toXy([u + nx * duv * up, v + ny * duv * up]);
}

export const D65: [number, number] = [0.3127, 0.329];
export const D50: [number, number] = [0.3457, 0.3585];

/** Linear sRGB to XYZ, IEC 61966-2-1. */
const RGB_TO_XYZ: Matrix3 = [0.4123908, 0.3575843, 0.1804808, 0.212639, 0.7151687, 0.0721923, 0.0193308, 0.1191948, 0.9505322];
/** Cone responses of Lam (1985), the Bradford matrix, as in ICC.1:2010 annex E. */
const CONES: Matrix3 = [0.8951, 0.2664, -0.1614, -0.7502, 1.7135, 0.0367, 0.0389, -0.0685, 1.0296];

const white = ([x, y]: [number, number]): [number, number, number] => [x / y, 1, (1 - x - y) / y];

/** Matrix on linear sRGB under which a colour that was white under `from` becomes as `to` looks; luminance of white is kept. */
export function adaptation(from: [number, number], to: [number, number]): Matrix3 {
  const a = transform3(CONES, white(from));
  const b = transform3(CONES, white(to));
  const gains: Matrix3 = [b[0] / a[0], 0, 0, 0, b[1] / a[1], 0, 0, 0, b[2] / a[2]];
  return [inverse3(RGB_TO_XYZ), inverse3(CONES), gains, CONES, RGB_TO_XYZ].reduce(multiply3);
}
