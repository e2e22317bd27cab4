import type { Params } from '../../graph/node';
import type { Lay } from '../../lay/lay';
import { sourceByKind } from '../../sources';
import { defineNode } from './node';

/** What a coat starts from, where it lies; with the input `own`, what the step before it has laid. */
export default defineNode<{ source: Params; lay: Lay }>({
  planes: 4,
  isCheap: ({ source }) => source.kind === 'colour',
  draw(context, region, { source, lay }) {
    const { x, y, width, height } = region;
    const tile = context.node.inputs.own === undefined ? context.scratch.tile({ x, y, width, height }) : context.pull('own', region);
    const { fill, kind } = sourceByKind(source.kind as string);
    if (!fill) throw new Error(`The source "${String(kind)}" is another node.`);
    fill(Object.assign(context.puller.contextOf(context.index, tile), { lay }), tile, source);
    return tile;
  },
});
