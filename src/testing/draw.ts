import type { DrawContext } from '../core/graph/context';
import { fingerprint, nodeKey } from '../core/graph/key';
import type { Need, Resource } from '../core/graph/needs';
import type { Graph } from '../core/graph/node';
import { tilesOf } from '../core/graph/slot';
import type { Picture } from '../core/image/picture';
import { grow, type Region, type Tile } from '../core/image/tile';
import type { Guards } from '../core/guards/schema';
import { coatSchema, type Coat } from '../core/piece/schema';
import { grainSize, measureGrain } from '../core/measure/grain';
import { readiedSize } from '../core/ready/geometry';
import { planReady } from '../core/ready/plan';
import type { Ready } from '../core/ready/schema';
import { GraphBuilder } from '../core/render/compile/builder';
import { addTreatment } from '../core/render/compile/coat';
import { compile } from '../core/render/compile';
import { drawTile } from '../core/render/draw';
import { drawFramed } from '../core/render/nodes/framed';
import type { Plan } from '../core/render/plan';
import type { Extent } from '../core/render/nodes/node';
import { Puller } from '../core/render/pull';
import type { View } from '../core/render/view';
import { isIdle } from '../core/treatments/run';
import type { testBench } from './machine';
import { unitOf } from '../core/image/unit';

type Bench = ReturnType<typeof testBench>;
type Load = (need: Need) => Resource | null | undefined;

/** The grain of a picture, as a drawing asks for it. */
export function grainOf(bench: Bench, picture: Picture): Picture {
  const { width, height } = grainSize(picture);
  const map = bench.picture(width, height, () => [0, 0, 0]);
  measureGrain(bench.machine, picture, map);
  return map;
}

/** Loads what needs nothing but a photo and strokes; `load` is asked first. */
const loader =
  (photo: Picture, load?: Load): Load =>
  (need) => {
    const given = load?.(need);
    if (given !== undefined) return given;
    if (need.need === 'photo') return { kind: 'picture', picture: photo };
    if (need.need === 'strokes') return { kind: 'strokes', strokes: [...need.strokes], tips: {} };
    throw new Error(`The test has nothing for the need "${need.need}".`);
  };

/** Gives the nodes of a graph their resources and keys. */
export function loadGraph(graph: Graph, photo: Picture, load?: Load): Graph {
  for (const node of graph.nodes) {
    const keys: Record<string, string> = {};
    for (const [name, need] of Object.entries(node.needs)) {
      node.resources[name] = loader(photo, load)(need) ?? null;
      keys[name] = fingerprint(need);
    }
    const inputs = Object.fromEntries(Object.entries(node.inputs).map(([name, i]) => [name, graph.nodes[i].key]));
    node.key = nodeKey(node, inputs, keys, '');
  }
  return graph;
}

export interface TestDrawing {
  photo: Picture;
  coats?: Coat[];
  strength?: number;
  ready?: Ready;
  guards?: Guards;
  view?: View;
  clear?: boolean;
  clipping?: boolean;
  scale?: number;
  tile?: number;
  region?: Region;
  load?: Load;
}

/** The plan of a drawing, its needs loaded. */
export function planOf({
  photo,
  coats = [],
  strength = 1,
  ready,
  guards,
  view,
  clear,
  clipping,
  scale = 1,
  tile = 128,
  region,
  load,
}: TestDrawing): Plan {
  const frame = readiedSize(photo, ready);
  const graph = loadGraph(compile({ photo, coats, strength, ready, guards }, view, clear), photo, load);
  const whole = { x: 0, y: 0, width: Math.round(frame.width * scale), height: Math.round(frame.height * scale) };
  return { graph, frame, scale, region: region ?? whole, tile, clipping };
}

