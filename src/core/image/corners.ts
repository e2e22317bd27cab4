import type { Point } from './projection';

/** Four points that go round clockwise, the left upper one first. */
export type Corners = [Point, Point, Point, Point];

export const wholeCorners: Corners = [
  [0, 0],
  [1, 0],
  [1, 1],
  [0, 1],
];

/** Whether four points go round in order without a dent, so that they can be the corners of a picture. */
export function isConvex(corners: Corners): boolean {
  return corners.every(([x, y], i) => {
    const [bx, by] = corners[(i + 1) % 4];
    const [cx, cy] = corners[(i + 2) % 4];
    return (bx - x) * (cy - by) - (by - y) * (cx - bx) > 1e-4;
  });
}
