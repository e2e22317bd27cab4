import { apply, invert, type Point } from '../image/projection';
import { layPlace, laySchema, type Lay } from './lay';
import { cornerBy, movedBy, pinched, scaledBy, stretchedBy, turnedBy } from './laying';

const photo = { width: 1200, height: 800 };
const frame = { ...photo, unit: 0.6 };
const nominal = { width: 1024, height: 1024 };
const lay = (values: object = {}) => laySchema.parse({ scale: 0.8, x: 0.1, y: -0.05, turn: 20, ...values });
/** The point of the material, in fractions of it, that lies at a point of the photo. */
const under = (l: Lay, p: Point) => apply(invert(layPlace(l, nominal, frame)), p);
const with_ = (l: Lay, change: Partial<Lay>) => ({ ...l, ...change });
const near = (a: Point, b: Point, digits = 3) => a.forEach((v, i) => expect(v).toBeCloseTo(b[i], digits));

it('moving keeps the point of the material under the finger', () => {
  const l = lay();
  near(under(with_(l, movedBy(l, photo, [300, 300], [420, 260])), [420, 260]), under(l, [300, 300]));
});

it('a pinch keeps both points under both fingers, while limits are not reached', () => {
  const l = lay();
  const from: [Point, Point] = [
    [400, 300],
    [800, 420],
  ];
  const to: [Point, Point] = [
    [350, 380],
    [790, 700],
  ];
  const next = with_(l, pinched(l, photo, from, to));
  expect(next.scale).toBeGreaterThan(l.scale);
  // The turn is kept to a tenth of a degree.
  to.forEach((p, i) => near(under(next, p), under(l, from[i]), 2));
});

it('a pinch holds the turn at right angles, and the middle of the fingers still moves it', () => {
  const l = lay({ turn: 88 });
  const change = pinched(l, photo, [[500, 400], [700, 400]], [[510, 400], [710, 402]]); // prettier-ignore
  expect(change.turn).toBe(90);
  expect(change.x).not.toBe(l.x);
});

it('scaling goes with the distance from the centre, and stops at its limits', () => {
  const l = lay({ x: 0, y: 0 });
  expect(scaledBy(l, photo, [700, 400], [800, 400]).scale).toBeCloseTo(1.6, 6);
  expect(scaledBy(l, photo, [700, 400], [100000, 400]).scale).toBe(8);
  expect(scaledBy(l, photo, [600, 400], [800, 400])).toEqual({});
});

it('turning follows the finger round the centre, in steps of 15° when asked', () => {
  const l = lay({ x: 0, y: 0, turn: 0 });
  expect(turnedBy(l, photo, [600, 200], [800, 400]).turn).toBe(90);
  expect(turnedBy(l, photo, [600, 200], [600 + 200 * Math.sin(0.35), 400 - 200 * Math.cos(0.35)]).turn).toBeCloseTo(20.1, 1);
  expect(turnedBy(l, photo, [600, 200], [600 + 200 * Math.sin(0.35), 400 - 200 * Math.cos(0.35)], true).turn).toBe(15);
});

it('stretching goes along the material’s own sides', () => {
  const l = lay({ x: 0, y: 0, turn: 90 });
  expect(stretchedBy(l, photo, 'x', [600, 500], [600, 600]).stretchX).toBeCloseTo(2, 6);
  expect(stretchedBy(l, photo, 'y', [700, 400], [650, 400]).stretchY).toBeCloseTo(0.5, 6);
});

it('a corner goes where it is dragged, and never makes a dent', () => {
  const l = lay();
  const at = apply(layPlace(l, nominal, frame), [1, 0]);
  const next = with_(l, cornerBy(l, nominal, frame, 1, at, [at[0] - 60, at[1] + 90]));
  near(apply(layPlace(next, nominal, frame), next.corners![1] as Point), [at[0] - 60, at[1] + 90], 1);
  expect(next.corners![0]).toEqual([0, 0]);
  const opposite = apply(layPlace(l, nominal, frame), [0.2, 0.9]);
  expect(cornerBy(l, nominal, frame, 1, at, opposite)).toEqual({});
});
