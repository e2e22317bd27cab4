import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import { blurPlane, blurReach } from '../image/blur';
import { reducedRegion } from '../image/far';
import { flowField, type Flow } from '../image/flow';
import { grow, type Region, type Tile } from '../image/tile';
import { choice, share, slider } from '../schema';
import { faceInput, keepField } from './faces';
import { factorFor, nearReach, regionOn } from './small';
import { defineTreatment } from './treatment';

/** Dabs take their colours from a drawing with so many pixels to one u, but the finest are no narrower on it than this, in pixels. */
const ENOUGH = 0.25;
const WORKED = 2.5;
/** A dab's colour is the mean over this part of its width (a standard deviation). */
const MEAN = 0.28;
/** From dab to dab, in parts of its width. */
const PITCH = { brush: 0.62, knife: 0.85 };
/** Directions are smoothed by a Gaussian of so many u: even ground takes them from the edges around it. */
const FORM = 24;
/** No dab is longer than twice this, in u. */
const LONGEST = 130;
/** Turn of a dab away from the form, in radians, at full jitter. */
const TURN = 0.5;

const schema = z.object({
  kind: z.literal('dabs'),
  tool: choice(
    'Tool',
    [
      { value: 'brush', label: 'Brush' },
      { value: 'knife', label: 'Knife' },
    ],
    'brush',
  ),
  size: slider('Size', 6, 100, 52, { unit: 'u', step: 1, help: 'Width of the largest dabs.' }),
  layers: slider('Layers', 1, 4, 3, { step: 1, help: 'Each has dabs half as large.' }),
  length: slider('Length', 1, 8, 4.2, { step: 0.1, help: 'How many times as long as wide.' }),
  detail: slider('Leave out under', 0, 40, 9, { unit: 'levels', step: 0.5, help: 'Smaller dabs only where the photo differs by more.' }),
  jitter: share('Jitter', 0.5, { help: 'How freely dabs are turned and coloured.' }),
  ragged: share('Ragged ends', 0.35),
  raised: share('Raised', 0.5, { help: 'How thick the paint lies.' }),
  direction: slider('Light from', 0, 360, 315, { unit: '°', step: 1, dial: true }),
  keep: keepField,
  seed: z.number().int().min(0).max(1e9).default(1),
});
type Params = z.output<typeof schema>;

const layersOf = (p: Params) => Math.round(p.layers);
const widthOf = (p: Params, layer: number) => p.size / 2 ** layer;
const factorOf = (p: Params, unit: number) => factorFor(unit, Math.max(ENOUGH, WORKED / widthOf(p, layersOf(p) - 1)));
/** Pixels that a dab of the largest size may lie away from what it covers. */
const halfLength = (p: Params, width: number) => Math.min(LONGEST, 0.5 * p.length * width);
const longest = (p: Params, unit: number) => Math.ceil((halfLength(p, p.size) + 1.5 * p.size) * unit) + 2;
/** What dabs are stopped by is softened by this part of the finest ones, so that grain does not stop them. */
const BORDER = 0.12;
const borderSigma = (p: Params, unit: number) => BORDER * widthOf(p, layersOf(p) - 1) * unit;
const finish = (p: Params, unit: number) => Math.max(blurReach(0.6 * unit) + 2, blurReach(borderSigma(p, unit)));
const haloOf = (p: Params, unit: number) => longest(p, unit) + nearReach(p.size * MEAN * unit) + nearReach(4 * unit + 1) + nearReach(FORM * unit) + 4;

