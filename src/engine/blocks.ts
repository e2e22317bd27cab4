import type { FineSheet, LoadedPicture } from '../core/graph/needs';
import type { GraphNode } from '../core/graph/node';
import type { Machine } from '../core/image/machine';
import type { Region } from '../core/image/tile';
import type { Frame, Lay, Size } from '../core/lay/lay';
import { continues, halvings, levelsOfPart, partFor, readingOf, WHOLE_SIDE, type Reading } from '../core/lay/reading';
import { bytesOfPlan, postedPlan, unitOfPlan, type Plan } from '../core/render/plan';
import { SHEET_GRID } from '../core/materials/windows';
import { reachesOf } from '../core/render/reach';
import type { DrawOptions } from './drawing';
import type { Pool } from './pool';
import { Parts, type Planned } from './parts';
import type { Sheets } from './sheets';

/** Most pixels of a picture that is drawn in one block: parts of all its sheets are in memory at once. */
const MOST = 4.2e6;
/** Most pixels across and down of one of several blocks: two windows with what is read around them. */
const ACROSS = 1510;
const DOWN = 754;
/** Most pixels that are drawn of a sheet in perspective for each pixel that a block reads of the drawing, and bounds of that. */
const MOST_READ = 8;
const MOST_OF_ONE = 16e6;
const LEAST_OF_ONE = 1e6;
/** Blocks that would need more are halved, down to this side. */
const LEAST_SIDE = 256;
/** Share of the time that windows take of a block's. */
const WINDOWS = 0.7;

/** A material of a node that is drawn in parts, and how it lies on the drawing. */
interface InParts {
  node: number;
  name: string;
  loaded: LoadedPicture;
  fine: FineSheet;
  lay: Lay;
  drawn: Frame;
  reading: Reading;
}

/** The materials that a plan reads in parts: smaller drawings, such as surveys, read whole pictures. */
export function inParts({ graph, frame, scale }: Plan): InParts[] {
  const drawn = { width: frame.width * scale, height: frame.height * scale, unit: unitOfPlan({ frame, scale }) };
  return graph.nodes.flatMap(({ needs, resources }, node) =>
    Object.entries(needs).flatMap(([name, need]): InParts[] => {
      const loaded = resources[name];
      if (need.need !== 'material' || loaded?.kind !== 'picture' || !loaded.fine || !loaded.nominal) return [];
      const { fine, nominal } = loaded;
      const reading = readingOf(need.lay, nominal, drawn, fine.held);
      return reading ? [{ node, name, loaded, fine, lay: need.lay, drawn, reading }] : [];
    }),
  );
}

/** The blocks in which a plan is drawn, one after another. */
export function blocksOf(plan: Plan): Region[] {
  const parts = inParts(plan);
  return blocksOfRegion(plan.region).flatMap((block) => halved(plan, parts, block));
}

/** The blocks of a region whose materials lie flat. */
export function blocksOfRegion(region: Region): Region[] {
  const { x, y, width, height } = region;
  if (width * height <= MOST) return [region];
  const cuts = (length: number, most: number) => {
    const count = Math.ceil(length / most);
    return Array.from({ length: count }, (_, i) => [Math.round((i * length) / count), Math.round(((i + 1) * length) / count)]);
  };
  return cuts(height, DOWN).flatMap(([top, bottom]) =>
    cuts(width, ACROSS).map(([left, right]) => ({ x: x + left, y: y + top, width: right - left, height: bottom - top })),
  );
}

/** A block cut in halves until none takes too much of a sheet in perspective. */
function halved(plan: Plan, parts: readonly InParts[], block: Region): Region[] {
  const { x, y, width, height } = block;
  const takesTooMuch = (part: InParts): boolean => {
    const by = part.lay.corners ? readBy(plan, block, part, true) : null;
    return !!by?.read && by.read.width * by.read.height > by.most;
  };
  if (Math.max(width, height) < 2 * LEAST_SIDE || !parts.some(takesTooMuch)) return [block];
  const [left, top] = [width >> 1, height >> 1];
  const halves =
    width > height
      ? [
          { x, y, width: left, height },
          { x: x + left, y, width: width - left, height },
        ]
      : [
          { x, y, width, height: top },
          { x, y: y + top, width, height: height - top },
        ];
  return halves.flatMap((half) => halved(plan, parts, half));
}

