import type { Params } from '../../graph/node';
import { enlargeFrom, reducedRegion } from '../../image/far';
import { grow, padded } from '../../image/tile';
import { drawPart, drawWhole, maskReduction, partReach, wholeReach, type WholeMask } from '../../mask/draw';
import { defineNode, type NodeContext } from './node';

/** A mask of one value everywhere. */
export const even = defineNode<{ value: number }>({
  planes: 1,
  isCheap: () => true,
  draw: ({ puller }, region, { value }) => puller.plane(region, value),
});

/** A part of a mask, joined to the input `own`: the mask up to it. */
export const part = defineNode<Params>({
  planes: 1,
  reach: (params, input, { unit }) => (input === 'own' ? 0 : partReach(params, unit)),
  draw(context, region, params) {
    const mask = context.pull('own', region);
    drawPart(context.puller.contextOf(context.index, mask), mask.ptr, region, params);
    return mask;
  },
});

interface Whole extends WholeMask {
  /** The widest feather of the parts, in u. */
  widest: number;
}

const readsAround = (params: Whole, unit: number): number => partReach({ kind: 'tones', feather: params.widest }, unit) + wholeReach(params, unit);

/** What is done with the whole of a mask. One that reads far, its parts' feathers included, is drawn smaller. */
export const whole = defineNode<Whole>({
  planes: 1,
  reach: (params, _input, { unit }) => (maskReduction(readsAround(params, unit)) > 1 ? null : wholeReach(params, unit)),
  drawsSmaller: (params, unit) => maskReduction(readsAround(params, unit)) > 1,
  draw(context, region, params) {
    const { puller, machine, unit } = context;
    const factor = maskReduction(readsAround(params, unit));
    if (factor > 1) return drawReduced(context, region, factor);
    const rim = wholeReach(params, unit);
    const wide = grow(region, rim);
    const mask = context.pull('own', wide);
    drawWhole(context, mask.ptr, wide, params);
    if (rim === 0) return mask;
    const { x, y, width, height } = region;
    // Rows move only towards lower addresses, and in order, so none is overwritten before it has moved.
    machine.kernels.copyWindow(mask.ptr + (rim * wide.width + rim) * 4, wide.width, mask.ptr, width, width, height);
    const count = padded(width, height);
    return puller.trimmed(mask, { x, y, width, height, ptr: mask.ptr, stride: count * 4, count }, 1);
  },
});

function drawReduced({ puller, index, machine, scratch }: NodeContext, region: Parameters<typeof reducedRegion>[0], factor: number) {
  const out = puller.plane(region, 0);
  const mark = scratch.mark();
  const small = puller.reduced(factor).pull(index, reducedRegion(region, factor));
  enlargeFrom(machine, scratch, small, factor, out, 1);
  // The curve between the pixels may swing a little beyond what they hold.
  machine.kernels.clampTo(out.ptr, out.count, 0, 1);
  scratch.release(mark);
  return out;
}
