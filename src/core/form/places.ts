import type { Face } from '../guards/finding';
import type { Point } from '../image/projection';
import { solidOf } from './solid';

/** Where a face lies on the readied photo: its middle in fractions of it, how wide it is in u, and how far its eyes are turned clockwise, in degrees. */
export interface FacePlace {
  x: number;
  y: number;
  width: number;
  turn: number;
}

/** A face is about this many times as wide as its eyes are apart (from memory). Eyes are found better than the sides of a turned face. */
const BY_EYES = 2.25;
/** Corners of both eyes. */
const EYES = [
  [33, 133],
  [362, 263],
] as const;

/** Places of faces, for textures that are to be as large on each. `place` takes points of the file, whose long side is `long`, to pixels of the readied photo. */
export function facePlaces(
  faces: readonly Face[],
  long: number,
  place: (p: Point) => Point,
  { width, height, unit }: { width: number; height: number; unit: number },
): FacePlace[] {
  return faces.map((face) => {
    const { vertices, middle } = solidOf(face, long, place);
    const [right, left] = EYES.map(([a, b]) => [0, 1, 2].map((c) => (vertices[6 * a + c] + vertices[6 * b + c]) / 2));
    const apart = left.map((v, c) => v - right[c]);
    return {
      x: middle[0] / width,
      y: middle[1] / height,
      width: (BY_EYES * Math.hypot(...apart)) / unit,
      turn: (Math.atan2(apart[1], apart[0]) * 180) / Math.PI,
    };
  });
}
