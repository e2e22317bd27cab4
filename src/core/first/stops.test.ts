import { amountAt, valueAt } from './stops';

it('meets its three values, and goes straight between them', () => {
  const stops = [6, 14, 28] as const;
  expect([0.3, 0.6, 1].map((a) => valueAt(stops, a, 0))).toEqual([6, 14, 28]);
  expect(valueAt(stops, 0.15, 0)).toBeCloseTo(3);
  expect(valueAt(stops, 0.8, 0)).toBeCloseTo(21);
});

it('without a value at 0 % goes on along the line of the first two', () => {
  expect(valueAt([0.88, 0.84, 0.7], 0)).toBeCloseTo(0.92);
});

it.each([[[6, 14, 28] as const], [[0.88, 0.84, 0.7] as const], [[-0.6, 0, 0.4] as const]])(
  '%j: the amount of a value is that which gives it',
  (stops) => {
    for (let a = 0; a <= 1; a += 0.05) expect(amountAt(stops, valueAt(stops, a))).toBeCloseTo(a, 9);
  },
);

it('takes the nearer end for a value outside', () => {
  expect(amountAt([6, 14, 28], 99, 0)).toBe(1);
  expect(amountAt([6, 14, 28], -3, 0)).toBe(0);
  expect(amountAt([0.88, 0.84, 0.7], 0.1)).toBe(1);
});

it('finds an amount where two stops are equal', () => {
  expect(amountAt([0.5, 1, 1], 1, 0)).toBeCloseTo(0.6);
});
