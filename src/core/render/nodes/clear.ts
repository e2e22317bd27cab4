import { defineNode } from './node';

/** Nothing: what the coats of an isolated group lie on. */
export default defineNode({
  planes: 4,
  isCheap: () => true,
  draw({ machine, scratch }, { x, y, width, height }) {
    const tile = scratch.tile({ x, y, width, height });
    for (let c = 0; c < 4; c++) machine.kernels.fill(tile.ptr + c * tile.stride, tile.count, 0);
    return tile;
  },
});
