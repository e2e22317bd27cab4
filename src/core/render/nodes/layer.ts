import clear from './clear';
import { defineNode } from './node';

interface LayerParams {
  limits: readonly [number, number, number, number];
  guards: number;
}

/** One coat alone on a transparent background. Its alpha holds its mask, its tonal limits and the guards. It has the same inputs as the node `coat`. */
export default defineNode<LayerParams>({
  planes: 4,
  draw(context, region, { limits, guards }) {
    const { puller, node, machine, scratch } = context;
    const { kernels } = machine;
    const tile = clear.draw(context, region, {});
    const mark = scratch.mark();
    const mask = node.inputs.mask === undefined ? puller.plane(region, 1) : context.pull('mask', region);
    const [b0, b1, w0, w1] = limits;
    if (b1 > 0 || w0 < 1) {
      const below = context.read('below', region);
      kernels.maskLimits(mask.ptr, below.ptr, below.stride, below.count, b0, b1, w0, w1);
    }
    if (node.inputs.guard !== undefined && !context.isAbsent('guard'))
      kernels.holdBack(mask.ptr, context.read('guard', region).ptr, tile.count, guards);
    kernels.blend(0, tile.ptr, context.read('source', region).ptr, mask.ptr, tile.stride, tile.count, 1);
    scratch.release(mark);
    return tile;
  },
});
