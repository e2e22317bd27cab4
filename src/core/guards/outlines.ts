import { faceWidth, MESH_POINTS, meshPoint, type Face } from './finding';

/** Outlines of a face as numbers of mesh points, in order around each (the topology of the face mesh model; see Kartynnik et al. 2019). */
const rings = {
  oval: [
    10, 338, 297, 332, 284, 251, 389, 356, 454, 323, 361, 288, 397, 365, 379, 378, 400, 377, 152, 148, 176, 149, 150, 136, 172, 58, 132, 93, 234, 127,
    162, 21, 54, 103, 67, 109,
  ],
  leftEye: [263, 249, 390, 373, 374, 380, 381, 382, 362, 398, 384, 385, 386, 387, 388, 466],
  rightEye: [33, 7, 163, 144, 145, 153, 154, 155, 133, 173, 157, 158, 159, 160, 161, 246],
  leftBrow: [300, 293, 334, 296, 336, 285, 295, 282, 283, 276],
  rightBrow: [70, 63, 105, 66, 107, 55, 65, 52, 53, 46],
  lips: [61, 146, 91, 181, 84, 17, 314, 405, 321, 375, 291, 409, 270, 269, 267, 0, 37, 39, 40, 185],
  mouth: [78, 95, 88, 178, 87, 14, 317, 402, 318, 324, 308, 415, 310, 311, 312, 13, 82, 81, 80, 191],
  rightNostril: [79, 166, 59, 75, 60, 20, 238, 239],
  leftNostril: [309, 392, 289, 305, 290, 250, 458, 459],
} as const;
export type Ring = keyof typeof rings;

type Outline = [number, number][];
type Vector = [number, number, number];

/** An outline in pixels of a picture whose long side has `long`. */
export const outlineOf = (face: Face, ring: Ring, long: number): Outline => rings[ring].map((i) => meshPoint(face, i, long));

/** The upper half of the oval from temple to temple, pushed outward by `by` face widths: where hair begins. */
export function hairBand(face: Face, long: number, by: number): Outline {
  const top = [127, 162, 21, 54, 103, 67, 109, 10, 338, 297, 332, 284, 251, 389, 356];
  const width = faceWidth(face, long);
  const middle = meshPoint(face, 168, long);
  return top.map((i) => {
    const [x, y] = meshPoint(face, i, long);
    const away = Math.hypot(x - middle[0], y - middle[1]) || 1;
    const k = 1 + (by * width) / away;
    return [middle[0] + (x - middle[0]) * k, middle[1] + (y - middle[1]) * k];
  });
}

const point3 = ({ mesh }: Face, i: number): Vector => [mesh[3 * i], mesh[3 * i + 1], mesh[3 * i + 2]];
const minus = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
const unit = (a: Vector): Vector => {
  const length = Math.hypot(...a) || 1;
  return [a[0] / length, a[1] / length, a[2] / length];
};
const cross = (a: Vector, b: Vector): Vector => [a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]];

/** Axes of a head: to the viewer's right along its width, down along its height, and backwards. */
export function headAxes(face: Face): { across: Vector; down: Vector; back: Vector } {
  const across = unit(minus(point3(face, 454), point3(face, 234)));
  const slant = minus(point3(face, 152), point3(face, 10));
  const along = across[0] * slant[0] + across[1] * slant[1] + across[2] * slant[2];
  const down = unit([slant[0] - along * across[0], slant[1] - along * across[1], slant[2] - along * across[2]]);
  return { across, down, back: cross(across, down) };
}

/**
 * Where a face's ears should be. The mesh has none, so each is a disc behind the mesh point in front of the ear. One that is turned
 * away is left out.
 */
export function earOutlines(face: Face, long: number): Outline[] {
  const { across, down, back } = headAxes(face);
  const width = faceWidth(face, long);
  return [234, 454].flatMap((i): Outline[] => {
    const out = i === 234 ? -1 : 1;
    // Positive means away from the viewer: an ear on that side is hidden.
    if (across[2] * out > 0.35) return [];
    const [x, y] = meshPoint(face, i, long);
    const depth = [0, 1].map((c) => back[c] * 0.8 + across[c] * out * 0.6);
    const centre = [x + depth[0] * 0.09 * width - down[0] * 0.04 * width, y + depth[1] * 0.09 * width - down[1] * 0.04 * width];
    return [
      Array.from({ length: 24 }, (_, k): [number, number] => {
        const [c, s] = [Math.cos((k * Math.PI) / 12), Math.sin((k * Math.PI) / 12)];
        return [
          centre[0] + depth[0] * c * 0.15 * width + down[0] * s * 0.24 * width,
          centre[1] + depth[1] * c * 0.15 * width + down[1] * s * 0.24 * width,
        ];
      }),
    ];
  });
}

/** Beside the face from temple to the corner of the mouth, on either side, between 0.06 and 0.3 face widths out: where hair falls. */
export function sideBands(face: Face, long: number): Outline[] {
  const width = faceWidth(face, long);
  const middle = meshPoint(face, 168, long);
  return [
    [127, 234, 93, 132],
    [356, 454, 323, 361],
  ].map((side) => {
    const along = side.map((i) => meshPoint(face, i, long));
    const out = (by: number) =>
      along.map(([x, y]): [number, number] => {
        const [ax, ay] = across(face);
        // Straight out to the side that the point lies on.
        const way = (x - middle[0]) * ax + (y - middle[1]) * ay < 0 ? -1 : 1;
        return [x + ax * way * by * width, y + ay * way * by * width];
      });
    return [...out(0.06), ...out(0.3).reverse()];
  });
}

/** Along the line of the eyes, in the picture. */
function across(face: Face): [number, number] {
  const [right, left] = [meshPoint(face, 33, 1), meshPoint(face, 263, 1)];
  const length = Math.hypot(left[0] - right[0], left[1] - right[1]) || 1;
  return [(left[0] - right[0]) / length, (left[1] - right[1]) / length];
}

/** Corners of a box about a head with its hair: 1.7 face widths to the sides, 1.5 up and 2.6 down. */
export function headExtent(face: Face, long: number): Outline {
  const width = faceWidth(face, long);
  const [x, y] = meshPoint(face, 168, long);
  return [
    [x - 1.7 * width, y - 1.5 * width],
    [x + 1.7 * width, y + 2.6 * width],
  ];
}

/** The outline of the lips, widened by a tenth of the face's width. */
export function mouthExtent(face: Face, long: number): Outline {
  const by = 0.1 * faceWidth(face, long);
  return outlineOf(face, 'lips', long).flatMap(([x, y]): Outline => [
    [x - by, y - by],
    [x + by, y + by],
  ]);
}

/** The convex hull of all of a face's mesh (Andrew's monotone chain, 1979): on a face from the side its nose lies outside the oval. */
export function hullOf(face: Face, long: number): Outline {
  const points = Array.from({ length: MESH_POINTS }, (_, i) => meshPoint(face, i, long)).sort((a, b) => a[0] - b[0] || a[1] - b[1]);
  const side = (o: readonly number[], a: readonly number[], b: readonly number[]) => (a[0] - o[0]) * (b[1] - o[1]) - (a[1] - o[1]) * (b[0] - o[0]);
  const half = (list: Outline): Outline => {
    const out: Outline = [];
    for (const p of list) {
      while (out.length >= 2 && side(out[out.length - 2], out[out.length - 1], p) <= 0) out.pop();
      out.push(p);
    }
    return out.slice(0, -1);
  };
  return [...half(points), ...half([...points].reverse())];
}
