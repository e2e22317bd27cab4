import { fillLaid } from '../../lay/laid';
import type { Lay } from '../../lay/lay';
import { defineNode } from './node';

/**
 * Regions that hold coats back (`own`), with those of another picture where its cut-out lies over the photo: there the cut-out's own faces count, as far as it
 * covers. What the cut-out's steps do to its form is not followed.
 */
export default defineNode<{ lay: Lay; nominal: { width: number; height: number }; strength: number }>({
  planes: 4,
  draw(context, region, { lay, nominal, strength }) {
    const { machine, scratch, node } = context;
    const own = context.pull('own', region);
    // A quick drawing does without what has not been found yet.
    if (node.resources.guard === null) return own;
    const mark = scratch.mark();
    const [guard, alpha] = (['guard', 'alpha'] as const).map((name) => {
      const { x, y, width, height } = region;
      const tile = scratch.tile({ x, y, width, height });
      const { picture } = context.needed(name, 'picture');
      fillLaid(context, tile, { picture, nominal, held: picture }, lay);
      return tile;
    });
    machine.kernels.mixIn(alpha.ptr, alpha.ptr, alpha.count, strength, 0, 0);
    // Beside the picture nothing covers.
    machine.kernels.times(alpha.ptr, alpha.ptr + 3 * alpha.stride, alpha.count, 1, 0);
    machine.kernels.lerpTo(own.ptr, guard.ptr, alpha.ptr, own.count);
    scratch.release(mark);
    return own;
  },
});
