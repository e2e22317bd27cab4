import { blurPlane, blurReach } from '../../image/blur';
import { enlargeFrom, reducedRegion } from '../../image/far';
import { cutOut, grow, type Region } from '../../image/tile';
import { factorFor } from '../../treatments/small';
import { defineNode, type NodeContext } from './node';

/** Standard deviation, in u, of the Gaussian that leaves a coat its tone and takes its marks; and how many pixels that is where it is taken. */
const TONE = 24;
const WORKED = 3;

const factorOf = (unit: number) => factorFor(TONE * unit, WORKED);

/**
 * A coat held back by guards that follow its tone. What it changes is split in two by a wide Gaussian: its marks are held back by `guard`, its tone only by
 * `tone`, which is weaker. Inputs: `below`, the coat without guards as `free`, and the two guards.
 */
export default defineNode<{ guards: number }>({
  planes: 4,
  reach: (_params, input, { unit }) => ((input === 'below' || input === 'free') && factorOf(unit) === 1 ? blurReach(TONE * unit) : 0),
  drawsSmaller: (_params, unit) => factorOf(unit) > 1,
  draw(context, region, { guards }) {
    const { machine, scratch } = context;
    const free = context.pull('free', region);
    if (context.isAbsent('guard') || context.isAbsent('tone')) return free;
    const mark = scratch.mark();
    const below = context.read('below', region);
    const [guard, tone] = [context.read('guard', region), context.read('tone', region)];
    const low = lowChange(context, region);
    machine.kernels.follow({
      free: free.ptr,
      below: below.ptr,
      low: low.ptr,
      guard: guard.ptr,
      tone: tone.ptr,
      stride: free.stride,
      lowStride: low.stride,
      count: free.count,
      amount: guards,
    });
    scratch.release(mark);
    return free;
  },
});

/** What the coat changes, through a wide Gaussian: three planes over a region, in memory that the caller releases. */
function lowChange(context: NodeContext, region: Region) {
  const { machine, scratch, unit } = context;
  const factor = factorOf(unit);
  const sigma = (TONE * unit) / factor;
  const out = scratch.tile(region);
  const mark = scratch.mark();
  const wide = grow(factor === 1 ? region : reducedRegion(region, factor), blurReach(sigma));
  const change = factor === 1 ? cutOut(scratch, context.read('free', wide), wide) : context.smaller('free', factor, wide);
  const below = factor === 1 ? context.read('below', wide) : context.smaller('below', factor, wide);
  for (let c = 0; c < 3; c++) {
    const plane = change.ptr + c * change.stride;
    machine.kernels.mixIn(plane, below.ptr + c * below.stride, change.count, 1, -1, 0);
    blurPlane(machine, scratch, plane, wide.width, wide.height, sigma);
  }
  if (factor === 1)
    for (let c = 0; c < 3; c++) {
      const from = change.ptr + c * change.stride + ((region.y - wide.y) * wide.width + region.x - wide.x) * 4;
      machine.kernels.copyWindow(from, wide.width, out.ptr + c * out.stride, region.width, region.width, region.height);
    }
  else enlargeFrom(machine, scratch, change, factor, out, 3);
  scratch.release(mark);
  return out;
}
