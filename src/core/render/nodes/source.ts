import type { Params } from '../../graph/node';
import type { Lay } from '../../lay/lay';
import { sourceByKind } from '../../sources';
import { defineNode } from './node';

/** What a coat starts from, where it lies. */
export default defineNode<{ source: Params; lay: Lay }>({
  planes: 4,
  isCheap: ({ source }) => source.kind === 'colour',
  draw(context, { x, y, width, height }, { source, lay }) {
    const tile = context.scratch.tile({ x, y, width, height });
    const { fill, kind } = sourceByKind(source.kind as string);
    if (!fill) throw new Error(`The source "${String(kind)}" is another node.`);
    fill(Object.assign(context, { lay }), tile, source);
    return tile;
  },
});
