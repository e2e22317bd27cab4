import { modeById } from '../../blend';
import { cutOut, grow } from '../../image/tile';
import { defineNode } from './node';

interface CoatParams {
  blend: string;
  strength: number;
  limits: readonly [number, number, number, number];
  guards: number;
}

/** A coat blended onto its backdrop. Its inputs: `below`, `source`, where there are such `mask` and `guard`, and `seen`, which tonal limits go by in an isolated group. */
export default defineNode<CoatParams>({
  planes: 4,
  reach: (_params, input, reaches, index) => (input === 'below' ? reaches.ofBackdrop(index) : 0),
  draw(context, region, params) {
    const { puller, index, node, machine, scratch } = context;
    const { inputs } = node;
    const halo = puller.reaches.ofBackdrop(index);
    const ground = context.pull('below', grow(region, halo));
    const isOwned = scratch.mark() === puller.endOf(ground, 4);
    const target = halo > 0 ? cutOut(scratch, ground, region) : ground;
    // With a copy of its own to blend onto, the coat lets go of the ground: a source that is the only one to read it may change it where it lies.
    const release = puller.hold(inputs.below, ground, halo > 0 && puller.readersOf(index) === 1);
    const mask = inputs.mask === undefined ? puller.plane(region, 1) : context.pull('mask', region);
    const [b0, b1, w0, w1] = params.limits;
    if (b1 > 0 || w0 < 1) {
      const mark = scratch.mark();
      const seen = inputs.seen === undefined || inputs.seen === inputs.below ? target : context.read('seen', region);
      machine.kernels.maskLimits(mask.ptr, seen.ptr, seen.stride, target.count, b0, b1, w0, w1);
      scratch.release(mark);
    }
    if (inputs.guard !== undefined && !context.isAbsent('guard')) {
      const mark = scratch.mark();
      machine.kernels.holdBack(mask.ptr, context.read('guard', region).ptr, target.count, params.guards);
      scratch.release(mark);
    }
    // Where the mask hides it, a coat need not be drawn.
    const isSeen = inputs.mask === undefined || !machine.kernels.isNothing(mask.ptr, region.width * region.height);
    if (isSeen) {
      const source = inputs.source === inputs.below ? context.read('source', region) : context.pull('source', region);
      machine.kernels.blend(modeById(params.blend).kernel, target.ptr, source.ptr, mask.ptr, target.stride, target.count, params.strength);
    }
    release();
    if (!isOwned) return target;
    // The result takes the place of the ground, which is no smaller, so that what follows has the memory.
    if (target !== ground) machine.bytes.copyWithin(ground.ptr, target.ptr, target.ptr + 4 * target.stride);
    scratch.release(puller.endOf(target, 4) - target.ptr + ground.ptr);
    return { ...target, ptr: ground.ptr };
  },
});
