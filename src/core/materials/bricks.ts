import type { Field } from './field';
import { lookedUp } from './making/operations/arithmetic';
import { bricks } from './making/operations/structures';
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

/** Lays pieces over bent coordinates. */
export function layBricks(sheet: Sheet, at: { x: Field; y: Field }, courses: Courses): Laid {
  const { random } = sheet;
  const { rows, perRow, height, length, joint, bond, headers = false, count, stray, joints, corners } = courses;
  const table: number[] = [];
  for (let i = 0; i < count; i++) {
    table.push(...stray.map((deviation) => deviation * random.gauss()));
    for (let side = 0; side < 4; side++) table.push(random.between(...joints));
    table.push(random.between(...corners));
  }
  const laid = { rows, perRow, rowHeight: height, stretcher: length, joint, bond, headers: +headers, table };
  const [inside, id, px, py] = sheet.stepOf(bricks, laid, [at.x, at.y]);
  const each = (make: () => number) => sheet.step(lookedUp, { table: Array.from({ length: count }, make) }, id);
  return { inside, px, py, each };
}
