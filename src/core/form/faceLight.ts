import { toLinear } from '../color/srgb';
import { faceTaken, faceWidth, GRID, MESH_POINTS, meshPoint, type Face, type Finding } from '../guards/finding';
import type { Guards } from '../guards/schema';
import { headAxes, outlineOf, type Ring } from '../guards/outlines';
import type { Machine } from '../image/machine';
import type { Picture } from '../image/picture';
import { samplePhoto } from '../image/sample';
import type { Scratch } from '../image/tile';
import { fitLight, type Light, type LightSample } from './light';

/** How many pixels wide a face is when it is looked at: a pixel is then an area of skin. */
const ACROSS = 96;
/** The tip of the nose: above it there is no beard. */
const NOSE = 2;
/** Neighbours within this many face widths make a normal, and points within these of a feature say nothing of the light. */
const NEAR = 0.09;
const FEATURES: readonly (readonly [Ring, number])[] = [
  ['leftEye', 0.05],
  ['rightEye', 0.05],
  ['leftBrow', 0.03],
  ['rightBrow', 0.03],
  ['lips', 0.03],
  ['leftNostril', 0.025],
  ['rightNostril', 0.025],
  ['oval', 0.03],
];
/** Skin that is turned away further than this, darker or nearly white says nothing either. */
const FACING = 0.35;
const DARK = 0.003;
const WHITE = 0.98;

/** The faces of a finding that are taken, the largest first. */
export const drawnFaces = (guards: Pick<Guards, 'faces'> | undefined, finding: Finding): Face[] =>
  finding.faces.filter((_, i) => faceTaken(guards, finding, i)).sort((a, b) => faceWidth(b, GRID) - faceWidth(a, GRID));

export interface LightOrder {
  photo: Picture;
  face: Face;
}

/** Where the light on a face comes from, by the bright and dark of its skin over its form; null where the face is too small or hidden. */
export function lightOn(machine: Machine, scratch: Scratch, { photo, face }: LightOrder): Light | null {
  const long = Math.max(photo.width, photo.height);
  const scale = Math.min(1, ACROSS / faceWidth(face, long));
  const at = Array.from({ length: MESH_POINTS }, (_, i) => meshPoint(face, i, long * scale));
  const [left, top] = [0, 1].map((c) => Math.floor(Math.min(...at.map((p) => p[c]))) - 2);
  const [right, bottom] = [0, 1].map((c) => Math.ceil(Math.max(...at.map((p) => p[c]))) + 2);
  const mark = scratch.mark();
  const tile = scratch.tile({ x: left, y: top, width: right - left, height: bottom - top });
  scratch.take(64);
  samplePhoto(machine, photo, scale, tile);
  const skin = meanSkin(machine.floats, tile, left, top);
  const samples = samplesOf(face, long * scale, skin);
  scratch.release(mark);
  return fitLight(samples);
}

/** The mean colour of 3 × 3 pixels about a place, or null where one of them is cut off or nearly white. */
const meanSkin =
  (floats: Float32Array, { ptr, stride, width, height }: { ptr: number; stride: number; width: number; height: number }, left: number, top: number) =>
  (x: number, y: number): number | null => {
    const [i, j] = [Math.floor(x) - left, Math.floor(y) - top];
    if (i < 1 || j < 1 || i >= width - 1 || j >= height - 1) return null;
    const mean = [0, 1, 2].map((c) => {
      let sum = 0;
      for (let dy = -1; dy <= 1; dy++) for (let dx = -1; dx <= 1; dx++) sum += floats[(ptr + c * stride) / 4 + (j + dy) * width + i + dx];
      return sum / 9;
    });
    if (Math.max(...mean) > WHITE) return null;
    const [r, g, b] = mean.map(toLinear);
    return 0.2126 * r + 0.7152 * g + 0.0722 * b;
  };

/** Places on the skin with their normals and light. `luminanceAt` takes pixels of a picture whose long side has `long`. */
export function samplesOf(face: Face, long: number, luminanceAt: (x: number, y: number) => number | null): LightSample[] {
  const width = faceWidth(face, long);
  // The mesh's depth grows away from the viewer.
  const solid = Array.from({ length: MESH_POINTS }, (_, i) => [...meshPoint(face, i, long), (-face.mesh[3 * i + 2] * long) / GRID] as const);
  const features = FEATURES.flatMap(([ring, far]) => outlineOf(face, ring, long).map(([x, y]) => [x, y, (far * width) ** 2] as const));
  const { down } = headAxes(face);
  const nose = solid[NOSE];
  const out: LightSample[] = [];
  for (const point of solid) {
    const [x, y] = point;
    if (features.some(([fx, fy, square]) => (fx - x) ** 2 + (fy - y) ** 2 < square)) continue;
    const normal = normalAt(solid, point, NEAR * width);
    if (!normal || normal[2] < FACING) continue;
    const luminance = luminanceAt(x, y);
    if (luminance === null || luminance < DARK) continue;
    out.push({ normal, luminance, upper: (x - nose[0]) * down[0] + (y - nose[1]) * down[1] - (point[2] - nose[2]) * down[2] < 0 });
  }
  return out;
}

type Solid = readonly [x: number, y: number, towards: number];

/** The normal of the plane through the points near one of them (least squares); null where they lie in a line. */
function normalAt(points: readonly Solid[], [x, y, z]: Solid, reach: number): [number, number, number] | null {
  let [n, sx, sy, sz, xx, xy, yy, xz, yz] = [0, 0, 0, 0, 0, 0, 0, 0, 0];
  for (const [px, py, pz] of points) {
    const [u, v, w] = [px - x, py - y, pz - z];
    // What lies far behind, seen through a turned face, is another part of it.
    if (u * u + v * v > reach * reach || Math.abs(w) > 1.5 * reach) continue;
    n++;
    sx += u;
    sy += v;
    sz += w;
    xx += u * u;
    xy += u * v;
    yy += v * v;
    xz += u * w;
    yz += v * w;
  }
  const [cxx, cxy, cyy] = [xx - (sx * sx) / n, xy - (sx * sy) / n, yy - (sy * sy) / n];
  const [cxz, cyz] = [xz - (sx * sz) / n, yz - (sy * sz) / n];
  const det = cxx * cyy - cxy * cxy;
  if (n < 4 || det < 1e-6 * (cxx + cyy) ** 2) return null;
  const [a, b] = [(cxz * cyy - cyz * cxy) / det, (cyz * cxx - cxz * cxy) / det];
  const length = Math.hypot(a, b, 1);
  return [-a / length, -b / length, 1 / length];
}
