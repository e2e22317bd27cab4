import type { Machine } from '../image/machine';
import type { Region, Scratch, Tile } from '../image/tile';
import type { Resource, ResourceKind } from './needs';

/** What an operation may ask while it is drawn. */
export interface DrawContext {
  readonly machine: Machine;
  readonly scratch: Scratch;
  /** Pixels drawn to one pixel of the readied photo. */
  readonly scale: number;
  /** Size of the whole piece (the readied photo) at this scale, not rounded. */
  readonly width: number;
  readonly height: number;
  /** Pixels to one u: 1/2000 of the long side. */
  readonly unit: number;
  /**
   * Pixels of a node that the operation has declared as an input, over a region. They may be shared with others: not to be written.
   * A mask is a tile of one plane.
   */
  read(input: string, region: Region): Tile;
  /**
   * A Gaussian of an input over the tile that is worked on, where its deviation, in pixels, is so wide that it is taken on a smaller drawing;
   * else undefined. `own` is what the operation starts from.
   */
  far(input: string, sigma: number): Tile | undefined;
  /**
   * Pixels of an input on a drawing smaller by a whole factor, over a region of that drawing: for what is worked out there and enlarged. The caller's own;
   * it releases the scratch memory. `own` is what the operation starts from.
   */
  smaller(input: string, factor: number, region: Region): Tile;
  /**
   * What this operation works out on a drawing smaller by a factor, over a region of that drawing, where that was drawn ahead; else undefined. The caller
   * releases the scratch memory.
   */
  worked(factor: number, region: Region): Tile | undefined;
  /** True when something that had to be loaded for an input is left out of this drawing, a quick one. */
  isAbsent(input: string): boolean;
  /** What was loaded for a need that the operation has declared. @throws Error when it has not been loaded. */
  needed<K extends ResourceKind>(name: string, kind: K): Extract<Resource, { kind: K }>;
  /** Where what the operation adds to itself is kept, while it grows. */
  readonly grown?: Grown;
}

/** A plane of f32 that is kept from drawing to drawing, and how many steps are in it. */
export interface Grown {
  plane: number;
  count: number;
  keep(count: number): void;
}
