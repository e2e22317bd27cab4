import type { Field } from './field';
import { woven } from './making/operations/structures';
import type { Sheet } from './sheet';

/** Tables run along the threads at a fixed fineness, so that the cloth is the same at every size. */
const SAMPLES = 1024;

export interface WeaveOptions {
  /** Threads each way along the long side; even, so that over and under meet across the edge. */
  threads: number;
  /** Standard deviation of a thread's place, and median and spread of its half width, in pitches. */
  offset: number;
  width: [median: number, spread: number];
  /** Wander along the thread, and change of width along it. */
  jitter: number;
  wobble: number;
  /** Share of threads with a slub, and its length in pitches. */
  slubs: number;
  slubLength: number;
  /** Height of the over and under, of the gap, of the twist, in thread radii. */
  bow: number;
  gap: number;
  twist: number;
  /** How far the whole cloth is pulled about, in fractions of the long side. */
  bend: number;
}

/** A plain weave: height in thread radii, a tone and a warmth for each thread, and the fibres along its twist, which only large sheets have. */
export function weaveCloth(sheet: Sheet, o: WeaveOptions): { height: Field; tone: Field; warmth: Field; fibre: Field } {
  const { random, right, bottom } = sheet;
  const warp = 2 * Math.round((o.threads * right) / 2);
  const weft = 2 * Math.round((o.threads * bottom) / 2);
  const { x: u, y: v } = sheet.coordinates();
  u.add(sheet.noise(1.4, { octaves: 5 }), o.bend * 0.35).scale(warp / right);
  v.add(sheet.noise(1.4, { octaves: 5 }), o.bend * 0.35).scale(weft / bottom);
  const threads = (count: number, length: number) => {
    const base: number[] = [];
    for (let i = 0; i < count; i++) {
      const slub = random.chance(o.slubs);
      base.push(o.offset * random.gauss(), Math.min(0.66, random.logNormal(o.width[0], o.width[1])));
      base.push(random.between(0, length), slub ? random.logNormal(o.slubLength, 0.6) : 0, random.between(0.2, 0.55));
    }
    return base;
  };
  const down = threads(warp, weft);
  const across = threads(weft, warp);
  const [offDown, widDown] = alongThreads(sheet, warp, down, o, sheet.seed + 1);
  const [offAcross, widAcross] = alongThreads(sheet, weft, across, o, sheet.seed + 5001);
  const [height, tone, fibre] = sheet.stepOf(
    woven,
    {
      warp,
      weft,
      samples: SAMPLES,
      tables: { offDown, widDown, offAcross, widAcross },
      meanWidth: o.width[0],
      bow: o.bow,
      gap: o.gap,
      twist: o.twist,
      seed: sheet.seed + 9,
    },
    [u, v],
  );
  const warmth = tone.copy().times(tone).scale(2, -0.66);
  return { height, tone, warmth, fibre };
}

/** Where each thread lies and how wide it is, all along it. */
function alongThreads({ machine, memory }: Sheet, count: number, base: number[], o: WeaveOptions, seed: number): [Float32Array, Float32Array] {
  const words = count * SAMPLES;
  const [offset, width, table] = [words, words, base.length].map((n) => memory.take(n * 4));
  machine.floats.set(base, table / 4);
  machine.kernels.threadTables(offset, width, count, SAMPLES, table, o.jitter, o.wobble, seed);
  const [offsets, widths] = [offset, width].map((at) => machine.floats.slice(at / 4, at / 4 + words));
  for (const at of [offset, width, table]) memory.give(at);
  return [offsets, widths];
}
