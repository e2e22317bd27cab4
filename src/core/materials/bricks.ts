import type { Field } from './field';
import type { Sheet } from './sheet';

/** How pieces of masonry are laid, in fractions of the long side, and how much each differs. */
export interface Courses {
  rows: number;
  perRow: number;
  height: number;
  length: number;
  joint: number;
  /** How far every other course is shifted, in pieces. */
  bond: number;
  /** Every other course of twice as many headers. */
  headers?: boolean;
  /** How many pieces there are in all. */
  count: number;
  /** Deviations of a piece's place across and down, and of its turn. */
  stray: [number, number, number];
  /** Least and most of its joints, and of its corners' radius. */
  joints: [number, number];
  corners: [number, number];
}

export interface Laid {
  /** Signed distance to a piece's edge, positive inside. */
  inside: Field;
  /** Position from its centre. */
  px: Field;
  py: Field;
  /** A plane with a number of its own for each piece. */
  each(make: () => number): Field;
}

/** Lays pieces over bent coordinates, which are freed. */
export function layBricks(sheet: Sheet, at: { x: Field; y: Field }, courses: Courses): Laid {
  const { random, machine } = sheet;
  const { rows, perRow, height, length, joint, bond, headers = false, count, stray, joints, corners } = courses;
  const table: number[] = [];
  for (let i = 0; i < count; i++) {
    table.push(...stray.map((deviation) => deviation * random.gauss()));
    for (let side = 0; side < 4; side++) table.push(random.between(...joints));
    table.push(random.between(...corners));
  }
  const [inside, id, px, py] = [0, 1, 2, 3].map(() => sheet.plane());
  const [w, h] = [sheet.width, sheet.height];
  sheet.table(table, (t) =>
    machine.kernels.bricks({
      inside: inside.ptr,
      id: id.ptr,
      px: px.ptr,
      py: py.ptr,
      w,
      h,
      u: at.x.ptr,
      v: at.y.ptr,
      rows,
      perRow,
      rowHeight: height,
      stretcher: length,
      joint,
      table: t,
      bond,
      headers: +headers,
    }),
  );
  sheet.release(at.x, at.y);
  const each = (make: () => number) => {
    const out = sheet.plane();
    sheet.table(Array.from({ length: count }, make), (t) => machine.kernels.lookUp(out.ptr, id.ptr, t, sheet.count));
    return out;
  };
  return { inside, px, py, each };
}
