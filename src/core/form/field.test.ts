import { KEEPER, keeperFace } from '@/testing/keeper';
import { testBench } from '@/testing/machine';
import type { Framing } from '../ready/framing';
import { drawFields, FIELD_SCRATCH, FIELD_SIDE, fieldsBytes, type FormField } from './field';
import { facePlaces } from './places';
import { placeIn } from './frame';

const bench = testBench(160);
const { machine } = bench;
const target = bench.scratch.take(fieldsBytes(2));
const scratch = bench.scratch.take(FIELD_SCRATCH);
const { width: W, height: H } = KEEPER;
const file = { width: W, height: H };
const straight: Framing = { ...file, map: [1, 0, 0, 0, 1, 0, 0, 0, 1], file };
const mirrored: Framing = { ...file, map: [-1, 0, W, 0, 1, 0, 0, 0, 1], file };
const half: Framing = { width: W / 2, height: H / 2, map: [2, 0, 0, 0, 2, 0, 0, 0, 1], file };
const turned: Framing = { width: H, height: W, map: [0, 1, 0, -1, 0, H, 0, 0, 1], file };

const fields = (framing: Framing, faces = [keeperFace()], person: Parameters<typeof drawFields>[1]['person'] = null) =>
  drawFields(machine, { faces, person, framing }, target, scratch);
/** Offsets at a place of the readied photo. */
function at({ at: start, left, top, cell, most }: FormField, x: number, y: number): [number, number] {
  const [i, j] = [Math.round((x - left) / cell), Math.round((y - top) / cell)];
  const n = FIELD_SIDE;
  if (i < 0 || j < 0 || i >= n || j >= n) return [0, 0];
  return [0, 1].map((c) => most * machine.floats[start / 4 + c * n * n + j * n + i]) as [number, number];
}
const [place] = facePlaces([keeperFace()], H, placeIn(straight), { ...file, unit: H / 2000 });
const [cx, cy] = [place.x * W, place.y * H];
const fw = (place.width * H) / 2000;

describe('the field by which textures follow a face', () => {
  it('draws the texture together towards both sides of the face, more than in its middle', () => {
    const [field] = fields(straight);
    const step = 0.03 * fw;
    const tightness = (x: number) => (at(field, cx + x * fw + step, cy)[0] - at(field, cx + x * fw - step, cy)[0]) / (2 * step);
    for (const side of [-0.4, 0.4]) expect(tightness(side)).toBeGreaterThan(tightness(0) + 0.1);
  });
  it('nowhere draws the surface together more than five times, and is nothing along its border', () => {
    const [{ at: start, cell, most }] = fields(straight);
    const n = FIELD_SIDE;
    const u = (c: number, i: number, j: number) => (most * machine.floats[start / 4 + c * n * n + j * n + i]) / cell;
    let least = 1;
    let border = 0;
    for (let j = 1; j < n - 1; j++)
      for (let i = 1; i < n - 1; i++) {
        const d = (c: number, x: number, y: number) => (u(c, i + x, j + y) - u(c, i - x, j - y)) / 2;
        least = Math.min(least, (1 + d(0, 1, 0)) * (1 + d(1, 0, 1)) - d(0, 0, 1) * d(1, 1, 0));
      }
    for (let k = 0; k < n; k++)
      for (const [i, j] of [
        [k, 0],
        [k, n - 1],
        [0, k],
        [n - 1, k],
      ])
        border = Math.max(border, Math.hypot(u(0, i, j), u(1, i, j)));
    expect(least).toBeGreaterThanOrEqual(0.2 - 1e-3);
    expect(least).toBeLessThan(0.95);
    // Half a value: it cannot be seen where it ends.
    expect(border).toBeLessThan(0.5);
  });
  it('goes with the photo when that is mirrored, turned or made smaller', () => {
    const places = [
      [0.35, 0],
      [-0.3, 0.2],
      [0.1, -0.4],
    ].map(([x, y]) => [cx + x * fw, cy + y * fw] as const);
    const want = places.map(([x, y]) => at(fields(straight)[0], x, y));
    const near = (a: readonly number[], b: readonly number[]) => a.forEach((v, c) => expect(Math.abs(v - b[c])).toBeLessThan(0.008 * fw));
    places.forEach(([x, y], i) => {
      const [dx, dy] = at(fields(mirrored)[0], W - x, y);
      near([-dx, dy], want[i]);
      const [sx, sy] = at(fields(half)[0], x / 2, y / 2);
      near([2 * sx, 2 * sy], want[i]);
      // A quarter turn: (x, y) of the file lies at (H − y, x).
      const [tx, ty] = at(fields(turned)[0], H - y, x);
      near([ty, -tx], want[i]);
    });
  });
  it('ends where the person does', () => {
    const bytes = Buffer.alloc(40 * 50);
    for (let j = 0; j < 50; j++) for (let i = 0; i < 40; i++) bytes[j * 40 + i] = (i + 0.5) * 30 < cx ? 255 : 0;
    const [field] = fields(straight, [keeperFace()], { width: 40, height: 50, map: bytes.toString('base64') });
    expect(Math.abs(at(field, cx - 0.38 * fw, cy)[0])).toBeGreaterThan(0.01 * fw);
    expect(Math.abs(at(field, cx + 0.3 * fw, cy)[0])).toBeLessThan(0.003 * fw);
  });
  it('shares a place between two faces that overlap', () => {
    const [alone] = fields(straight);
    const before = at(alone, cx + 0.38 * fw, cy)[0];
    const other = { ...keeperFace(), mesh: keeperFace().mesh.map((v, i) => (i % 3 === 0 ? v + Math.round((0.7 * fw * 32768) / H) : v)) };
    const [first] = fields(straight, [keeperFace(), other]);
    expect(Math.abs(at(first, cx + 0.38 * fw, cy)[0])).toBeLessThan(0.7 * Math.abs(before));
    expect(Math.abs(at(first, cx - 0.38 * fw, cy)[0])).toBeGreaterThan(0.01 * fw);
  });
});

it('a face’s place is its middle, its width and the turn of its eyes', () => {
  expect(place.x).toBeGreaterThan(0.3);
  expect(place.x).toBeLessThan(0.7);
  expect(Math.abs(place.turn)).toBeLessThan(20);
  const [quarter] = facePlaces([keeperFace()], H, placeIn(turned), { width: H, height: W, unit: H / 2000 });
  expect(quarter.width).toBeCloseTo(place.width, 3);
  expect(quarter.turn - place.turn).toBeCloseTo(90, 3);
});
