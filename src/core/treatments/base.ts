import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { Survey } from '../render/survey';

const SIZE = 512;

/** Tables already made, by the parameters that they come from. */
const made = new WeakMap<object, Float32Array>();

function tableOf(params: object, curve: () => (v: number) => number): Float32Array {
  let table = made.get(params);
  if (!table) {
    const f = curve();
    made.set(params, (table = Float32Array.from({ length: SIZE }, (_, i) => f(i / (SIZE - 1)))));
  }
  return table;
}

/** Puts a function of 0..1, if any, on the base of a tile's luma and multiplies the detail that stands on it; see the kernel `localTone`. */
export function applyBase(
  { machine, scratch, width, height }: RenderContext,
  tile: Tile,
  params: object & { survey?: Survey },
  curve: (() => (v: number) => number) | null,
  detail: number,
): void {
  const { survey } = params;
  if (!survey) throw new Error('This treatment needs a survey of the picture it is put on.');
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  if (curve) machine.floats.set(tableOf(params, curve), table / 4);
  const { slope, offset, width: w, height: h } = survey;
  const line = scratch.take(w * 8);
  machine.kernels.localTone(
    ...[
      tile.ptr,
      tile.stride,
      tile.width,
      tile.height,
      tile.x,
      tile.y,
      slope,
      offset,
      w,
      h,
      w / width,
      h / height,
      table,
      curve ? SIZE : 0,
      detail,
      MOST,
      line,
    ],
  );
  scratch.release(mark);
}

/** Colour follows opened shadows at most so far, or their noise would bloom. */
const MOST = 3;
