import { MESH_POINTS, SURE } from '../../core/guards/finding';
import { refinedMesh } from './attention';
import type { Box, Window } from './boxes';
import { SIDES, type Models } from './models';

/** A mesh less sure than this is no face. */
const LEAST_MESH = 0.5;
/** Boxes and meshes at least this sure are taken together; a face of which one of them doubts is only offered. */
const SURE_BOX = 0.5;
const SURE_MESH = 0.9;
/** A detector this sure sees a face that a single crop may miss: one from the side, or turned down. */
const SEEN = 0.6;
/** How far the mesh's eyes, nose and mouth may lie from those of the detector, in sizes of its box. */
const APART = 0.3;

/** A face with its mesh, in pixels of the photo. */
export interface Meshed extends Box {
  /** Across, down and away, for each point. */
  points: Float32Array;
  /** Five points of either iris, the person's right one first: its middle, then around it. */
  irises: Float32Array;
}

/** RGB of a square of the photo, `side` pixels wide, turned upright by `angle`. */
export type Square = (side: number, window: Window, angle: number) => Float32Array;

interface Crop {
  window: Window;
  angle: number;
}

const cropOf = ({ x, y, size, angle }: Omit<Box, 'score' | 'marks'>, by: number): Crop => {
  const span = size * by;
  return { window: { x: x - span / 2, y: y - span / 2, side: span }, angle };
};

/** Brings points of a crop of `side` pixels to the photo: `step` numbers a point, of which the first two are turned and the third only scaled. */
function placed(points: Float32Array, step: number, side: number, { window, angle }: Crop): Float32Array {
  const k = window.side / side;
  const [cos, sin] = [Math.cos(angle) * k, Math.sin(angle) * k];
  const [x, y] = [window.x + window.side / 2, window.y + window.side / 2];
  const out = Float32Array.from(points, (v) => v * k);
  for (let i = 0; i < points.length; i += step) {
    const [u, v] = [points[i] - side / 2, points[i + 1] - side / 2];
    out[i] = x + cos * u - sin * v;
    out[i + 1] = y + sin * u + cos * v;
  }
  return out;
}

/**
 * The mesh of a face that the detector saw, or null where there is none. A quick mesh places the crop on which the attention mesh then looks. Where the
 * detector is sure and the quick mesh sees nothing, as on faces from the side, crops of other sizes and places are tried and the surest is kept.
 */
export async function meshOf(models: Models, square: Square, box: Box): Promise<Meshed | null> {
  const look = async (crop: Crop) => {
    const { points, score } = await models.mesh(square(SIDES.facemesh, crop.window, crop.angle));
    return { score, extent: () => extentOf(placed(points, 3, SIDES.facemesh, crop)) };
  };
  let coarse = await look(cropOf(box, 1.5));
  if (coarse.score < LEAST_MESH && box.score >= SEEN) {
    for (const by of [1.25, 1.5, 1.75])
      for (const shift of [-0.15, 0, 0.15]) {
        const tried = await look(cropOf({ ...box, x: box.x + shift * box.size }, by));
        if (tried.score > coarse.score) coarse = tried;
      }
  }
  if (coarse.score < LEAST_MESH) return null;
  const crop = cropOf(coarse.extent(), 1.5);
  const fine = await models.fine(square(SIDES.attention, crop.window, crop.angle));
  const score = Math.min(coarse.score, fine.score);
  if (score < LEAST_MESH) return null;
  const points = placed(refinedMesh(fine), 3, SIDES.attention, crop);
  if (disagrees(points, box)) return null;
  const irises = new Float32Array([fine.irises.right, fine.irises.left].flatMap((iris) => [...placed(iris, 2, SIDES.attention, crop)]));
  const sure = box.score >= SURE_BOX && score >= SURE_MESH;
  const joined = score * (0.5 + box.score / 2);
  return { ...extentOf(points), marks: box.marks, score: sure ? Math.max(joined, SURE) : Math.min(joined, SURE - 0.01), points, irises };
}

/** Whether a mesh has its eyes, nose and mouth elsewhere than the detector: it has then found something else. */
function disagrees(points: Float32Array, { marks, size }: Box): boolean {
  const middle = (...of: number[]) => [0, 1].map((c) => of.reduce((sum, i) => sum + points[3 * i + c], 0) / of.length);
  const own = [middle(33, 133), middle(263, 362), middle(4), middle(13, 14)];
  return own.some(([x, y], i) => Math.hypot(x - marks[i][0], y - marks[i][1]) > APART * size);
}

/** The square about a mesh and its roll, by the corners of its eyes. */
function extentOf(points: Float32Array): Omit<Box, 'score' | 'marks'> {
  let [x0, y0, x1, y1] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < MESH_POINTS; i++) {
    x0 = Math.min(x0, points[3 * i]);
    x1 = Math.max(x1, points[3 * i]);
    y0 = Math.min(y0, points[3 * i + 1]);
    y1 = Math.max(y1, points[3 * i + 1]);
  }
  const [right, left] = [33 * 3, 263 * 3];
  const angle = Math.atan2(points[left + 1] - points[right + 1], points[left] - points[right]);
  return { x: (x0 + x1) / 2, y: (y0 + y1) / 2, size: Math.max(x1 - x0, y1 - y0), angle };
}
