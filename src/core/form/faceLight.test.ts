import { GRID, MESH_POINTS, type Face } from '../guards/finding';
import { fitLight, wayTo } from './light';
import { samplesOf } from './faceLight';

const LONG = 400;
/** A made-up face: the mesh's points spread over the front of an ellipsoid 120 pixels wide, its features where they are left out. */
function face(): Face {
  const mesh = new Array<number>(MESH_POINTS * 3).fill(0);
  const put = (i: number, x: number, y: number) => {
    const z = Math.sqrt(Math.max(0, 1 - x * x - y * y));
    [200 + 60 * x, 200 + 80 * y, -50 * z].forEach((v, c) => (mesh[3 * i + c] = Math.round((v * GRID) / LONG)));
  };
  // Evenly spread (Vogel's spiral).
  for (let i = 0; i < MESH_POINTS; i++) {
    const [r, t] = [0.97 * Math.sqrt((i + 0.5) / MESH_POINTS), i * 2.39996];
    put(i, r * Math.cos(t), r * Math.sin(t));
  }
  // What measures a face: its width, its height, its nose.
  put(234, -0.97, 0);
  put(454, 0.97, 0);
  put(10, 0, -0.97);
  put(152, 0, 0.97);
  put(2, 0, 0.25);
  return { score: 1, mesh };
}

it('normals of the mesh and the light of the skin give the light back', () => {
  const way = wayTo({ azimuth: -40, elevation: 30 });
  const skin = (x: number, y: number) => {
    const [u, v] = [(x - 200) / 60, (y - 200) / 80];
    const w = Math.sqrt(Math.max(0, 1 - u * u - v * v));
    const normal = [u / 60, v / 80, w / 50];
    const length = Math.hypot(...normal);
    return (
      0.1 +
      0.6 *
        Math.max(
          0,
          normal.reduce((sum, n, i) => sum + (n / length) * way[i], 0),
        )
    );
  };
  const samples = samplesOf(face(), LONG, skin);
  expect(samples.length).toBeGreaterThan(60);
  expect(samples.every(({ normal }) => Math.abs(Math.hypot(...normal) - 1) < 1e-6 && normal[2] >= 0.35)).toBe(true);
  const found = fitLight(samples);
  if (!found) throw new Error('no light');
  const found3 = wayTo(found);
  const degrees = (Math.acos(found3[0] * way[0] + found3[1] * way[1] + found3[2] * way[2]) * 180) / Math.PI;
  expect(degrees).toBeLessThan(10);
  expect(found.confidence).toBeGreaterThan(0.5);
});

it('dark, white and hidden places are left out', () => {
  expect(samplesOf(face(), LONG, () => null)).toEqual([]);
  expect(samplesOf(face(), LONG, () => 0.001)).toEqual([]);
});
