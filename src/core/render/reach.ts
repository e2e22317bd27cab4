import type { Need } from '../graph/needs';
import type { Graph } from '../graph/node';
import { nodeTypeOf } from './nodes';
import type { NodeReaches } from './nodes/node';

/** How far around a region the nodes of a graph are read, at one scale. */
export class Reaches implements NodeReaches {
  private readonly from = new Map<number, (number | null)[]>();
  private readonly backdrops = new Map<number, number>();

  /** @param unit - Pixels to one u. */
  constructor(
    readonly graph: Graph,
    readonly unit: number,
  ) {}

  /** Pixels around a region that a node reads of one of its inputs; null where it reads it only on a smaller drawing. */
  of(index: number, input: string): number | null {
    const { op, params } = this.graph.nodes[index];
    const { reach } = nodeTypeOf(op);
    return reach ? reach(params, input, this, index) : 0;
  }

  /** Pixels around a region of `node` that are read of `target`, on the longest way to it; null where it is not read at this scale. */
  to(target: number, node: number): number | null {
    let list = this.from.get(target);
    if (!list) this.from.set(target, (list = [0]));
    // list[i] is the reach of the node `target + i`.
    for (let i = target + list.length; i <= node; i++) {
      let most: number | null = null;
      for (const [name, input] of Object.entries(this.graph.nodes[i].inputs)) {
        const beyond = input >= target ? list[input - target] : null;
        const own = beyond === null ? null : this.of(i, name);
        if (own !== null && beyond !== null) most = Math.max(most ?? 0, own + beyond);
      }
      list.push(most);
    }
    return node < target ? null : list[node - target];
  }

  /** Pixels around a region that a coat's source and mask together read of its backdrop. */
  ofBackdrop(coat: number): number {
    let most = this.backdrops.get(coat);
    if (most === undefined) {
      const { below, ...others } = this.graph.nodes[coat].inputs;
      most = Math.max(0, ...Object.values(others).map((node) => this.to(below, node) ?? 0));
      this.backdrops.set(coat, most);
    }
    return most;
  }

  /** The most that any node is read around a region of the root: how large a tile becomes with its halo. */
  get deepest(): number {
    return Math.max(0, ...this.graph.nodes.map((_, i) => this.to(i, this.graph.root) ?? 0));
  }
}

const known = new WeakMap<Graph, Map<number, Reaches>>();

/** The reaches of a graph at a scale, made once. */
export function reachesOf(graph: Graph, unit: number): Reaches {
  let scales = known.get(graph);
  if (!scales) known.set(graph, (scales = new Map()));
  let reaches = scales.get(unit);
  if (!reaches) scales.set(unit, (reaches = new Reaches(graph, unit)));
  return reaches;
}

/** Needs that are measured on a smaller photo or drawing. */
const MEASURED: readonly Need['need'][] = ['guard', 'cutout', 'contour', 'survey'];

/** True when something of a drawing at its full size is measured or drawn smaller: the photo is wanted in smaller sizes too. */
export const drawsSmaller = ({ nodes }: Graph, unit: number): boolean =>
  nodes.some(
    ({ op, params, needs }) => Object.values(needs).some(({ need }) => MEASURED.includes(need)) || nodeTypeOf(op).drawsSmaller?.(params, unit),
  );
