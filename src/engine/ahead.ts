import type { DrawnAhead, Graph, GraphNode } from '../core/graph/node';
import { pruned } from '../core/graph/node';
import { slotAt, slotBytes, stampBytes, tilesOf } from '../core/graph/slot';
import { postedPlan, unitOfPlan, type Plan } from '../core/render/plan';
import { reachesOf } from '../core/render/reach';
import { shrinkOf, treatmentReach } from '../core/treatments/run';
import { treatmentByKind } from '../core/treatments';
import type { DrawOptions } from './drawing';
import { NO_ROOM, type Region } from '../core/image/tile';
import type { Pool } from './pool';

/** With no more tiles than this it is not worth while. */
const FEW = 4;
/** Side of a tile of a smaller drawing: large, so that its halo costs less than the tile itself. */
const SIDE = 256;
/** Pixels around the picture that are drawn too, besides what the treatment reads around itself: what is enlarged at the frame's edge. */
const MARGIN = 24;
/** Most bytes of one smaller drawing. */
const MOST = 24 * 2 ** 20;
/** Nodes of these kinds are quicker to draw again than to keep. */
const PLAIN = ['framed', 'source', 'even'];

/**
 * Smaller drawings that are made before a large one. Without them, a treatment that works on a smaller drawing would repeat that work for every tile,
 * each time with a halo that is many times larger than the tile itself.
 */
export class Ahead {
  private address = 0;
  private bytes = 0;

  constructor(private readonly pool: Pool) {}

  /** Draws what the nodes of a plan want smaller, and tells them where it lies; the returned function frees it. */
  async draw(plan: Plan, options: DrawOptions): Promise<() => void> {
    const taken: number[] = [];
    const release = () => taken.forEach((at) => this.pool.heap.give(at));
    if (!this.pool.shared || tilesOf(plan.region, plan.tile).count <= FEW || !isMostOf(plan)) return release;
    try {
      const { graph } = plan;
      const unit = unitOfPlan(plan);
      const reaches = reachesOf(graph, unit);
      for (let i = 0, end = graph.nodes.length; i < end; i++) {
        const node = graph.nodes[i];
        const factor = node.op === 'treatment' && reaches.to(i, graph.root) !== null ? shrinkOf(node.params, unit) : 1;
        if (factor === 1) continue;
        const works = treatmentByKind(node.params.kind as string).worksSmaller === true;
        const wanted = works ? i : node.inputs.own;
        if (!works && isPlain(graph, wanted)) continue;
        if (graph.nodes[wanted].ahead?.some((one) => one.factor === factor)) continue;
        const margin = MARGIN + (works ? 0 : treatmentReach(node.params, unit / factor));
        const made = await this.make(plan, wanted, { factor, margin }, options, taken);
        if (!made) continue;
        graph.nodes[wanted] = { ...graph.nodes[wanted], ahead: [...(graph.nodes[wanted].ahead ?? []), made] };
      }
      return release;
    } catch (error) {
      release();
      throw error;
    }
  }

  private async make(
    plan: Plan,
    root: number,
    { factor, margin }: { factor: number; margin: number },
    options: DrawOptions,
    taken: number[],
  ): Promise<DrawnAhead | null> {
    const { frame, scale } = plan;
    const [width, height] = [frame.width, frame.height].map((side) => Math.ceil((side * scale) / factor));
    const region: Region = { x: -margin, y: -margin, width: width + 2 * margin, height: height + 2 * margin };
    const bytes = slotBytes(region, SIDE, 0, 4);
    if (bytes > MOST) return null;
    const at = this.pool.heap.take(bytes);
    taken.push(at);
    // What lies there from before must not pass for a stamp.
    this.pool.machine?.bytes.fill(0, at, at + stampBytes(tilesOf(region, SIDE).count));
    const slot = slotAt(at, region, SIDE, 0, 4, 1);
    const nodes = plan.graph.nodes.map((node, i): GraphNode => ({
      ...node,
      kept: i === root ? slot : undefined,
      grown: undefined,
    }));
    const smaller: Plan = { graph: pruned({ nodes, root }), frame, scale: scale / factor, region, tile: SIDE, factor };
    try {
      const nothing = () => undefined;
      await this.pool.draw(postedPlan(smaller), () => this.room(region.width * region.height * 4), nothing, { signal: options.signal });
    } catch (error) {
      // It is only quicker: without it every tile does its own part.
      if ((error as Error).message === NO_ROOM) return null;
      throw error;
    }
    return { factor, region, tile: SIDE, slot };
  }

  /** Where the smaller drawings' bytes go, which nobody reads. */
  private room(bytes: number): number {
    if (this.bytes < bytes) {
      if (this.bytes > 0) this.pool.heap.give(this.address);
      this.address = this.pool.heap.take(bytes);
      this.bytes = bytes;
    }
    return this.address;
  }
}

/** True when a plan draws most of its picture. */
function isMostOf({ region, frame, scale }: Plan): boolean {
  return region.width * region.height > 0.4 * frame.width * scale * frame.height * scale;
}

/** True when a node is nothing but a picture in its place. */
function isPlain({ nodes }: Graph, index: number): boolean {
  const { op, inputs } = nodes[index];
  return PLAIN.includes(op) && Object.values(inputs).every((input) => isPlain({ nodes, root: input }, input));
}
