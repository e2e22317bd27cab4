import * as z from 'zod';
import { curve } from '../schema';
import type { Curve } from './curve';
import { defineCurves } from './treatment';

export const curvesFields = {
  all: curve('All channels'),
  red: curve('Red'),
  green: curve('Green'),
  blue: curve('Blue'),
};

export type CurvePoint = [x: number, y: number];

const isStraight = (points: CurvePoint[]) => points.every(([x, y]) => x === y) && points[0][0] === 0 && points[points.length - 1][0] === 1;

/**
 * A smooth curve through points with rising x that rises and falls only where they do; level beyond the first and the last. Fritsch and
 * Carlson, Monotone piecewise cubic interpolation (1980), with the three-point differences of their §4.
 */
export function smoothCurve(points: CurvePoint[]): (x: number) => number {
  const n = points.length;
  const xs = points.map((p) => p[0]);
  const ys = points.map((p) => p[1]);
  const secant = xs.slice(1).map((x, i) => (ys[i + 1] - ys[i]) / (x - xs[i]));
  const slope = xs.map((_, i) =>
    i === 0 ? secant[0] : i === n - 1 ? secant[n - 2] : secant[i - 1] * secant[i] <= 0 ? 0 : (secant[i - 1] + secant[i]) / 2,
  );
  for (let i = 0; i < n - 1; i++) {
    if (secant[i] === 0) {
      slope[i] = slope[i + 1] = 0;
      continue;
    }
    const [a, b] = [slope[i] / secant[i], slope[i + 1] / secant[i]];
    const size = Math.hypot(a, b);
    if (size > 3) [slope[i], slope[i + 1]] = [(3 * a * secant[i]) / size, (3 * b * secant[i]) / size];
  }
  return (x) => {
    if (x <= xs[0]) return ys[0];
    if (x >= xs[n - 1]) return ys[n - 1];
    let i = 0;
    while (x > xs[i + 1]) i++;
    const h = xs[i + 1] - xs[i];
    const t = (x - xs[i]) / h;
    const [t2, t3] = [t * t, t * t * t];
    return (2 * t3 - 3 * t2 + 1) * ys[i] + (t3 - 2 * t2 + t) * h * slope[i] + (3 * t2 - 2 * t3) * ys[i + 1] + (t3 - t2) * h * slope[i + 1];
  };
}

/** One curve on all channels, then one on each. */
export default defineCurves({
  kind: 'curves',
  label: 'Curves',
  words: 'fade contrast',
  schema: z.object({ kind: z.literal('curves'), ...curvesFields }),
  source: 'Fritsch & Carlson 1980, monotone piecewise cubic interpolation',
  neutral: (p) => isStraight(p.all) && isStraight(p.red) && isStraight(p.green) && isStraight(p.blue),
  curves(p) {
    const all = smoothCurve(p.all);
    return [p.red, p.green, p.blue].map((points): Curve => {
      const own = smoothCurve(points);
      return (v) => own(all(v));
    }) as [Curve, Curve, Curve];
  },
});