/** What a block reads of a sheet, within a limit unless `all` of it is wanted, and the sheet as finely as it is seen there; null where the whole picture will do. */
function readBy({ graph, frame, scale }: Plan, block: Region, { node, fine, lay, loaded, reading, drawn }: InParts, all = false) {
  const reach = reachesOf(graph, unitOfPlan({ frame, scale })).to(node, graph.root);
  if (reach === null) return null;
  const around = { x: block.x - reach, y: block.y - reach, width: block.width + 2 * reach, height: block.height + 2 * reach };
  const most = Math.max(LEAST_OF_ONE, Math.min(MOST_OF_ONE, MOST_READ * around.width * around.height));
  const limit = all ? Infinity : most;
  const smallest = fine.order.size / 2 ** halvings(reading, around);
  // One that is repeated meets itself at its edges.
  const size = continues(lay) ? Math.ceil(smallest / SHEET_GRID) * SHEET_GRID : Math.round(smallest);
  if (size === fine.order.size) return { read: partFor(reading, around, limit), fine, most };
  if (size <= WHOLE_SIDE) return null;
  const share = size / fine.order.size;
  const held = { width: fine.held.width * share, height: fine.held.height * share };
  const smaller = readingOf(lay, loaded.nominal as Size, drawn, held);
  return { read: smaller && partFor(smaller, around, limit), fine: { order: { ...fine.order, size }, held }, most };
}

/** Draws plans whose materials are drawn in parts: block after block, each with the parts that it reads. */
export class Blocks {
  private readonly parts: Parts;

  constructor(
    private readonly pool: Pool,
    private readonly sheets: Sheets,
  ) {
    this.parts = new Parts(pool);
  }

  clear(): void {
    this.parts.clear();
  }

  /** Draws a plan in memory of its own, since other drawings may come between two blocks. @throws Cancelled when stopped. */
  async draw<T>(plan: Plan, read: (pixels: Uint8Array<ArrayBuffer>, at: number) => T | Promise<T>, options: DrawOptions): Promise<T> {
    const bytes = plan.region.width * plan.region.height * bytesOfPlan(plan);
    const at = this.pool.heap.take(bytes);
    try {
      await this.drawTo(plan, at, options);
      return await read((this.pool.machine as Machine).bytes.subarray(at, at + bytes), at);
    } finally {
      this.pool.heap.give(at);
    }
  }

  private async drawTo(plan: Plan, at: number, options: DrawOptions): Promise<void> {
    const { region } = plan;
    const blocks = blocksOf(plan);
    const bytes = bytesOfPlan(plan);
    for (const [i, block] of blocks.entries()) {
      const tell = (share: number) => options.onProgress?.(Math.round((1000 * (i + share)) / blocks.length), 1000);
      const output = at + ((block.y - region.y) * region.width + block.x - region.x) * bytes;
      const { nodes, release } = await this.withParts(plan, block, { ...options, onProgress: (done, total) => tell((WINDOWS * done) / total) });
      try {
        const part: Plan = { ...plan, graph: { ...plan.graph, nodes }, region: block, pitch: region.width };
        const nothing = () => undefined;
        const { signal } = options;
        const onProgress = (done: number, total: number) => tell(WINDOWS + ((1 - WINDOWS) * done) / total);
        await this.pool.draw(postedPlan(part), () => output, nothing, { signal, onProgress });
      } finally {
        release();
      }
    }
  }

  /** The nodes of a plan with all that a block reads of their sheets, held until `release`. */
  async withParts(plan: Plan, block: Region, options: DrawOptions): Promise<{ nodes: GraphNode[]; release: () => void }> {
    const nodes = [...plan.graph.nodes];
    const planned: Planned[] = [];
    const release = () => planned.forEach((one) => one.release());
    try {
      for (const part of inParts(plan)) {
        const one = this.planPart(plan, block, part);
        if (!one) continue;
        planned.push(one);
        const { node, name, loaded } = part;
        nodes[node] = { ...nodes[node], resources: { ...nodes[node].resources, [name]: { ...loaded, part: one.part } } };
      }
      const tasks = planned.flatMap((one) => one.tasks);
      let done = 0;
      await this.sheets.draw(tasks, { signal: options.signal, onWindow: () => options.onProgress?.(++done, tasks.length) });
      await Promise.all(planned.map((one) => one.finish()));
      return { nodes, release };
    } catch (error) {
      release();
      throw error;
    }
  }

  private planPart(plan: Plan, block: Region, part: InParts): Planned | null {
    const { read, fine } = readBy(plan, block, part) ?? {};
    if (!read || !fine) return null;
    // What is drawn in one block is a view that the next drawing most likely shares.
    return this.parts.plan(fine, read, { continues: continues(part.lay), keeps: block === plan.region, levels: levelsOfPart(part.lay) });
  }
}
