import type { Stops } from '../materials/first';

const AMOUNTS = [0, 0.3, 0.6, 1];

/** Value at 0 %: on the straight line through those at 30 and 60 %, unless it is given. */
const line = (stops: Stops, zero = 2 * stops[0] - stops[1]): number[] => [zero, ...stops];

/** The value at an amount of 0..1, straight between the stops. */
export function valueAt(stops: Stops, amount: number, zero?: number): number {
  const values = line(stops, zero);
  const i = amount <= 0.3 ? 0 : amount <= 0.6 ? 1 : 2;
  const t = (amount - AMOUNTS[i]) / (AMOUNTS[i + 1] - AMOUNTS[i]);
  return values[i] + (values[i + 1] - values[i]) * t;
}

/** The amount of 0..1 at which the value is reached; the nearer end for one outside. */
export function amountAt(stops: Stops, value: number, zero?: number): number {
  const values = line(stops, zero);
  const rising = values[3] > values[0] ? 1 : -1;
  for (let i = 0; i < 3; i++) {
    if ((value - values[i + 1]) * rising <= 0 && values[i] !== values[i + 1]) {
      const t = Math.max(0, (value - values[i]) / (values[i + 1] - values[i]));
      return AMOUNTS[i] + (AMOUNTS[i + 1] - AMOUNTS[i]) * t;
    }
  }
  return 1;
}