/** Paints the picture in dabs: large ones first, then smaller ones where the large ones miss detail. Dabs follow the form and stop at borders. */
export default defineTreatment({
  kind: 'dabs',
  isLit: true,
  label: 'Dabs of paint',
  words: 'oil painting brush knife strokes impasto painterly acrylic',
  shows: true,
  added: { keep: 0.5 },
  schema,
  source: 'Hertzmann 1998, painterly rendering with curved brush strokes of multiple sizes; straight dabs on a jittered grid, our own',
  inputs: faceInput,
  shrinks: factorOf,
  // Dabs are found on a drawing of their own, however far away they begin: nothing is read around a pixel at full size but for the light.
  reach: (p, unit) => (factorOf(p, unit) > 1 ? finish(p, unit) : haloOf(p, unit)),
  neutral: () => false,
  apply(context, tile, p) {
    const { machine, scratch, unit } = context;
    const { kernels } = machine;
    const { ptr, stride, width, height, count } = tile;
    const mark = scratch.mark();
    const factor = factorOf(p, unit);
    const relief = scratch.plane(count + 8, 0.35);
    const work = scratch.take(1024);
    const base = scratch.take(3 * stride);
    const small = smallPicture(context, tile, p, factor);
    const layers = soften(context, small, p, unit / factor);
    // Without its grain, which would turn dabs of even places differently at every size.
    const flow = flowField(machine, scratch, layers[layers.length - 1], 4 * (unit / factor) + 1, FORM * (unit / factor));
    machine.bytes.copyWithin(base, ptr, ptr + 3 * stride);
    for (let c = 0; c < 3; c++) blurPlane(machine, scratch, base + c * stride, width, height, borderSigma(p, unit));
    const faces = p.keep > 0 ? regionOn(context, 'faces', factor, small) : null;
    for (let layer = 0; layer < layers.length; layer++) {
      const inner = scratch.mark();
      const list = listDabs(context, { tile, small, layers, flow, faces, layer, factor, p });
      const at = scratch.take(list.length * 4 + 16);
      machine.floats.set(list, at / 4);
      const painted = {
        tile: ptr,
        stride,
        w: width,
        h: height,
        height: relief,
        base,
        baseStride: stride,
        bristles: p.tool === 'knife' ? 3 : 9,
        ragged: p.ragged,
        ridge: p.tool === 'knife' ? 0.8 : 0,
        work,
      };
      for (let first = 0, n = list.length / VALUES; first < n; first += CHUNK) {
        kernels.drawDabs({ ...painted, list: at + first * VALUES * 4, n: Math.min(CHUNK, n - first) });
        machine.pulse?.();
      }
      scratch.release(inner);
    }
    if (p.raised > 0) lightPaint(context, tile, relief, p);
    scratch.release(mark);
  },
});

/** Values of one dab, as the kernel reads them. */
const VALUES = 10;
/** Dabs between two pulses. */
const CHUNK = 400;

/** A region whose corner lies on a grid, so that means of cells are the same whichever tile asks for them. */
function aligned({ x, y, width, height }: Region): Region {
  const [left, top] = [Math.floor(x / 8) * 8, Math.floor(y / 8) * 8];
  return { x: left, y: top, width: Math.ceil((x + width - left) / 8) * 8, height: Math.ceil((y + height - top) / 8) * 8 };
}

function smallPicture(context: DrawContext, tile: Tile, p: Params, factor: number): Tile {
  if (factor > 1) return context.smaller('own', factor, aligned(grow(reducedRegion(tile, factor), haloOf(p, context.unit / factor))));
  const copy = context.scratch.tile(tile);
  context.machine.bytes.copyWithin(copy.ptr, tile.ptr, tile.ptr + 3 * tile.stride);
  return copy;
}

/** The picture as dabs of each size would show it: a Gaussian of part of their width. */
function soften({ machine, scratch }: DrawContext, small: Tile, p: Params, unit: number): Tile[] {
  return Array.from({ length: layersOf(p) }, (_, layer) => {
    const soft = { ...small, ptr: scratch.take(3 * small.stride) };
    machine.bytes.copyWithin(soft.ptr, small.ptr, small.ptr + 3 * small.stride);
    for (let c = 0; c < 3; c++) blurPlane(machine, scratch, soft.ptr + c * soft.stride, soft.width, soft.height, MEAN * widthOf(p, layer) * unit);
    return soft;
  });
}

interface Layer {
  tile: Tile;
  small: Tile;
  layers: Tile[];
  flow: Flow;
  faces: number | null;
  layer: number;
  factor: number;
  p: Params;
}

