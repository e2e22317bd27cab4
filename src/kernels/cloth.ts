// Plain weave: real over and under at each crossing, from per-thread tables. See materials/generators/canvas.ts for the figures.
import { hash, sin1, unit } from './math';
import { line } from './noise';

// @ts-ignore: decorator
@inline
function fold(i: i32, n: i32): i32 {
  const r = i % n;
  return r < 0 ? r + n : r;
}

/**
 * Tables of one set of threads along its length: offset and half width in pitches, `samples` long for each of `threads`.
 * `base` holds (offset, half width, slub centre, slub half length, slub gain) f32 for each thread, positions in pitches.
 */
export function threadTables(offset: usize, width: usize, threads: i32, samples: i32, base: usize, jitter: f32, wobble: f32, seed: i32): void {
  for (let k = 0; k < threads; k++) {
    const b = base + <usize>k * 20;
    const o = f32.load(b);
    const w0 = f32.load(b + 4);
    const centre = f32.load(b + 8);
    const half = f32.load(b + 12);
    const gain = f32.load(b + 16);
    for (let i = 0; i < samples; i++) {
      const s: f32 = (<f32>i + 0.5) * <f32>threads / <f32>samples;
      const period = threads;
      const at = (<usize>(k * samples + i)) << 2;
      // Frequencies are rounded so that a whole number of cells fits: the cloth repeats without a seam.
      const f1 = max<f32>(1, nearest<f32>(0.09 * <f32>period));
      const f2 = max<f32>(1, nearest<f32>(0.37 * <f32>period));
      const f3 = max<f32>(1, nearest<f32>(0.13 * <f32>period));
      const f4 = max<f32>(1, nearest<f32>(0.4 * <f32>period));
      const t = s / <f32>period;
      f32.store(offset + at, o + jitter * (0.6 * line(t * f1, seed + k * 4, <i32>f1) + 0.35 * line(t * f2, seed + k * 4 + 1, <i32>f2)));
      let d = abs<f32>(s - centre);
      d = min<f32>(d, <f32>period - d);
      const slub: f32 = half > 0 && d < half ? gain * (0.5 + 0.5 * sin1(1.5707963 - 3.1415927 * d / half)) : 0;
      f32.store(width + at, w0 * (1 + wobble * (0.6 * line(t * f3, seed + k * 4 + 2, <i32>f3) + 0.4 * line(t * f4, seed + k * 4 + 3, <i32>f4)) + slub));
    }
  }
}

/**
 * Height (in thread radii) and thread colour index of a plain weave at every pixel. u, v planes give bent coordinates in pitches.
 * Threads of the first set run down (indexed by u), of the second across. `tone` receives a value per thread in −1..1, `fibre` the fibres that lie along its
 * twist: `fibres` to a turn, of deviation about 1 times `fine`; nothing where that is 0.
 */
export function weave(
  height: usize, tone: usize, fibre: usize, total: i32, u: usize, v: usize, warp: i32, weft: i32, samplesDown: i32, samplesAcross: i32,
  offDown: usize, widDown: usize, offAcross: usize, widAcross: usize, meanWidth: f32, bow: f32, gap: f32, twist: f32, fibres: f32, fine: f32, seed: i32,
): void {
  for (let i = 0; i < total; i++) {
    const at = <usize>i << 2;
    const x = f32.load(u + at);
    const y = f32.load(v + at);
    let best = gap;
    let colour: f32 = 0;
    let turn: f32 = 0;
    let who = 0;
    for (let set = 0; set < 2; set++) {
      const across = set == 0 ? x : y;
      const along = set == 0 ? y : x;
      const count = set == 0 ? warp : weft;
      const length = set == 0 ? weft : warp;
      const samples = set == 0 ? samplesDown : samplesAcross;
      const off = set == 0 ? offDown : offAcross;
      const wid = set == 0 ? widDown : widAcross;
      const cell = <i32>floor<f32>(across);
      const pos = fold(<i32>floor<f32>(along * <f32>samples / <f32>length), samples);
      for (let k = cell - 1; k <= cell + 1; k++) {
        const id = k >= 0 && k < count ? k : fold(k, count);
        const table = (<usize>(id * samples + pos)) << 2;
        const half = f32.load(wid + table);
        const e: f32 = (across - (<f32>k + 0.5 + f32.load(off + table))) / half;
        if (e <= -1 || e >= 1) continue;
        const crown = sqrt<f32>(1 - e * e) * (0.45 + 0.55 * half / meanWidth) * 0.7;
        // Over at odd crossings, under at even ones; the other set the other way round.
        const phase: f32 = 3.1415927 * (along - 0.5) + ((k & 1) == 0 ? <f32>0 : <f32>3.1415927);
        const wave = bow * sin1(phase + 1.5707963) * (set == 0 ? <f32>1 : <f32>-1);
        // A thread that cannot come out on top, whatever its twist, need not be looked at closer.
        if (crown + wave + twist + 0.05 <= best) continue;
        const strand = twist * sin1(6.2831853 * (1.35 * along + 0.42 * e) + 1.5 * line(along * 0.7, seed + id, 0));
        const z: f32 = crown + wave + strand + 0.1 * (unit(hash(id * 2 + set, seed)) - 0.5);
        if (z > best) {
          best = z;
          colour = unit(hash(id * 2 + set, seed + 11)) * 2 - 1;
          turn = 1.35 * along + 0.42 * e;
          who = id * 2 + set;
        }
      }
    }
    f32.store(height + at, best);
    f32.store(tone + at, colour);
    const lies: f32 = fine > 0 ? fine * (line(turn * fibres + <f32>(who & 63) * 3.7, seed + who, 0) + 0.6 * line(turn * fibres * 2.3, seed + who + 999, 0)) : 0;
    f32.store(fibre + at, lies);
  }
}
