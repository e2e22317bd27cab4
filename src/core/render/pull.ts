import type { DrawContext, Grown } from '../graph/context';
import type { Resource, ResourceKind } from '../graph/needs';
import type { DrawnAhead, Graph, GraphNode, KeptTiles } from '../graph/node';
import { isStamped, setStamp, tileRegion, tilesOf } from '../graph/slot';
import { farGaussian, isFar } from '../image/far';
import type { Machine } from '../image/machine';
import { cutOut, padded, type Region, type Scratch, type Tile } from '../image/tile';
import { nodeTypeOf } from './nodes';
import type { Extent, NodeContext, NodePuller } from './nodes/node';
import { reachesOf, type Reaches } from './reach';

/** The tile of a drawing that is being drawn: its place among those that are kept. */
export interface Place {
  region: Region;
  index: number;
}

/** A tile that several readers share. */
interface Held {
  tile: Tile;
  /** It may be handed over to who asks for it whole. */
  givable: boolean;
}

const isSame = (a: Region, b: Region) => a.x === b.x && a.y === b.y && a.width === b.width && a.height === b.height;
const contains = (a: Region, b: Region) => a.x <= b.x && a.y <= b.y && a.x + a.width >= b.x + b.width && a.y + a.height >= b.y + b.height;
const bare = ({ x, y, width, height }: Region): Region => ({ x, y, width, height });

/** Draws nodes of a graph over regions, at one scale: the only way to pixels. */
export class Puller implements NodePuller {
  readonly reaches: Reaches;
  private readonly held = new Map<number, Held>();

  /**
   * @param place - The tile that is drawn, where tiles of nodes are kept between drawings.
   * @param factor - How much smaller this is than the drawing that is wanted.
   */
  constructor(
    readonly machine: Machine,
    readonly scratch: Scratch,
    readonly graph: Graph,
    readonly extent: Extent,
    private readonly place?: Place,
    private readonly factor = 1,
  ) {
    this.reaches = reachesOf(graph, extent.unit);
  }

  pull(index: number, region: Region): Tile {
    this.machine.pulse?.();
    const { planes, draw } = nodeTypeOf(this.graph.nodes[index].op);
    const held = this.held.get(index);
    if (held?.givable && isSame(held.tile, region)) {
      this.held.delete(index);
      return held.tile;
    }
    if (held && contains(held.tile, region)) return cutOut(this.scratch, held.tile, region);
    const { kept, params } = this.graph.nodes[index];
    if (kept && this.isPlace(region, kept.margin)) return this.pullKept(index, region, kept, planes);
    const ahead = this.aheadOf(index, region);
    if (ahead) return readAhead(this.machine, this.scratch, ahead, region);
    return draw(this.contextOf(index), region, params);
  }

  read(index: number, region: Region): Tile {
    const held = this.held.get(index);
    if (held && isSame(held.tile, region)) return held.tile;
    return this.pull(index, bare(region));
  }

  hold(index: number, tile: Tile, givable: boolean): () => void {
    const before = this.held.get(index);
    this.held.set(index, { tile, givable });
    return () => void (before ? this.held.set(index, before) : this.held.delete(index));
  }

  isAtHand(index: number, region: Region): boolean {
    const { kept } = this.graph.nodes[index];
    return this.held.has(index) || (kept !== undefined && this.isPlace(region, kept.margin));
  }

  readersOf(coat: number): number {
    return readersOf(this.graph, coat);
  }

  reduced(factor: number): Puller {
    const { scale, width, height, unit } = this.extent;
    const extent = { scale: scale / factor, width: width / factor, height: height / factor, unit: unit / factor };
    return new Puller(this.machine, this.scratch, this.graph, extent, undefined, this.factor * factor);
  }

  worked(index: number, factor: number, region: Region): Tile | undefined {
    const ahead = this.aheadOf(index, region, this.factor * factor);
    return ahead && readAhead(this.machine, this.scratch, ahead, region);
  }

  /** A drawing of a node that was made ahead, where it holds a region. */
  private aheadOf(index: number, region: Region, factor = this.factor): DrawnAhead | undefined {
    return this.graph.nodes[index].ahead?.find((one) => one.factor === factor && contains(one.region, region));
  }

  contextOf(index: number, on?: Region): NodeContext {
    return new Context(this, index, this.graph.nodes[index], on, this.grownOf(index, on));
  }

  plane({ x, y, width, height }: Region, value: number): Tile {
    const count = padded(width, height);
    return { x, y, width, height, ptr: this.scratch.plane(count + 8, value), stride: count * 4, count };
  }

  endOf({ ptr, count }: Tile, planes: 1 | 4): number {
    return planes === 4 ? ptr + count * 16 : ptr + (count + 8) * 4;
  }

  trimmed(before: Tile, after: Tile, planes: 1 | 4): Tile {
    if (this.scratch.mark() === this.endOf(before, planes)) this.scratch.release(this.endOf(after, planes));
    return after;
  }

  private isPlace(region: Region, margin: number): boolean {
    if (!this.place) return false;
    const { x, y, width, height } = this.place.region;
    return region.x === x - margin && region.y === y - margin && region.width === width + 2 * margin && region.height === height + 2 * margin;
  }

  private pullKept(index: number, region: Region, slot: KeptTiles, planes: 1 | 4): Tile {
    const { machine, place } = this;
    const at = slot.tiles + (place as Place).index * slot.pitch;
    if (isStamped(machine, slot, (place as Place).index)) {
      const tile = planes === 4 ? this.scratch.tile(bare(region)) : this.plane(region, 0);
      machine.kernels.unpack16(at, tile.ptr, tile.stride, tile.count, planes);
      return tile;
    }
    const { op, params } = this.graph.nodes[index];
    const tile = nodeTypeOf(op).draw(this.contextOf(index), region, params);
    machine.kernels.pack16(tile.ptr, tile.stride, at, tile.count, planes);
    setStamp(machine, slot, (place as Place).index);
    return tile;
  }

