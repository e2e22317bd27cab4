import type { Field } from './field';
import type { Sheet } from './sheet';

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

/** A plain weave: height in thread radii, a tone and a warmth for each thread. */
export function weaveCloth(sheet: Sheet, o: WeaveOptions): { height: Field; tone: Field; warmth: Field } {
  const { machine, width, height: rows, size, random } = sheet;
  const warp = 2 * Math.round((o.threads * width) / size / 2);
  const weft = 2 * Math.round((o.threads * rows) / size / 2);
  const { x: u, y: v } = sheet.coordinates();
  u.add(sheet.noise(1.4, { octaves: 5 }).once, o.bend * 0.35).scale(warp / (width / size));
  v.add(sheet.noise(1.4, { octaves: 5 }).once, o.bend * 0.35).scale(weft / (rows / size));
  const threads = (count: number, length: number) => {
    const base: number[] = [];
    for (let i = 0; i < count; i++) {
      const slub = random.chance(o.slubs);
      base.push(o.offset * random.gauss(), Math.min(0.66, random.logNormal(o.width[0], o.width[1])));
      base.push(random.between(0, length), slub ? random.logNormal(o.slubLength, 0.6) : 0, random.between(0.2, 0.55));
    }
    return base;
  };
  // Tables run along the threads at a fixed fineness, so that the cloth is the same at every size.
  const samples = 1024;
  const down = threads(warp, weft);
  const across = threads(weft, warp);
  const height = sheet.plane();
  const tone = sheet.plane();
  const words = (n: number) => new Float32Array(n * samples);
  const k = machine.kernels;
  sheet.table(words(warp), (offDown) =>
    sheet.table(words(warp), (widDown) =>
      sheet.table(words(weft), (offAcross) =>
        sheet.table(words(weft), (widAcross) => {
          sheet.table(down, (base) => k.threadTables(offDown, widDown, warp, samples, base, o.jitter, o.wobble, sheet.seed + 1));
          sheet.table(across, (base) => k.threadTables(offAcross, widAcross, weft, samples, base, o.jitter, o.wobble, sheet.seed + 5001));
          k.weave({
            height: height.ptr,
            tone: tone.ptr,
            w: width,
            h: rows,
            u: u.ptr,
            v: v.ptr,
            warp,
            weft,
            samplesDown: samples,
            samplesAcross: samples,
            offDown,
            widDown,
            offAcross,
            widAcross,
            meanWidth: o.width[0],
            bow: o.bow,
            gap: o.gap,
            twist: o.twist,
            seed: sheet.seed + 9,
          });
        }),
      ),
    ),
  );
  const warmth = tone.copy().times(tone).scale(2, -0.66);
  sheet.release(u, v);
  return { height, tone, warmth };
}