/** RGBA8 of a plan, drawn tile by tile. */
export function drawPlan(bench: Bench, plan: Plan): Uint8Array {
  const { width, height } = plan.region;
  const at = bench.take(width * height * 4);
  const { columns, count } = tilesOf(plan.region, plan.tile);
  for (let i = 0; i < count; i++)
    drawTile(bench.machine, bench.scratch, plan, i, at + (Math.floor(i / columns) * plan.tile * width + (i % columns) * plan.tile) * 4, width);
  return bench.machine.bytes.slice(at, at + width * height * 4);
}

export const drawPiece = (bench: Bench, drawing: TestDrawing): Uint8Array => drawPlan(bench, planOf(drawing));

/** The node that a drawing shows, over a region, in scratch memory that is free before. */
export function pullTile(bench: Bench, drawing: TestDrawing, region?: Region): Tile {
  const plan = planOf(drawing);
  const { graph, frame, scale } = plan;
  bench.scratch.reset();
  return new Puller(bench.machine, bench.scratch, graph, extentOf(frame, scale)).pull(graph.root, region ?? plan.region);
}

export const extentOf = ({ width, height }: { width: number; height: number }, scale: number): Extent => ({
  scale,
  width: width * scale,
  height: height * scale,
  unit: unitOf({ width, height }, scale),
});

/** What an operation may ask, on a photo: every input is the photo unless `more` says otherwise. */
export function contextOn(
  { machine, scratch }: Pick<Bench, 'machine' | 'scratch'>,
  photo: Picture,
  scale = 1,
  ready?: Ready,
  more: Partial<DrawContext> = {},
): DrawContext {
  const { framing } = planReady(photo, ready);
  const context: DrawContext = {
    machine,
    scratch,
    ...extentOf(framing, scale),
    read(_name, { x, y, width, height }) {
      const tile = scratch.tile({ x, y, width, height });
      drawFramed(context, tile, photo, framing);
      return tile;
    },
    far: () => undefined,
    smaller(_name, factor, { x, y, width, height }) {
      const tile = scratch.tile({ x, y, width, height });
      drawFramed(contextOn({ machine, scratch }, photo, scale / factor, ready), tile, photo, framing);
      return tile;
    },
    worked: () => undefined,
    isAbsent: () => false,
    needed(name) {
      throw new Error(`The test has nothing for "${name}".`);
    },
    ...more,
  };
  return context;
}

/**
 * Treatments one after another on a tile, as a drawing applies them: what they spoil at its edges is left away, so that the result is smaller by their
 * reach. `unit`: pixels to one u.
 */
export function treat(bench: Bench, photo: Picture, tile: Tile, list: readonly Record<string, unknown>[], unit: number, load?: Load): Tile {
  const builder = new GraphBuilder(planReady(photo).framing);
  const given = builder.framed({ need: 'photo' }, true);
  const around = { photo: given, below: given, maskOf: () => given, stack: (_coats: unknown, ground: number) => ground };
  const working = list.filter((params) => !isIdle(params));
  const root = working.reduce<number>((own, params) => addTreatment(builder, own, params, around), given);
  const graph = loadGraph(builder.graph(root), photo, load);
  const puller = new Puller(bench.machine, bench.scratch, graph, { ...extentOf(photo, 1), unit });
  puller.hold(given, tile, false);
  return puller.pull(root, grow(tile, -(puller.reaches.to(given, root) ?? 0)));
}

/** Where a mask lets its coat apply, over a region of a photo: values 0..1. */
export function maskValues(bench: Bench, mask: Partial<Coat['mask']>, drawing: Omit<TestDrawing, 'coats' | 'view'>, region?: Region): Float32Array {
  const coat = coatSchema.parse({ id: 'masked', source: { kind: 'colour' } });
  const coats = [{ ...coat, mask: { ...coat.mask, start: 'none' as const, ...mask } }];
  const { ptr, width, height } = pullTile(bench, { ...drawing, coats, view: { kind: 'mask', coat: 'masked' } }, region);
  return bench.machine.floats.slice(ptr / 4, ptr / 4 + width * height);
}
