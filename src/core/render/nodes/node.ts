import type { DrawContext } from '../../graph/context';
import type { GraphNode } from '../../graph/node';
import type { Region, Tile } from '../../image/tile';
import type { Puller } from '../pull';
import type { Reaches } from '../reach';

/** What a node's drawing may ask: the same as an operation, and to have its inputs drawn. */
export interface NodeContext extends DrawContext {
  readonly puller: Puller;
  readonly index: number;
  readonly node: GraphNode;
  /**
   * Draws an input over a region. The tile is the caller's own: it may be written, and lies at the end of the scratch memory in use unless what is held
   * was handed over. See `Puller.pull`.
   */
  pull(input: string, region: Region): Tile;
  /** True when something that had to be loaded for an input is left out of this drawing. */
  isAbsent(input: string): boolean;
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
  reach?(params: P, input: string, reaches: Reaches, index: number): number | null;
  /** True when some of it is drawn at a smaller scale, with so many pixels to one u. */
  drawsSmaller?(params: P, unit: number): boolean;
  draw(context: NodeContext, region: Region, params: P): Tile;
}

export const defineNode = <P extends object>(type: NodeType<P>): NodeType<P> => type;
