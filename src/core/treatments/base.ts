import type { Tile } from '../image/tile';
import type { DrawContext } from '../graph/context';

const SIZE = 512;

/** Tables already made, by the parameters and the survey that they come from. */
const made = new WeakMap<object, { survey: object; table: Float32Array }>();

function tableOf(params: object, survey: object, curve: () => (v: number) => number): Float32Array {
  const known = made.get(params);
  if (known?.survey === survey) return known.table;
  const f = curve();
  const table = Float32Array.from({ length: SIZE }, (_, i) => f(i / (SIZE - 1)));
  made.set(params, { survey, table });
  return table;
}

/** Puts a function of 0..1, if any, on the base of a tile's luma and multiplies the detail that stands on it; see the kernel `localTone`. */
export function applyBase(context: DrawContext, tile: Tile, params: object, curve: (() => (v: number) => number) | null, detail: number): void {
  const { machine, scratch, width, height } = context;
  const { survey } = context.needed('survey', 'survey');
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  if (curve) machine.floats.set(tableOf(params, survey, curve), table / 4);
  const { slope, offset, width: w, height: h } = survey;
  const line = scratch.take(w * 8);
  machine.kernels.localTone({
    tile: tile.ptr,
    stride: tile.stride,
    tw: tile.width,
    th: tile.height,
    x: tile.x,
    y: tile.y,
    slope,
    offset,
    sw: w,
    sh: h,
    kx: w / width,
    ky: h / height,
    table,
    size: curve ? SIZE : 0,
    detail,
    most: MOST,
    line,
  });
  scratch.release(mark);
}

/** Colour follows opened shadows at most so far, or their noise would bloom. */
const MOST = 3;
