import type { Region, Tile } from '../../image/tile';
import { defineNode, type NodeContext } from './node';

/**
 * What a source is beyond the picture's frame, for treatments that may draw that in: its other side (`wrap`), or the value at the frame's edge
 * (`extend`), so that no treatment draws in what a material does not cover.
 */
export default defineNode<{ how: 'wrap' | 'extend' }>({
  planes: 4,
  isCheap: () => true,
  draw(context, region, { how }) {
    const tile = context.pull('own', region);
    if (how === 'wrap') wrapAround(context, tile);
    else extend(context, tile);
    return tile;
  },
});

function wrapAround(context: NodeContext, tile: Tile): void {
  const { machine, scratch } = context;
  const [w, h] = [Math.round(context.width), Math.round(context.height)];
  for (const dx of [-w, 0, w]) {
    for (const dy of [-h, 0, h]) {
      const x = Math.max(tile.x, dx);
      const y = Math.max(tile.y, dy);
      const width = Math.min(tile.x + tile.width, dx + w) - x;
      const height = Math.min(tile.y + tile.height, dy + h) - y;
      if ((dx === 0 && dy === 0) || width <= 0 || height <= 0) continue;
      const mark = scratch.mark();
      const region: Region = { x: x - dx, y: y - dy, width, height };
      const part = context.pull('own', region);
      const at = ((y - tile.y) * tile.width + x - tile.x) * 4;
      for (let c = 0; c < 4; c++)
        machine.kernels.copyWindow(part.ptr + c * part.stride, width, tile.ptr + c * tile.stride + at, tile.width, width, height);
      scratch.release(mark);
    }
  }
}

function extend({ machine, width, height }: NodeContext, tile: Tile): void {
  const { x, y } = tile;
  const [right, bottom] = [Math.round(width), Math.round(height)];
  if (x >= 0 && y >= 0 && x + tile.width <= right && y + tile.height <= bottom) return;
  for (let c = 0; c < 4; c++) machine.kernels.extendEdges(tile.ptr + c * tile.stride, tile.width, tile.height, -x, -y, right - x, bottom - y);
}
