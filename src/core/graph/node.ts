import type { Region } from '../image/tile';
import type { CacheSlot } from './slot';
import type { Need, Resource } from './needs';

export type Params = Readonly<Record<string, unknown>>;

/** One step of a drawing. Plain data: it is posted to the workers. */
export interface GraphNode {
  /** Which of `render/nodes` draws it. */
  op: string;
  params: Params;
  /** The nodes that it reads, by the names that its operation gives them: indices of nodes before it. */
  inputs: Readonly<Record<string, number>>;
  /** What has to be loaded for it, by name. Not posted. */
  needs: Readonly<Record<string, Need>>;
  /** What has been loaded for it. */
  resources: Record<string, Resource | null>;
  /** Equal for nodes that draw the same. Made by `nodeKey` once all resources are known. */
  key: number;
  /** The coat whose result it is. */
  of?: string;
  /** Names what this node adds to itself from drawing to drawing, such as the dabs of a stroke that is being painted. */
  grows?: string;
  /** Where its tiles are kept between drawings. */
  kept?: KeptTiles;
  /** Where what it adds to is kept between drawings. */
  grown?: KeptTiles;
  /** Smaller drawings of it that were made ahead of this one. */
  ahead?: readonly DrawnAhead[];
}

/** A whole drawing of a node, smaller by a factor: tiles of it in 16 bit, in shared memory. */
export interface DrawnAhead {
  factor: number;
  /** All that was drawn, in pixels of the smaller drawing, and the side of its tiles. */
  region: Region;
  tile: number;
  slot: CacheSlot;
}

/** Tiles of a node in shared memory, each with `margin` pixels around it. */
export interface KeptTiles extends CacheSlot {
  margin: number;
}

/** Nodes in an order in which each stands behind what it reads. */
export interface Graph {
  nodes: GraphNode[];
  root: number;
}

/**
 * What an operation reads besides its own start: its coat's backdrop (`below`), the readied photo, the form of the faces on it (offsets across and down, in
 * pixels, as the first two planes), the height of its coat's material (grey), how far the
 * photo is out of focus (the deviation of a Gaussian in pixels, as the first plane), a picture of the photo's file, another coat's mask.
 */
export type InputSpec = 'below' | 'photo' | 'form' | 'height' | 'focus' | { framed: Need } | { maskOf: string };

/** The nodes that the root needs, renumbered. */
export function pruned({ nodes, root }: Graph): Graph {
  const wanted = new Set([root]);
  for (let i = root; i >= 0; i--) if (wanted.has(i)) for (const input of Object.values(nodes[i].inputs)) wanted.add(input);
  const order = [...wanted].sort((a, b) => a - b);
  const place = new Map(order.map((old, i) => [old, i]));
  const moved = (inputs: GraphNode['inputs']) => Object.fromEntries(Object.entries(inputs).map(([name, i]) => [name, place.get(i) as number]));
  return { nodes: order.map((i) => ({ ...nodes[i], inputs: moved(nodes[i].inputs) })), root: order.length - 1 };
}

/** The graph as it is sent to the workers: without what only loading needs. */
export const posted = ({ nodes, root }: Graph): Graph => ({ nodes: nodes.map((node) => ({ ...node, needs: {} })), root });
