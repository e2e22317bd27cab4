import type { Graph, GraphNode, InputSpec, Params } from '../../graph/node';
import type { Need } from '../../graph/needs';
import type { Operation } from '../../graph/operation';
import { FULL_BLUR } from '../../guards/focus';
import { regionSize } from '../../guards/regions';
import type { Coat } from '../../piece/schema';
import { slope } from '../../image/projection';
import type { Framing } from '../../ready/framing';

/** The nodes that an operation of a coat may read. */
export interface Surroundings {
  photo: number;
  /** The coat's backdrop: the photo with all coats under it (W3C Compositing). In an isolated group, only those of the group. */
  below: number;
  /** What masks, tonal limits and steps that look at the backdrop see, where that is not `below`: in an isolated group, what lies under the group. */
  seen?: number;
  /** Adds coats over a ground and returns the node of the result. */
  stack(coats: readonly Coat[], ground: number, seen?: number): number;
  /** The height of the coat's material; what the coat starts from where it has none. Left out where there is no coat. */
  height?(): number;
  /** The mask of another coat; nothing when there is no such coat or it leads back here. */
  maskOf(coat: string): number;
}

interface Extra {
  inputs?: Record<string, number>;
  needs?: Record<string, Need>;
  grows?: string;
  of?: string;
}

/** Collects the nodes of a graph. */
export class GraphBuilder {
  readonly nodes: GraphNode[] = [];

  constructor(private readonly framing: Framing) {}

  /** Adds a node and returns its index. */
  add(op: string, params: object, { inputs = {}, needs = {}, grows, of }: Extra = {}): number {
    this.nodes.push({ op, params: params as Params, inputs, needs, resources: {}, key: 0, grows, of });
    return this.nodes.length - 1;
  }

  /** A picture of the photo's file in the photo's frame. */
  framed(file: Need, isPhoto = false): number {
    return this.add('framed', { ...this.framing, isPhoto }, { needs: { file } });
  }

  /** The nodes that an operation declares as its inputs. */
  inputsOf(operation: Pick<Operation, 'inputs'>, params: Record<string, unknown>, around: Surroundings): Record<string, number> {
    const specs = Object.entries(operation.inputs?.(params) ?? {});
    return Object.fromEntries(specs.map(([name, spec]) => [name, this.inputOf(spec, around)]));
  }

  private inputOf(spec: InputSpec, { photo, below, seen = below, height, maskOf }: Surroundings): number {
    if (spec === 'photo') return photo;
    if (spec === 'below') return seen;
    if (spec === 'height') return height ? height() : seen;
    if (spec === 'form') return this.add('form', {}, { needs: { form: { need: 'form', framing: this.framing } } });
    if (spec === 'focus') return this.focus();
    return 'framed' in spec ? this.framed(spec.framed) : maskOf(spec.maskOf);
  }

  /** How far out of focus the photo is, in its frame. */
  private focus(): number {
    const { file, map, width, height } = this.framing;
    const [ux, vx, uy, vy] = slope(map, [width / 2, height / 2]);
    const found = regionSize(file);
    // From pixels of the regions' planes to those of the file, and on to those of the readied photo.
    const sigma = (FULL_BLUR * Math.max(file.width, file.height)) / Math.max(found.width, found.height) / Math.sqrt(Math.abs(ux * vy - vx * uy));
    return this.add('focus', { sigma }, { inputs: { found: this.framed({ need: 'guard', amounts: { unfocused: 1 } }) } });
  }

  graph(root: number): Graph {
    return { nodes: this.nodes, root };
  }
}
