import { testBench } from '@/testing/machine';
import { Random } from '../materials/random';
import { CELL, drawNudge, NOT_BEGUN, nudgeBytes, nudgeScratch, nudgeSize, planeOfNudge, drawnIn, type NudgeField } from './field';
import { movedNudge, nudgeStrokeSchema, nudges, type NudgeStroke } from './schema';
import { motionBy } from '../image/motion';

const bench = testBench(160);
const { machine, scratch } = bench;
const frame = { width: 600, height: 400 };
const grid = nudgeSize(frame);
const make = (): NudgeField => ({ at: scratch.take(nudgeBytes(grid)), ...grid });
const [one, two] = [make(), make()];
const work = scratch.take(nudgeScratch(grid));
const stroke = (values: object): NudgeStroke => nudgeStrokeSchema.parse(values);
const offset = ({ at, columns }: NudgeField, x: number, y: number) =>
  [0, 1].map((c) => machine.floats[(at + c * planeOfNudge(grid)) / 4 + Math.round(y / CELL) * columns + Math.round(x / CELL)]);
const all = ({ at }: NudgeField) => machine.floats.slice(at / 4, at / 4 + (2 * planeOfNudge(grid)) / 4);

/** The least determinant of I + ∇U over a field. */
function tightest(field: NudgeField): number {
  let least = 9;
  const u = (c: number, i: number, j: number) => machine.floats[(field.at + c * planeOfNudge(grid)) / 4 + j * field.columns + i];
  for (let j = 1; j < field.rows - 1; j++)
    for (let i = 1; i < field.columns - 1; i++) {
      const d = (c: number, x: number, y: number) => (u(c, i + x, j + y) - u(c, i - x, j - y)) / (2 * CELL);
      least = Math.min(least, (1 + d(0, 1, 0)) * (1 + d(1, 0, 1)) - d(0, 0, 1) * d(1, 1, 0));
    }
  return least;
}
const push = stroke({
  does: 'push',
  size: 120,
  strength: 1,
  points: [
    [0.4, 0.5, 1],
    [0.5, 0.5, 1],
  ],
});

describe('nudging', () => {
  it('pushes what lies under the brush along: it is read from behind', () => {
    drawNudge(machine, { strokes: [push], field: one, frame }, work);
    const [dx, dy] = offset(one, 300, 200);
    expect(dx).toBeLessThan(-30);
    expect(Math.abs(dy)).toBeLessThan(1e-3);
    expect(offset(one, 300, 340)).toEqual([0, 0]);
  });
  it('swells, pinches and turns about its middle', () => {
    const about = (does: string, strength = 1) => {
      drawNudge(machine, { strokes: [stroke({ does, size: 160, strength, points: [[0.5, 0.5, 1]] })], field: one, frame }, work);
      return offset(one, 330, 200);
    };
    expect(about('swell')[0]).toBeLessThan(-1);
    expect(about('pinch')[0]).toBeGreaterThan(1);
    // Clockwise: what is seen to the right of the middle comes from above it.
    expect(about('turn')[1]).toBeLessThan(-1);
    expect(about('turn', -1)[1]).toBeGreaterThan(1);
  });
  it('eased back often enough, the original is there again', () => {
    const ease = stroke({ does: 'ease', size: 300, strength: 1, points: Array.from({ length: 40 }, (_, i) => [0.42 + (i % 8) * 0.02, 0.5, 1]) });
    drawNudge(machine, { strokes: [push, ease, ease, ease], field: one, frame }, work);
    expect(Math.max(...all(one).map(Math.abs))).toBeLessThan(0.05);
  });
  it('what is held still stays, and goes on staying', () => {
    const hold = stroke({ does: 'hold', size: 200, strength: 1, points: Array.from({ length: 20 }, () => [0.5, 0.5, 1]).concat([[0.501, 0.5, 1]]) });
    const many = Array.from({ length: 12 }, (_, i) =>
      stroke({
        ...hold,
        points: [
          [0.5, 0.5, 1],
          [0.5 + i * 1e-4, 0.5, 1],
        ],
      }),
    );
    drawNudge(machine, { strokes: [...many, push], field: one, frame }, work);
    expect(Math.abs(offset(one, 300, 200)[0])).toBeLessThan(1);
  });
  it('never folds, however many strokes lie over each other', () => {
    const random = new Random(3);
    const strokes = Array.from({ length: 60 }, () =>
      stroke({
        does: nudges[Math.floor(random.between(0, 4))].value,
        size: random.between(20, 300),
        strength: random.between(-1, 1),
        points: Array.from({ length: 4 }, () => [random.between(0.2, 0.8), random.between(0.2, 0.8), random.between(0.3, 1)]),
      }),
    );
    drawNudge(machine, { strokes, field: one, frame }, work);
    expect(tightest(one)).toBeGreaterThan(0);
    expect(Math.max(...all(one).map(Math.abs))).toBeGreaterThan(20);
  });
  it('goes on from where it was, point by point and stroke by stroke, as if it had been drawn at once', () => {
    const first = stroke({
      does: 'turn',
      size: 90,
      strength: 0.6,
      points: [
        [0.2, 0.2, 1],
        [0.5, 0.4, 0.6],
        [0.6, 0.7, 1],
        [0.3, 0.6, 1],
      ],
    });
    const begun = { ...first, points: first.points.slice(0, 2) };
    const progress = drawNudge(machine, { strokes: [push, begun], field: one, frame }, work);
    expect(drawnIn({ strokes: [push, begun], progress }, [push, first])).toBe(true);
    expect(drawnIn({ strokes: [push, begun], progress }, [first, push])).toBe(false);
    expect(drawnIn({ strokes: [push, begun], progress }, [push])).toBe(false);
    const later = stroke({ does: 'swell', size: 60, points: [[0.3, 0.5, 1]] });
    drawNudge(machine, { strokes: [push, first, later], field: two, frame, from: { at: one.at, progress } }, work);
    const went = all(two);
    drawNudge(machine, { strokes: [push, first, later], field: one, frame, from: undefined }, work);
    expect(went).toEqual(all(one));
    expect(NOT_BEGUN.points).toBe(0);
  });
});

it('strokes stay on the photo when its frame changes', () => {
  const motion = motionBy([2, 0, -0.5, 0, 2, -0.5, 0, 0, 1], { width: 1000, height: 1000 }, { width: 500, height: 500 });
  const { size, points } = movedNudge(push, motion);
  expect(points[0]).toEqual([expect.closeTo(0.3, 9), expect.closeTo(0.5, 9), 1]);
  expect(size).toBeCloseTo(push.size * 2, 6);
});
