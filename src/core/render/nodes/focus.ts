import { defineNode } from './node';

/** How far out of focus the photo is: the standard deviation of the Gaussian that has blurred each place, in pixels, in the first plane. */
export default defineNode<{ sigma: number }>({
  planes: 4,
  isCheap: () => true,
  draw(context, region, { sigma }) {
    const { machine, scale } = context;
    const tile = context.pull('found', region);
    const { ptr, count } = tile;
    if (context.isAbsent('found')) machine.kernels.fill(ptr, count, 0);
    // The region is the root of the deviation, so that small ones keep their steps.
    machine.kernels.times(ptr, ptr, count, sigma * scale, 0);
    return tile;
  },
});
