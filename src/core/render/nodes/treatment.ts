import type { Params } from '../../graph/node';
import { grow, shrink } from '../../image/tile';
import {
  applyAndMaybeCut,
  applyInStrips,
  drawsTreatmentSmaller,
  layOver,
  moverOf,
  readsSmallerAlone,
  treatmentReach,
  type Step,
} from '../../treatments/run';
import { defineNode, type NodePuller } from './node';

/** True when a node is a treatment that reads nothing around a pixel. */
function isPointwise({ graph: { nodes }, extent: { unit } }: NodePuller, index: number): boolean {
  const { op, params } = nodes[index];
  return op === 'treatment' && treatmentReach(params, unit) === 0 && !drawsTreatmentSmaller(params, unit);
}

/** A treatment of a coat or of the photo, with the input `own` that it starts from. Neighbours that read nothing around a pixel are drawn together. */
export default defineNode<Params>({
  planes: 4,
  // What it reads of its other inputs, it reads over the tile that it starts from.
  reach: (params, _input, { unit }) => (readsSmallerAlone(params, unit) ? null : treatmentReach(params, unit)),
  drawsSmaller: drawsTreatmentSmaller,
  draw(context, region, params) {
    const { puller, index, machine, unit } = context;
    const run: number[] = [];
    let first = index;
    while (isPointwise(puller, first) && (first === index || !puller.isAtHand(first, region))) {
      run.unshift(first);
      first = puller.graph.nodes[first].inputs.own;
    }
    if (run.length > 0) {
      const tile = puller.pull(first, region);
      const steps = run.map((i): Step => ({ params: puller.graph.nodes[i].params, context: puller.contextOf(i, tile) }));
      applyInStrips(steps, tile);
      return tile;
    }
    const move = moverOf(params);
    if (move) return move(puller.contextOf(index, region), region, (where) => context.pull('own', where));
    const wanted = grow(region, treatmentReach(params, unit));
    const tile = readsSmallerAlone(params, unit) ? context.scratch.tile(wanted) : context.pull('own', wanted);
    const done = applyAndMaybeCut({ params, context: puller.contextOf(index, tile) }, tile);
    return puller.trimmed(tile, done.width === region.width && done.height === region.height ? done : shrink(machine, done, region), 4);
  },
});

/** The result of a treatment (`done`) over what it started from (`own`), by the treatment's strength and mode. */
export const laid = defineNode<Params>({
  planes: 4,
  draw(context, region, params) {
    const own = context.pull('own', region);
    const mark = context.scratch.mark();
    layOver(context, own, context.read('done', region), params);
    context.scratch.release(mark);
    return own;
  },
});
