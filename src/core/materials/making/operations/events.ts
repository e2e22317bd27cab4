import type { Spot, StrokePoint } from '../../events';
import { defineOperation, type Making } from '../operation';

// Things drawn one by one. They lie where they lie on the sheet, whatever part of it is drawn.

/** The plane of a making and the sheet that it is part of, as the kernels take them. */
const planeOf = ({ frame, region }: Making, finer = 1) => ({
  w: region.width * finer,
  h: region.height * finer,
  x0: region.x * finer,
  y0: region.y * finer,
  W: frame.width * finer,
  H: frame.height * finer,
  wrap: +frame.wrap,
});

interface StrokesParams {
  /**
   * (x, y, half width, value, way from its beginning, length of the waves of its edges, strands) of each point and an unused word, lengths in fractions of
   * the long side; a negative half width begins a stroke.
   */
  points: Float32Array;
  /** Least half width, in pixels. */
  least?: number;
}

/** Words of one point of a stroke. */
export const STROKE_WORDS = 8;
/** A stroke has some width, or its beginning could not be told. */
const NARROW = 1e-9;

/** On sheets up to this long side strokes are drawn twice as fine and averaged: where several meet within a pixel, the greatest is not their mean. */
const SMALL = 512;

/** Strokes added to a plane by maximum. */
export const strokes = defineOperation<StrokesParams>({
  name: 'strokes',
  inPlace: true,
  run: (making, params) => {
    const { machine, frame, region, out, grab } = making;
    if (frame.size > SMALL) return drawStrokes(making, params, out[0], 1);
    const count = region.width * region.height;
    const [fine, own] = [grab(count * 16), grab(count * 4)];
    machine.kernels.fill(fine, count * 4, 0);
    drawStrokes(making, params, fine, 2);
    machine.kernels.shrink(fine, region.width * 2, region.height * 2, own);
    machine.kernels.extreme(out[0], own, count, 1);
  },
});

/** Strokes on a plane so many times as fine as the frame says. */
function drawStrokes(making: Making, { points, least = 1e-4 }: StrokesParams, dst: number, finer: number): void {
  const size = making.frame.size * finer;
  const data = points.slice();
  for (let p = 0; p < data.length; p += STROKE_WORDS) {
    for (const k of [0, 1, 4, 5]) data[p + k] *= size;
    data[p + 2] = Math.sign(data[p + 2]) * Math.max(least * finer, Math.abs(data[p + 2]) * size);
  }
  making.machine.kernels.drawStrokes({ dst, ...planeOf(making, finer), points: making.table(data), count: data.length / STROKE_WORDS });
}

/** Waves of a broken edge are so many half widths long. */
const WAVE = 2.8;

/** How strokes are where they are some pixels wide. */
export interface StrokeDetail {
  /** Their edges are broken, as those of a crack or a scratch. */
  broken?: boolean;
  /** Each is a bundle of so many strands, as a lock of hair. */
  strands?: number;
}

/** Strokes as one table. */
export function tableOf(list: readonly StrokePoint[][], { broken = false, strands = 0 }: StrokeDetail): Float32Array {
  const points = new Float32Array(list.reduce((n, stroke) => n + stroke.length, 0) * STROKE_WORDS);
  let p = 0;
  for (const stroke of list) {
    const wave = broken ? WAVE * Math.max(...stroke.map(([, , half]) => half)) : 0;
    let way = 0;
    for (const [i, [x, y, half, value]] of stroke.entries()) {
      if (i > 0) way += Math.hypot(x - stroke[i - 1][0], y - stroke[i - 1][1]);
      points.set([x, y, Math.max(NARROW, half) * (i === 0 ? -1 : 1), value, way, wave, strands], p);
      p += STROKE_WORDS;
    }
  }
  return points;
}

interface SpotsParams {
  list: readonly Spot[];
  /** Softness of their edge in parts of the radius. */
  rim: number;
  /** By how much those wider than a few pixels differ from place to place. */
  uneven: number;
  seed: number;
}

/** Spots added to a plane by maximum. */
export const spots = defineOperation<SpotsParams>({
  name: 'spots',
  inPlace: true,
  run: (making, { list, rim, uneven, seed }) => {
    const { size } = making.frame;
    const data = new Float32Array(list.length * 8);
    list.forEach(({ x, y, r, long = 1, angle = 0, lobes = 0, value = 1 }, i) => {
      data.set([x * size, y * size, r * size, long, Math.cos(angle), Math.sin(angle), lobes, value], i * 8);
    });
    making.machine.kernels.drawSpots({ dst: making.out[0], ...planeOf(making), spots: making.table(data), count: list.length, rim, uneven, seed });
  },
});

/** Triangles with a height at each corner: (x, y, z) three times each, x and y in fractions of the long side. The last one stands. */
export const triangles = defineOperation<{ corners: readonly number[] }>({
  name: 'triangles',
  run: (making, { corners }) => {
    const { machine, frame, region, out } = making;
    const data = Float32Array.from(corners, (v, i) => (i % 3 === 2 ? v : v * frame.size));
    machine.kernels.fill(out[0], region.width * region.height, 0);
    machine.kernels.drawTriangles({ dst: out[0], ...planeOf(making), table: making.table(data), count: corners.length / 9 });
  },
});

/** Words of a ribbon that are lengths, and those that must not fall under so many pixels. */
const LENGTHS = [0, 1, 5, 6];
const LEAST: Record<number, number> = { 5: 1.5, 6: 0.6 };

interface RibbonsParams {
  /** 24 words each, lengths in fractions of the long side and the bend in radians over the length. */
  words: Float32Array;
  bank: Float32Array;
}

/** Strokes of a loaded tool laid one over another: height, tone and warmth of the paint. */
export const ribbons = defineOperation<RibbonsParams>({
  name: 'ribbons',
  planes: 3,
  run: (making, { words, bank }) => {
    const { machine, frame, region, out, grab, table } = making;
    const { kernels } = machine;
    const count = region.width * region.height;
    const [through, clear] = [grab(count * 4), grab(count * 4)];
    out.forEach((ptr) => kernels.fill(ptr, count, 0));
    [through, clear].forEach((ptr) => kernels.fill(ptr, count, 1));
    const data = words.slice();
    for (let i = 0; i < data.length; i += 24) {
      for (const k of LENGTHS) data[i + k] = Math.max(LEAST[k] ?? -Infinity, data[i + k] * frame.size);
      data[i + 4] /= data[i + 5];
    }
    const [height, tone, warmth] = out;
    kernels.ribbons({
      height,
      tone,
      warmth,
      through,
      clear,
      ...planeOf(making),
      table: table(data),
      count: data.length / 24,
      bank: table(bank),
      profile: grab(2 * 129 * 4),
    });
  },
});