/** The dabs of a layer that may touch a tile, in an order that does not depend on the tile. */
function listDabs({ machine, unit }: DrawContext, { tile, small, layers, flow, faces, layer, factor, p }: Layer): Float32Array {
  const { floats } = machine;
  const width = widthOf(p, layer) * unit;
  const pitch = Math.max(1, width * PITCH[p.tool]);
  const half = halfLength(p, widthOf(p, layer)) * unit;
  const beyond = half + width + pitch;
  const soft = layers[layer];
  const coarse = layer > 0 ? layers[layer - 1] : null;
  const cells: { order: number; values: number[] }[] = [];
  const from = [Math.floor((tile.x - beyond) / pitch), Math.floor((tile.y - beyond) / pitch)];
  const to = [Math.ceil((tile.x + tile.width + beyond) / pitch), Math.ceil((tile.y + tile.height + beyond) / pitch)];
  for (let j = from[1]; j <= to[1]; j++) {
    for (let i = from[0]; i <= to[0]; i++) {
      const random = chances(i, j, p.seed * 8 + layer);
      const x = (i + 0.5 + 0.8 * (random() - 0.5)) * pitch;
      const y = (j + 0.5 + 0.8 * (random() - 0.5)) * pitch;
      const at = place(small, x / factor, y / factor);
      const colour = [0, 1, 2].map((c) => floats[(soft.ptr + c * soft.stride) / 4 + at]);
      const face = faces === null ? 0 : p.keep * floats[faces / 4 + at];
      if (coarse) {
        const missed = Math.hypot(...colour.map((v, c) => v - floats[(coarse.ptr + c * coarse.stride) / 4 + at]));
        if (missed * 255 < p.detail * (1 - 0.6 * face)) continue;
      }
      const turn = (random() + random() - 1) * TURN * p.jitter * (1 - 0.6 * face);
      const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
      const [tx, ty] = [floats[flow.tx / 4 + at], floats[flow.ty / 4 + at]];
      const shift = (random() - 0.5) * 0.07 * p.jitter;
      const tints = [0, 1, 2].map(() => shift + (random() - 0.5) * 0.03 * p.jitter);
      const size = (0.8 + 0.4 * random()) * (1 - 0.35 * face);
      // A dab is turned either way along the form, which has no end and no beginning.
      const way = random() < 0.5 ? 1 : -1;
      const values = [x - tile.x, y - tile.y, way * (tx * cos - ty * sin), way * (ty * cos + tx * sin), half * size, 0.5 * width * size];
      cells.push({ order: random(), values: [...values, ...colour.map((v, c) => v + tints[c]), Math.floor(random() * 65535)] });
    }
  }
  cells.sort((a, b) => a.order - b.order);
  return Float32Array.from(cells.flatMap(({ values }) => values));
}

/** The index of the pixel of a tile that holds a place of its drawing. */
const place = ({ x, y, width, height }: Tile, px: number, py: number): number =>
  Math.min(height - 1, Math.max(0, Math.floor(py) - y)) * width + Math.min(width - 1, Math.max(0, Math.floor(px) - x));

/** Repeatable numbers in 0..1 that belong to a cell. */
function chances(i: number, j: number, seed: number): () => number {
  let s = (Math.imul(i, 0x27d4eb2d) ^ Math.imul(j, 0x165667b1) ^ Math.imul(seed, 0x2c1b3c6d)) >>> 0;
  return () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), 1 | s);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

/** Height of the thickest paint, in u. */
const HIGHEST = 2.4;
const ELEVATION = (42 * Math.PI) / 180;

function lightPaint({ machine, scratch, unit }: DrawContext, tile: Tile, height: number, { raised, direction }: Params): void {
  const mark = scratch.mark();
  const lit = scratch.plane(tile.count + 8);
  const from = (direction * Math.PI) / 180;
  const [lx, ly, lz] = [Math.sin(from) * Math.cos(ELEVATION), -Math.cos(from) * Math.cos(ELEVATION), Math.sin(ELEVATION)];
  blurPlane(machine, scratch, height, tile.width, tile.height, 0.6 * unit);
  machine.kernels.relief(height, lit, tile.width, tile.height, HIGHEST * unit, lx, ly, lz);
  machine.kernels.embossed(tile.ptr, tile.stride, tile.count, lit, raised);
  scratch.release(mark);
}
