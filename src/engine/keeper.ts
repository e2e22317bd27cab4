import { LRUCache } from 'lru-cache';
import type { KeptTiles } from '../core/graph/node';
import { slotAt, slotBytes, stampBytes, tilesOf } from '../core/graph/slot';
import { nodeTypeOf } from '../core/render/nodes';
import { unitOfPlan, type Plan } from '../core/render/plan';
import { reachesOf } from '../core/render/reach';
import { MemoryCache } from './memoryCache';
import type { Pool } from './pool';

/** Bytes of tiles kept between drawings, and most that those of one node may take. */
const MOST_BYTES = 256 * 2 ** 20;
const MOST_OF_ONE = 80 * 2 ** 20;
/** Drawings with larger tiles are made once: nothing is kept of them. */
const LARGEST_TILE = 128;
/** Places (region and scale) whose last drawing is remembered. */
const PLACES = 24;

/** Values of 16 bits that a pixel of a plane of f32 takes. */
const F32 = 2;

/**
 * Decides which nodes of a drawing are kept for the next one: those that stayed the same while what reads them changed, and what the coat that is being
 * worked on reads. Nodes are told apart by their keys alone.
 */
export class Keeper {
  private readonly slots: MemoryCache<number>;
  private readonly last = new LRUCache<string, Set<number>>({ max: PLACES });
  private stamps = 0;

  constructor(private readonly pool: Pool) {
    this.slots = new MemoryCache(pool.heap, { maxBytes: MOST_BYTES });
  }

  clear(): void {
    this.slots.clear();
    this.last.clear();
  }

  /**
   * Gives nodes of a plan places where their tiles are kept, and holds these until the returned function is called.
   *
   * @param chosen - The coat that is being worked on.
   */
  keep(plan: Plan, chosen?: string): () => void {
    const { graph, region, scale, tile } = plan;
    if (!this.pool.shared || tile > LARGEST_TILE) return () => undefined;
    const { nodes, root } = graph;
    const where = [region.x, region.y, region.width, region.height, scale, tile].join();
    const before = this.last.get(where);
    const reaches = reachesOf(graph, unitOfPlan(plan));
    const wanted = new Set<number>();
    for (const reader of nodes) {
      const changes = before !== undefined && !before.has(reader.key);
      if (!changes && !(reader.of !== undefined && reader.of === chosen)) continue;
      for (const input of Object.values(reader.inputs)) if (!before || before.has(nodes[input].key)) wanted.add(input);
    }
    const releases: (() => void)[] = [];
    const place = (name: string, margin: number, values: number, isWanted: boolean): KeptTiles | undefined => {
      const key = `${name}|${where}|${margin}`;
      const stamp =
        this.slots.get(key) ?? (isWanted ? this.make(key, slotBytes(region, tile, margin, values), tilesOf(region, tile).count) : undefined);
      if (stamp === undefined) return undefined;
      releases.push(this.slots.use(key));
      return slotAt(this.slots.addressOf(key), region, tile, margin, values, stamp);
    };
    nodes.forEach((node, i) => {
      const { planes, isCheap } = nodeTypeOf(node.op);
      const margin = i === root ? null : reaches.to(i, root);
      if (margin !== null && !isCheap?.(node.params)) node.kept = place(`${node.key}`, margin, planes, wanted.has(i));
      // What grows is another node with every stroke of the brush, and yet goes on from what it was.
      const own = reaches.to(i, root);
      if (node.grows !== undefined && own !== null)
        node.grown = place(`${node.grows}|${plan.frame.width}x${plan.frame.height}`, own, F32, before !== undefined && !before.has(node.key));
    });
    this.last.set(where, new Set(nodes.map((node) => node.key)));
    return () => releases.forEach((release) => release());
  }

  private make(key: string, bytes: number, tiles: number): number | undefined {
    if (bytes > MOST_OF_ONE) return undefined;
    this.slots.makeRoom(bytes);
    const stamp = ++this.stamps;
    const at = this.pool.heap.take(bytes);
    // What lies there from before must not pass for a stamp.
    this.pool.machine?.bytes.fill(0, at, at + stampBytes(tiles));
    this.slots.put(key, at, bytes, stamp);
    return stamp;
  }
}
