import { defineOperation, type Making } from '../operation';

// Regular structures, worked out from the place of each point.

const count = ({ region }: Making): number => region.width * region.height;

interface WorleyParams {
  lattice: { a: number; b: number; n: number; t: number };
  stretch: number;
  seed: number;
}

/** Distances to the three nearest points of a jittered lattice, in cells, at the places x and y. */
export const worley = defineOperation<WorleyParams>({
  name: 'worley',
  planes: 3,
  run: (making, { lattice, stretch, seed }) => {
    const [f1, f2, f3] = making.out;
    const [x, y] = making.inputs.map(({ ptr }) => ptr);
    making.machine.kernels.worley({ f1, f2, f3, count: count(making), ...lattice, sx: stretch, seed, x, y, cache: making.grab(168) });
  },
});

/** A periodic grid of side × side values over the sheet, at the places x and y. */
export const gridded = defineOperation<{ grid: Float32Array; side: number }>({
  name: 'gridded',
  run: (making, { grid, side }) => {
    const [x, y] = making.inputs.map(({ ptr }) => ptr);
    making.machine.kernels.readGrid(making.table(grid), side, making.out[0], count(making), x, y);
  },
});

/** How deep the places x and y lie in the union of discs, in fractions of the long side; negative outside. */
export const depthInDiscs = defineOperation<{ discs: readonly { x: number; y: number; r: number }[] }>({
  name: 'depthInDiscs',
  run: (making, { discs }) => {
    const [x, y] = making.inputs.map(({ ptr }) => ptr);
    const table = making.table(Float32Array.from(discs.flatMap((disc) => [disc.x, disc.y, disc.r])));
    making.machine.kernels.discDepth(x, y, making.out[0], count(making), table, discs.length);
  },
});

interface BricksParams {
  rows: number;
  perRow: number;
  rowHeight: number;
  stretcher: number;
  joint: number;
  bond: number;
  headers: number;
  table: number[];
}

/** Pieces of masonry at bent places: depth inside the piece, its number, and the position from its middle. */
export const bricks = defineOperation<BricksParams>({
  name: 'bricks',
  planes: 4,
  run: (making, { table, ...courses }) => {
    const [inside, id, px, py] = making.out;
    const [u, v] = making.inputs.map(({ ptr }) => ptr);
    making.machine.kernels.bricks({ inside, id, px, py, total: count(making), u, v, ...courses, table: making.table(table) });
  },
});

interface WeaveParams {
  warp: number;
  weft: number;
  samples: number;
  /** Offsets and half widths of the threads that run down and of those across. */
  tables: { offDown: Float32Array; widDown: Float32Array; offAcross: Float32Array; widAcross: Float32Array };
  meanWidth: number;
  bow: number;
  gap: number;
  twist: number;
  seed: number;
}

/** Turns of a thread's twist across half its width, and fibres to a turn. */
const TWIST = 0.42;
const FIBRES = 12;

/** A plain weave at bent places in pitches: height in thread radii, a tone for each thread, and its fibres where a sheet is large enough for them. */
export const woven = defineOperation<WeaveParams>({
  name: 'woven',
  planes: 3,
  run: (making, { samples, tables, ...cloth }) => {
    const [height, tone, fibre] = making.out;
    // Half a thread is so many pixels wide; a fibre is seen from about three on.
    const half = (cloth.meanWidth * making.frame.size) / Math.max(cloth.warp, cloth.weft);
    const wide = half / (TWIST * FIBRES);
    const fine = Math.min(1, Math.max(0, (wide - 1.2) / 1.6));
    const [u, v] = making.inputs.map(({ ptr }) => ptr);
    const [offDown, widDown, offAcross, widAcross] = [tables.offDown, tables.widDown, tables.offAcross, tables.widAcross].map((t) => making.table(t));
    const placed = { offDown, widDown, offAcross, widAcross, samplesDown: samples, samplesAcross: samples };
    making.machine.kernels.weave({ height, tone, fibre, fibres: FIBRES, fine, total: count(making), u, v, ...cloth, ...placed });
  },
});

/** Boards cut from a trunk: late wood, knots, the number of the board, and the distance to its nearest edge. */
export const timber = defineOperation<{ boards: number[]; total: number }>({
  name: 'timber',
  planes: 4,
  run: (making, { boards, total }) => {
    const [late, knot, id, gap] = making.out;
    const [px, py, wobble] = making.inputs.map(({ ptr }) => ptr);
    making.machine.kernels.timber({ late, knot, id, gap, total: count(making), px, py, wobble, boards: making.table(boards), count: total });
  },
});
