import { linearTable } from '../../color/srgb';
import { defineNode } from './node';

type Rgb = readonly [number, number, number];

/** One strength over all coats: between `photo` and `result`. */
export const mix = defineNode<{ strength: number }>({
  planes: 4,
  draw(context, region, { strength }) {
    const { machine, scratch } = context;
    const result = context.pull('result', region);
    const mark = scratch.mark();
    const photo = context.read('photo', region);
    machine.kernels.mixIn(result.ptr, photo.ptr, result.count * 4, strength, 1 - strength, 0);
    scratch.release(mark);
    return result;
  },
});

/** A colour over `result` where `mask` is; where it is not when `inverted`. The mask is one plane, or the first of a grey picture. */
export const tinted = defineNode<{ colour: Rgb; amount: number; inverted: boolean }>({
  planes: 4,
  draw(context, region, { colour, amount, inverted }) {
    const { kernels } = context.machine;
    const result = context.pull('result', region);
    const mark = context.scratch.mark();
    const mask = context.pull('mask', region);
    if (inverted) kernels.mixIn(mask.ptr, mask.ptr, result.count, -1, 0, 1);
    kernels.tintByMask(result.ptr, result.stride, mask.ptr, result.count, ...colour, amount);
    context.scratch.release(mark);
    return result;
  },
});

/** A mask as a grey picture. */
export const grey = defineNode({
  planes: 4,
  draw(context, { x, y, width, height }) {
    const { machine, scratch } = context;
    const tile = scratch.tile({ x, y, width, height });
    const mark = scratch.mark();
    const mask = context.read('mask', tile);
    for (let c = 0; c < 3; c++) machine.bytes.copyWithin(tile.ptr + c * tile.stride, mask.ptr, mask.ptr + tile.stride);
    machine.kernels.fill(tile.ptr + 3 * tile.stride, tile.count, 1);
    scratch.release(mark);
    return tile;
  },
});

/** A picture on mid grey, which shows where it does not cover. */
export const onGrey = defineNode({
  planes: 4,
  draw(context, { x, y, width, height }) {
    const { machine, scratch } = context;
    const { kernels } = machine;
    const ground = scratch.tile({ x, y, width, height });
    for (let c = 0; c < 4; c++) kernels.fill(ground.ptr + c * ground.stride, ground.count, c === 3 ? 1 : 0.5);
    const mark = scratch.mark();
    const source = context.read('source', ground);
    kernels.blend(0, ground.ptr, source.ptr, scratch.plane(ground.count, 1), ground.stride, ground.count, 1);
    scratch.release(mark);
    return ground;
  },
});

/** Colours of the view of differences: they grow darker as well as redder. */
const heats = [0.98, 0.86, 0.35, 0.9, 0.42, 0.12, 0.42, 0.05, 0.16] as const;

/** How far `result` differs from `photo`, in colours of heat. */
export const heat = defineNode({
  planes: 4,
  draw(context, region) {
    const { machine, scratch } = context;
    const result = context.pull('result', region);
    const mark = scratch.mark();
    const photo = context.read('photo', region);
    const linear = scratch.take(1024);
    machine.floats.set(linearTable, linear / 4);
    const { ptr, stride, width, height } = result;
    machine.kernels.heat({ tile: ptr, other: photo.ptr, stride, count: width * height, linear, work: scratch.take(64), heat: heats });
    scratch.release(mark);
    return result;
  },
});
