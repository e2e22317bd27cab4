import type { Machine } from '../../image/machine';

/** An area in kernel memory: f32 values and one byte a value: 0 known, 1 sought, 2 left out. */
export interface Membrane {
  values: number;
  mask: number;
  width: number;
  height: number;
}

const half = (n: number) => (n + 1) >> 1;
const aligned = (n: number) => Math.ceil(n / 16) * 16;

/** Bytes for an area's mask and values, and for the coarser grids that solving it needs. */
export function membraneBytes(width: number, height: number): number {
  let bytes = aligned(width * height) + 4 * width * height + 64;
  for (let [w, h] = [width, height]; ; [w, h] = [half(w), half(h)]) {
    bytes += 3 * aligned(4 * w * h);
    if (w <= 2 && h <= 2) return bytes;
  }
}

/** Largest error of the equation at which the solution is taken as exact, in values 0..1: a fiftieth of a level. */
const ENOUGH = 1 / 255 / 50;
const MOST_CYCLES = 24;

/**
 * Fills what is sought with the membrane through what is known: the discrete Laplace equation with the known values around it, free at the
 * picture's edge. V-cycles of multigrid (Briggs, Henson & McCormick, A Multigrid Tutorial, 2000, chapter 3), in working memory from `scratch`.
 */
export function solveMembrane(machine: Machine, membrane: Membrane, scratch: number): void {
  const grids = [{ ...membrane, right: aligned(scratch) }];
  let next = grids[0].right + aligned(4 * membrane.width * membrane.height);
  for (let { width: w, height: h } = membrane; w > 2 || h > 2;) {
    [w, h] = [half(w), half(h)];
    const plane = aligned(4 * w * h);
    grids.push({ width: w, height: h, values: next, right: next + plane, mask: next + 2 * plane });
    next += 3 * plane;
  }
  const { kernels, bytes } = machine;
  bytes.fill(0, grids[0].right, grids[0].right + 4 * membrane.width * membrane.height);
  for (let cycle = 0; cycle < MOST_CYCLES; cycle++) {
    let error = 0;
    for (let l = 0; l + 1 < grids.length; l++) {
      const [fine, coarse] = [grids[l], grids[l + 1]];
      kernels.relax(fine.values, fine.right, fine.mask, fine.width, fine.height, 2);
      const most = kernels.coarsen(fine.values, fine.right, fine.mask, fine.width, fine.height, coarse.values, coarse.right, coarse.mask);
      if (l === 0) error = most;
    }
    const last = grids[grids.length - 1];
    kernels.relax(last.values, last.right, last.mask, last.width, last.height, 4);
    for (let l = grids.length - 2; l >= 0; l--) {
      kernels.refine(grids[l].values, grids[l].mask, grids[l].width, grids[l].height, grids[l + 1].values);
      kernels.relax(grids[l].values, grids[l].right, grids[l].mask, grids[l].width, grids[l].height, 2);
    }
    if (error < ENOUGH / 4 && cycle > 0) return;
  }
}
