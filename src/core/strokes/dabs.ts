import type { DrawContext } from '../graph/context';
import type { Region } from '../image/tile';
import type { Stroke, Tabled } from './schema';

/** What strokes are laid with: the scale of the whole, in pixels. */
export type StrokeContext = Pick<DrawContext, 'machine' | 'scratch' | 'unit' | 'width' | 'height'>;

/** Numbers of a dab: x, y, radius, flow, the turned tip's cosine and sine, and the part of its picture at which a cut tip begins. */
export const DAB = 7;

/** A number 0..1 that hangs on a dab alone, so that it strays the same way in every drawing. */
const chance = (i: number) => {
  const v = Math.sin(i * 12.9898 + 4.1414) * 43758.5453;
  return v - Math.floor(v);
};

/** Lays the dabs of a stroke one after another as its points come: lengths in u, at even distances along the path, the same at every scale. */
export class DabMaker {
  private last: readonly [number, number, number] | null = null;
  private left = 0;
  private way = 0;
  private count = 0;
  private done = 0;

  constructor(
    private readonly stroke: Stroke,
    private readonly widthU: number,
    private readonly heightU: number,
    private readonly out: (...dab: [x: number, y: number, radius: number, flow: number, cos: number, sin: number, start: number]) => void,
  ) {}

  /** Dabs along all points that have not been laid yet. */
  extend(points: Stroke['points']): void {
    for (; this.done < points.length; this.done++) {
      const [px, py, p] = points[this.done];
      const [x, y] = [px * this.widthU, py * this.heightU];
      if (!this.last) {
        const next = points[this.done + 1];
        if (next) this.way = Math.atan2(next[1] * this.heightU - y, next[0] * this.widthU - x);
        this.put(x, y, p);
        this.left = this.spacing(p);
      } else this.line(x, y, p);
      this.last = [x, y, p];
    }
  }

  /** From one dab to the next: closer where pressure makes them smaller and not weaker as well, so that they do not part into beads. */
  private spacing(pressure: number): number {
    const { size, spacing, presses } = this.stroke;
    const small = presses === 'size' ? Math.max(0.25, pressure) : 1;
    return Math.max(0.5, size * spacing * small);
  }

  private line(x: number, y: number, p: number): void {
    const [lx, ly, lp] = this.last as readonly [number, number, number];
    const length = Math.hypot(x - lx, y - ly);
    if (length > 0) this.way = Math.atan2(y - ly, x - lx);
    let s = this.left;
    while (s <= length) {
      const t = s / length;
      const pressure = lp + (p - lp) * t;
      this.put(lx + (x - lx) * t, ly + (y - ly) * t, pressure);
      s += this.spacing(pressure);
    }
    this.left = s - length;
  }

  private put(x: number, y: number, p: number): void {
    const { size, jitter, varySize, varyTurn, varyAmount, seed, presses, follow, flow } = this.stroke;
    const n = this.count++;
    /** 0..1, another for every question asked about this dab. */
    const any = (question: number) => chance(n + question + (seed % 9973) * 17.31);
    const stray = jitter > 0 ? (any(0) * 2 - 1) * jitter * size : 0;
    const along = jitter > 0 ? (any(0.5) * 2 - 1) * jitter * size * 0.5 : 0;
    const turn = varyTurn > 0 ? (any(0.25) * 2 - 1) * varyTurn * Math.PI : 0;
    const angle = (this.stroke.angle * Math.PI) / 180 + (follow ? this.way : 0) + turn;
    this.out(
      x - Math.sin(this.way) * stray + Math.cos(this.way) * along,
      y + Math.cos(this.way) * stray + Math.sin(this.way) * along,
      (size / 2) * (presses === 'both' || presses === 'size' ? p : 1) * (varySize > 0 ? 1 - varySize * any(0.75) : 1),
      flow * (presses === 'both' || presses === 'flow' ? p : 1) * (varyAmount > 0 ? 1 - varyAmount * any(0.125) : 1),
      Math.cos(angle),
      Math.sin(angle),
      // By the number of the dab in its stroke, so that it is the same in every tile and however the stroke came.
      ((n * 37) % 64) / 64,
    );
  }
}

/** All dabs of a stroke. */
export function dabsOf(stroke: Stroke, widthU: number, heightU: number): Float32Array {
  const out: number[] = [];
  new DabMaker(stroke, widthU, heightU, (...dab) => void out.push(...dab)).extend(stroke.points);
  return Float32Array.from(out);
}

const made = new WeakMap<Stroke, Float32Array>();

export function allOf({ width, height, unit }: StrokeContext, stroke: Stroke): Float32Array {
  let dabs = made.get(stroke);
  if (!dabs) made.set(stroke, (dabs = dabsOf(stroke, width / unit, height / unit)));
  return dabs;
}

/** Dabs of `stroke` from the one numbered `from` on that touch the region, in its pixels, ready for the kernel; `wider` times their size. */
export function dabsIn(
  context: StrokeContext,
  stroke: Stroke & Tabled,
  { x: x0, y: y0, width, height }: Region,
  wider: number,
  from: number,
): Float32Array {
  const { unit, machine } = context;
  const dabs = stroke.table ? machine.floats.subarray(stroke.table.at / 4, stroke.table.at / 4 + stroke.table.count * DAB) : allOf(context, stroke);
  const out = new Float32Array(Math.max(0, dabs.length - from * DAB));
  let n = 0;
  for (let i = from * DAB; i < dabs.length; i += DAB) {
    const x = dabs[i] * unit - x0;
    const y = dabs[i + 1] * unit - y0;
    const r = dabs[i + 2] * unit * wider;
    if (x + r < -2 || y + r < -2 || x - r > width + 2 || y - r > height + 2) continue;
    out[n] = x;
    out[n + 1] = y;
    out[n + 2] = r;
    for (let k = 3; k < DAB; k++) out[n + k] = dabs[i + k];
    n += DAB;
  }
  return out.subarray(0, n);
}
