import type { Small } from './border';

/**
 * Where to cut an overlap so that the two pictures differ least along the cut (Efros & Freeman 2001, minimum error boundary cut): for every
 * line a place in 0..overlap. `error(line, place)` is the squared difference there. A closed cut ends where it began.
 */
export function leastCut(lines: number, overlap: number, error: (line: number, place: number) => number, closed: boolean): Float32Array {
  const run = (start: number | null): Float32Array => {
    const cost = new Float64Array(lines * overlap);
    const from = new Int8Array(lines * overlap);
    for (let k = 0; k < overlap; k++) cost[k] = start === null || k === start ? error(0, k) : Infinity;
    for (let l = 1; l < lines; l++) {
      for (let k = 0; k < overlap; k++) {
        let best = cost[(l - 1) * overlap + k];
        let step = 0;
        for (const s of [-1, 1]) {
          const other = k + s >= 0 && k + s < overlap ? cost[(l - 1) * overlap + k + s] : Infinity;
          if (other < best) [best, step] = [other, s];
        }
        cost[l * overlap + k] = best + error(l, k);
        from[l * overlap + k] = step;
      }
    }
    let k = start ?? 0;
    if (start === null) for (let i = 1; i < overlap; i++) if (cost[(lines - 1) * overlap + i] < cost[(lines - 1) * overlap + k]) k = i;
    const path = new Float32Array(lines);
    for (let l = lines - 1; l >= 0; l--) {
      path[l] = k + 0.5;
      k += from[l * overlap + k];
    }
    return path;
  };
  const open = run(null);
  return closed ? run(Math.floor(open[lines >> 1])) : open;
}

/** The error between the two ends of a small picture when they lie over one another, across (columns) or down (rows). */
export function endError({ width, height, pixels }: Small, overlap: number, across: boolean): (line: number, place: number) => number {
  const [far, pitch] = across ? [(width - overlap) * 4, width * 4] : [(height - overlap) * width * 4, 4];
  return (line, place) => {
    const p = line * pitch + place * (across ? 4 : width * 4);
    let sum = 0;
    for (let c = 0; c < 3; c++) sum += (pixels[p + c] - pixels[p + far + c]) ** 2;
    return sum;
  };
}

/** A cut found on a small picture, for one of `lines` lines and an overlap of `overlap` pixels; kept off both ends by `margin`. */
export function enlargedCut(cut: Float32Array, smallOverlap: number, lines: number, overlap: number, margin: number): Float32Array {
  const k = overlap / smallOverlap;
  return Float32Array.from({ length: lines }, (_, i) => {
    const u = Math.min(cut.length - 1, Math.max(0, ((i + 0.5) / lines) * cut.length - 0.5));
    const a = Math.floor(u);
    const v = cut[a] + (cut[Math.min(a + 1, cut.length - 1)] - cut[a]) * (u - a);
    return Math.min(overlap - margin, Math.max(margin, v * k));
  });
}
