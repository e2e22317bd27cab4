import { KEEPER, keeperFace } from '@/testing/keeper';
import { testBench } from '@/testing/machine';
import { contourScratch, drawContour } from './contour';

const bench = testBench(160);
const size = { width: 320, height: 400 };
const scratch = bench.scratch.take(contourScratch(size));
const out = bench.picture(size.width, size.height, () => [0, 0, 0]);
const value = (x: number, y: number) => bench.machine.bytes[out.levels[0] + (Math.round(y) * size.width + Math.round(x)) * 4] / 255;

it('a disc without a face is round along its edge: the third part of the normal is √(1 − (1 − q)²), q the way in by its radius', () => {
  const R = 120;
  const subject = bench.picture(size.width, size.height, (x, y) => (Math.hypot(x + 0.5 - 160, y + 0.5 - 200) < R ? [255, 255, 255] : [0, 0, 0]));
  drawContour(bench.machine, { subject, faces: [], size }, out, scratch);
  const radius = 0.16 * 0.35 * Math.sqrt(Math.PI) * R;
  for (const q of [0.5, 0.75, 1, 3]) {
    const want = Math.sqrt(1 - (1 - Math.min(1, q)) ** 2);
    expect(Math.abs(value(160 + R - q * radius, 200) - want)).toBeLessThan(0.08);
  }
  expect(value(160 + R + 12, 200)).toBe(0);
  expect(value(160, 200)).toBe(1);
});

it('a face fades to its sides by its mesh, and nothing lies where the subject is not', () => {
  const subject = bench.picture(size.width, size.height, () => [255, 255, 255]);
  drawContour(bench.machine, { subject, faces: [keeperFace()], size }, out, scratch);
  const k = size.height / KEEPER.height;
  const at = (i: number) => [0, 1].map((c) => ((keeperFace().mesh[3 * i + c] * KEEPER.height) / 32768) * k);
  // The keeper is turned: one cheek (50) faces the viewer, the other (280) turns away, and so does the near jaw (172).
  const [near, far, jaw] = [at(50), at(280), at(172)].map(([x, y]) => value(x, y));
  expect(near).toBeGreaterThan(0.85);
  expect(far).toBeLessThan(near - 0.25);
  expect(jaw).toBeLessThan(near - 0.25);
  // Without any map of people the face is there all the same, and nothing else.
  const none = bench.picture(size.width, size.height, () => [0, 0, 0]);
  drawContour(bench.machine, { subject: none, faces: [keeperFace()], size }, out, scratch);
  expect(value(at(50)[0], at(50)[1])).toBeGreaterThan(0.85);
  expect(value(10, 10)).toBe(0);
});
