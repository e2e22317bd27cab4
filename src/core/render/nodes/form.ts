import { FIELD_SIDE } from '../../form/field';
import { defineNode } from './node';

/** Where textures that follow the faces on the photo are read: offsets in pixels, across in the first plane and down in the second. */
export default defineNode<object>({
  planes: 4,
  isCheap: () => true,
  draw(context, region) {
    const { machine, scratch, scale } = context;
    const { x, y, width, height } = region;
    const tile = scratch.tile({ x, y, width, height });
    for (let c = 0; c < 4; c++) machine.kernels.fill(tile.ptr + c * tile.stride, tile.count, 0);
    for (const { at, left, top, cell, most } of context.needed('form', 'form').fields) {
      // Values lie at pixel centres of the tile, and a cell apart in the readied photo.
      const [ox, oy] = [((x + 0.5) / scale - left) / cell, ((y + 0.5) / scale - top) / cell];
      machine.kernels.addOffsets({
        field: at,
        second: at + FIELD_SIDE ** 2 * 4,
        columns: FIELD_SIDE,
        rows: FIELD_SIDE,
        dx: tile.ptr,
        dy: tile.ptr + tile.stride,
        w: width,
        h: height,
        ox,
        oy,
        step: 1 / (scale * cell),
        gain: scale * most,
      });
    }
    return tile;
  },
});
