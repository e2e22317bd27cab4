import { testMachine } from '@/testing/machine';
import { testSheets } from '@/testing/sheet';
import { PAGE } from '../image/machine';
import { layBricks, type Courses } from './bricks';
import type { Field } from './field';

const sheets = testSheets(testMachine(32), PAGE, 30 * 2 ** 20);
const SIZE = 64;
const sheet = () => sheets.sheet({ seed: 5, wrap: true });
/** Four square pieces in two rows, none of which strays. */
const plain: Courses = {
  rows: 2,
  perRow: 2,
  height: 0.5,
  length: 0.5,
  joint: 0.04,
  bond: 0,
  count: 4,
  stray: [0, 0, 0],
  joints: [1, 1],
  corners: [0.001, 0.001],
};
const values = (field: Field) => {
  const all = sheets.values(field, SIZE);
  return (x: number, y: number) => all[y * SIZE + x];
};

it('is inside in the middle of a piece and outside in the joints, with the place from its middle', () => {
  const on = sheet();
  const { inside, px, py } = layBricks(on, on.coordinates(), plain);
  const [depth, across, down] = [inside, px, py].map(values);
  // Middles at a quarter and three quarters; joints where the pieces meet.
  for (const [x, y] of [
    [16, 16],
    [48, 16],
    [16, 48],
  ]) {
    expect(depth(x, y)).toBeGreaterThan(0.15);
    expect(Math.abs(across(x, y))).toBeLessThan(0.02);
    expect(Math.abs(down(x, y))).toBeLessThan(0.02);
  }
  expect(depth(32, 16)).toBeLessThan(0);
  expect(depth(16, 32)).toBeLessThan(0);
  expect(across(24, 16)).toBeCloseTo(0.125, 1);
});

it('shifts every other course by its bond, and gives each piece a number of its own', () => {
  const on = sheet();
  let next = 0;
  const { inside, each } = layBricks(on, on.coordinates(), { ...plain, bond: 0.5 });
  const numbers = values(each(() => ++next));
  expect(next).toBe(4);
  const row = (y: number) => [...new Set(Array.from({ length: SIZE }, (_, x) => numbers(x, y)))].sort();
  expect(row(16)).toHaveLength(2);
  expect(row(48)).toHaveLength(2);
  expect(row(16).some((n) => row(48).includes(n))).toBe(false);
  // One course has its joint where the other has a piece's middle.
  const depth = values(inside);
  expect(Math.sign(depth(32, 16))).toBe(-Math.sign(depth(32, 48)));
});
