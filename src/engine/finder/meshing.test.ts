import { MESH_POINTS, SURE } from '../../core/guards/finding';
import { partOrders, refinedMesh } from './attention';
import type { Box, Window } from './boxes';
import { meshOf, type Square } from './meshing';
import type { Models } from './models';

const SIDE = 192;
/** A face on the photo: all of its mesh at one place but for these points. */
const face = Array.from({ length: MESH_POINTS }, () => [100, 100]);
const put = (list: number[], x: number, y: number) => list.forEach((i) => (face[i] = [x, y]));
put([33, 133], 80, 88);
put([263, 362], 120, 88);
put([4], 100, 103);
put([13, 14], 100, 122);
put([234], 64, 100);
put([454], 136, 100);
put([10], 100, 60);
put([152], 100, 140);
const IRIS = [80, 88];
const box = (score: number): Box => ({
  x: 100,
  y: 100,
  size: 100,
  angle: 0,
  score,
  marks: [
    [80, 88],
    [120, 88],
    [100, 103],
    [100, 122],
  ],
});

/** Models that see that face in every crop, as sure as they are told, by the crop. */
function models(coarse: (window: Window) => number, fine = 1) {
  const windows: Window[] = [];
  const square: Square = (_side, window) => {
    windows.push(window);
    return new Float32Array(3);
  };
  const seen = ([x, y]: number[]) => {
    const { x: left, y: top, side } = windows[windows.length - 1];
    return [((x - left) / side) * SIDE, ((y - top) / side) * SIDE];
  };
  const whole = () => Float32Array.from(face.flatMap((p) => [...seen(p), 0]));
  const part = (order: readonly number[]) => Float32Array.from(order.flatMap((i) => seen(face[i])));
  const iris = () => Float32Array.from(Array.from({ length: 5 }, () => seen(IRIS)).flat());
  const made = {
    mesh: async () => ({ points: whole(), score: coarse(windows[windows.length - 1]) }),
    fine: async () => ({
      mesh: whole(),
      lips: part(partOrders.lips),
      eyes: { right: part(partOrders.rightEye), left: part(partOrders.leftEye) },
      irises: { right: iris(), left: iris() },
      score: fine,
    }),
  } as unknown as Models;
  return { made, square, windows };
}
const run = (m: ReturnType<typeof models>, b: Box) => meshOf(m.made, m.square, b);

it('a face that detector and meshes are sure of is taken, and its irises are placed on the photo', async () => {
  const m = models(() => 0.99);
  const found = await run(m, box(0.8));
  expect(found?.score).toBeGreaterThan(SURE);
  expect(m.windows).toHaveLength(2);
  expect(found?.points[3 * 4]).toBeCloseTo(100, 3);
  expect([...(found?.irises ?? [])].map(Math.round)).toEqual(Array.from({ length: 10 }, () => IRIS).flat());
});

it.each([
  ['the detector', 0.4, 0.99, 1],
  ['the quick mesh', 0.9, 0.8, 1],
  ['the attention mesh', 0.9, 0.99, 0.7],
])('a face that %s doubts is only offered', async (_who, detector, quick, fine) => {
  const found = await run(
    models(() => quick, fine),
    box(detector),
  );
  expect(found?.score).toBeLessThan(SURE);
});

it('where a sure detector sees a face that one crop misses, nine crops are tried; a weak one is believed', async () => {
  const wide = (window: Window) => (window.side > 170 ? 0.95 : 0.1);
  const sure = models(wide);
  expect(await run(sure, box(0.8))).not.toBeNull();
  expect(sure.windows).toHaveLength(1 + 9 + 1);
  const weak = models(wide);
  expect(await run(weak, box(0.4))).toBeNull();
  expect(weak.windows).toHaveLength(1);
});

it('a mesh with its nose elsewhere than the detector’s is no face', async () => {
  const away = box(0.9);
  expect(
    await run(
      models(() => 0.99),
      { ...away, marks: away.marks.map(([x, y], i) => [x, i === 2 ? y + 60 : y] as const) },
    ),
  ).toBeNull();
});

it('eyes, brows and lips of the mesh are where the parts see them, and the rest stays', () => {
  const { lips, rightEye, leftEye } = partOrders;
  expect([lips.length, rightEye.length, leftEye.length]).toEqual([80, 71, 71]);
  expect(new Set([...lips, ...rightEye, ...leftEye]).size).toBe(80 + 71 + 71);
  const ones = (n: number) => new Float32Array(2 * n).fill(1);
  const irises = { right: ones(5), left: ones(5) };
  const out = refinedMesh({ mesh: new Float32Array(3 * MESH_POINTS), lips: ones(80), eyes: { right: ones(71), left: ones(71) }, irises });
  const moved = Array.from({ length: MESH_POINTS }, (_, i) => i).filter((i) => out[3 * i] === 1);
  expect(moved).toHaveLength(80 + 71 + 71);
  // The depth is the mesh's own; the tip of the nose is no part of eyes or lips.
  expect(out[3 * lips[0] + 2]).toBe(0);
  expect(moved).not.toContain(4);
});
