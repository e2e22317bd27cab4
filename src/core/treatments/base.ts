import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { Survey } from '../render/survey';

const SIZE = 512;

/** Puts a function of 0..1 on the base of a tile's luma and multiplies the detail that stands on it; see the kernel `localTone`. */
export function applyBase(
  { machine, scratch, width, height }: RenderContext,
  tile: Tile,
  survey: Survey | undefined,
  curve: (v: number) => number,
  detail: number,
): void {
  if (!survey) throw new Error('This treatment needs a survey of the picture it is put on.');
  const mark = scratch.mark();
  const table = scratch.take(SIZE * 4);
  machine.floats.set(
    Float32Array.from({ length: SIZE }, (_, i) => curve(i / (SIZE - 1))),
    table / 4,
  );
  const { slope, offset, width: w, height: h } = survey;
  machine.kernels.localTone(
    ...[tile.ptr, tile.stride, tile.width, tile.height, tile.x, tile.y, slope, offset, w, h, w / width, h / height, table, SIZE, detail, MOST],
  );
  scratch.release(mark);
}

/** Colour follows opened shadows at most so far, or their noise would bloom. */
const MOST = 3;