  /** Where what a node adds to itself is kept for this tile: a plane of f32, and behind it the number of steps in it. */
  private grownOf(index: number, on?: Region): Grown | undefined {
    const { grown } = this.graph.nodes[index];
    const { machine, place } = this;
    if (!grown || !place || !on || !this.isPlace(on, grown.margin)) return undefined;
    const plane = grown.tiles + place.index * grown.pitch;
    const counter = (plane + grown.pitch - 16) / 4;
    return {
      plane,
      count: isStamped(machine, grown, place.index) ? machine.words[counter] : 0,
      keep(count) {
        machine.words[counter] = count;
        setStamp(machine, grown, place.index);
      },
    };
  }
}

/** A region of what was drawn ahead, put together from its tiles. */
function readAhead(machine: Machine, scratch: Scratch, { region, tile: side, slot }: DrawnAhead, { x, y, width, height }: Region): Tile {
  const out = scratch.tile({ x, y, width, height });
  const { columns } = tilesOf(region, side);
  const [first, last] = [x - region.x, x + width - 1 - region.x].map((v) => Math.floor(v / side));
  const [top, bottom] = [y - region.y, y + height - 1 - region.y].map((v) => Math.floor(v / side));
  for (let row = top; row <= bottom; row++) {
    for (let column = first; column <= last; column++) {
      const index = row * columns + column;
      const mark = scratch.mark();
      const one = scratch.tile(tileRegion(region, side, index));
      machine.kernels.unpack16(slot.tiles + index * slot.pitch, one.ptr, one.stride, one.count, 4);
      copyOver(machine, one, out);
      scratch.release(mark);
    }
  }
  return out;
}

/** Puts the part of a picture that lies over another into it. */
function copyOver({ kernels }: Machine, from: Tile, into: Tile): void {
  const [x0, y0] = [Math.max(from.x, into.x), Math.max(from.y, into.y)];
  const [x1, y1] = [Math.min(from.x + from.width, into.x + into.width), Math.min(from.y + from.height, into.y + into.height)];
  if (x1 <= x0 || y1 <= y0) return;
  for (let c = 0; c < 4; c++) {
    const source = from.ptr + c * from.stride + ((y0 - from.y) * from.width + x0 - from.x) * 4;
    const target = into.ptr + c * into.stride + ((y0 - into.y) * into.width + x0 - into.x) * 4;
    kernels.copyWindow(source, from.width, target, into.width, x1 - x0, y1 - y0);
  }
}

const readers = new WeakMap<Graph, Map<number, number>>();

function readersOf(graph: Graph, coat: number): number {
  let counts = readers.get(graph);
  if (!counts) readers.set(graph, (counts = new Map()));
  let count = counts.get(coat);
  if (count === undefined) counts.set(coat, (count = countReaders(graph, coat)));
  return count;
}

function countReaders({ nodes }: Graph, coat: number): number {
  const { below, ...others } = nodes[coat].inputs;
  const seen = new Set<number>();
  let count = 0;
  const visit = (index: number) => {
    if (index === below) count++;
    else if (index > below && !seen.has(index)) {
      seen.add(index);
      Object.values(nodes[index].inputs).forEach(visit);
    }
  };
  Object.values(others).forEach(visit);
  return count;
}

class Context implements NodeContext {
  readonly machine: Machine;
  readonly scratch: Scratch;
  readonly scale: number;
  readonly width: number;
  readonly height: number;
  readonly unit: number;

  constructor(
    readonly puller: NodePuller,
    readonly index: number,
    readonly node: GraphNode,
    private readonly on: Region | undefined,
    readonly grown: Grown | undefined,
  ) {
    const { machine, scratch, extent } = puller;
    const { scale, width, height, unit } = extent;
    this.machine = machine;
    this.scratch = scratch;
    this.scale = scale;
    this.width = width;
    this.height = height;
    this.unit = unit;
  }

  private inputOf(name: string): number {
    const input = this.node.inputs[name];
    if (input === undefined) throw new Error(`The step "${this.node.op}" reads an input "${name}" that it has not declared.`);
    return input;
  }

  pull(name: string, region: Region): Tile {
    return this.puller.pull(this.inputOf(name), bare(region));
  }

  read: DrawContext['read'] = (name, region) => this.puller.read(this.inputOf(name), region);

  far: DrawContext['far'] = (name, sigma) => {
    const { on } = this;
    if (!on || !isFar(sigma)) return undefined;
    return farGaussian(this.machine, this.scratch, on, sigma, (factor, region) => this.puller.reduced(factor).pull(this.inputOf(name), region));
  };

  smaller: DrawContext['smaller'] = (name, factor, region) => this.puller.reduced(factor).pull(this.inputOf(name), bare(region));

  worked: DrawContext['worked'] = (factor, region) => this.puller.worked(this.index, factor, bare(region));

  isAbsent(name: string): boolean {
    return Object.values(this.puller.graph.nodes[this.inputOf(name)].resources).some((resource) => resource === null);
  }

  needed: DrawContext['needed'] = (name, kind) => neededOf(this.node, name, kind);
}

function neededOf<K extends ResourceKind>({ op, resources }: GraphNode, name: string, kind: K): Extract<Resource, { kind: K }> {
  const found = resources[name];
  const isOfKind = (resource: Resource | null | undefined): resource is Extract<Resource, { kind: K }> => resource?.kind === kind;
  if (!isOfKind(found)) throw new Error(`The step "${op}" needs "${name}", which has not been loaded.`);
  return found;
}
