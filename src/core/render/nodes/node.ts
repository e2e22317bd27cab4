import type { DrawContext } from '../../graph/context';
import type { Graph, GraphNode } from '../../graph/node';
import type { Machine } from '../../image/machine';
import type { Region, Scratch, Tile } from '../../image/tile';

/** How far around a region the nodes of a graph are read, at one scale. */
export interface NodeReaches {
  /** Pixels to one u. */
  readonly unit: number;
  /** Pixels around a region that a coat's source and mask together read of its backdrop. */
  ofBackdrop(coat: number): number;
}

/** Scale and size of a drawing; see `DrawContext`. */
export type Extent = Pick<DrawContext, 'scale' | 'width' | 'height' | 'unit'>;

/** Draws nodes of a graph over regions, at one scale. */
export interface NodePuller {
  readonly machine: Machine;
  readonly scratch: Scratch;
  readonly graph: Graph;
  readonly extent: Extent;
  readonly reaches: NodeReaches;
  /**
   * A node over a region, as a tile that is the caller's own. It lies where the scratch memory in use ended before, and that ends behind it afterwards;
   * unless it is a held tile that was handed over.
   */
  pull(index: number, region: Region): Tile;
  /** A node over a region, as a tile that may be shared: it must not be written. The caller releases the scratch memory. */
  read(index: number, region: Region): Tile;
  /** Lets nodes read a tile of `index` that has been drawn, until the returned function is called. One that is `givable` may be handed over. */
  hold(index: number, tile: Tile, givable: boolean): () => void;
  /** True when a node need not be drawn over a region: it is held, or kept from a drawing before. */
  isAtHand(index: number, region: Region): boolean;
  /** How many nodes of a coat's source and mask read its backdrop. */
  readersOf(coat: number): number;
  /** What a node works out on a drawing smaller by a factor, over a region of it, where that was drawn ahead. */
  worked(index: number, factor: number, region: Region): Tile | undefined;
  /** The same graph at a scale smaller by a whole factor. */
  reduced(factor: number): NodePuller;
  /** What a node's drawing may ask; `on` is the region that it works on, where that is known. */
  contextOf(index: number, on?: Region): NodeContext;
  /** A plane of a mask over a region. */
  plane(region: Region, value: number): Tile;
  /** Where a tile's memory ends. */
  endOf(tile: Tile, planes: 1 | 4): number;
  /** Gives back the memory behind a tile that took the place of a larger one, where that one lay last. Returns the tile. */
  trimmed(before: Tile, after: Tile, planes: 1 | 4): Tile;
}

/** What a node's drawing may ask: the same as an operation, and to have its inputs drawn. */
export interface NodeContext extends DrawContext {
  readonly puller: NodePuller;
  readonly index: number;
  readonly node: GraphNode;
  /**
   * Draws an input over a region. The tile is the caller's own: it may be written, and lies at the end of the scratch memory in use unless what is held
   * was handed over. See `NodePuller.pull`.
   */
  pull(input: string, region: Region): Tile;
}

/** How one kind of step of a drawing is drawn. */
export interface NodeType<P extends object = object> {
  /** Planes of its tiles: four of a picture, one of a mask. */
  planes: 1 | 4;
  /** True when drawing it again costs no more than keeping it. */
  isCheap?(params: P): boolean;
  /**
   * Pixels around a region that it reads of an input; null where it reads it only on a smaller drawing. Nothing around it when left out.
   */
  reach?(params: P, input: string, reaches: NodeReaches, index: number): number | null;
  /** True when some of it is drawn at a smaller scale, with so many pixels to one u. */
  drawsSmaller?(params: P, unit: number): boolean;
  draw(context: NodeContext, region: Region, params: P): Tile;
}

export const defineNode = <P extends object>(type: NodeType<P>): NodeType<P> => type;
