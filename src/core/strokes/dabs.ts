import type { DrawContext, Grown } from '../graph/context';
import type { Picture } from '../image/picture';
import { padded, type Region } from '../image/tile';
import type { Stroke, Tabled } from './schema';

/** What strokes are laid with: the scale of the whole, in pixels. */
export type StrokeContext = Pick<DrawContext, 'machine' | 'scratch' | 'unit' | 'width' | 'height'>;

/** Numbers of a dab: x, y, radius, flow, the turned tip's cosine and sine, and the part of its picture at which a cut tip begins. */
export const DAB = 7;
/** How thick a flat tip is to its width. */
const FLAT = 0.33;

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
        this.left = this.spacing;
      } else this.line(x, y, p);
      this.last = [x, y, p];
    }
  }

  private get spacing(): number {
    return Math.max(0.5, this.stroke.size * this.stroke.spacing);
  }

  private line(x: number, y: number, p: number): void {
    const [lx, ly, lp] = this.last as readonly [number, number, number];
    const length = Math.hypot(x - lx, y - ly);
    if (length > 0) this.way = Math.atan2(y - ly, x - lx);
    let s = this.left;
    for (; s <= length; s += this.spacing) {
      const t = s / length;
      this.put(lx + (x - lx) * t, ly + (y - ly) * t, lp + (p - lp) * t);
    }
    this.left = s - length;
  }

  private put(x: number, y: number, p: number): void {
    const { size, jitter, presses, follow, flow } = this.stroke;
    const n = this.count++;
    const stray = jitter > 0 ? (chance(n) * 2 - 1) * jitter * size : 0;
    const along = jitter > 0 ? (chance(n + 0.5) * 2 - 1) * jitter * size * 0.5 : 0;
    const angle = (this.stroke.angle * Math.PI) / 180 + (follow ? this.way : 0);
    this.out(
      x - Math.sin(this.way) * stray + Math.cos(this.way) * along,
      y + Math.cos(this.way) * stray + Math.sin(this.way) * along,
      (size / 2) * (presses === 'both' || presses === 'size' ? p : 1),
      flow * (presses === 'both' || presses === 'flow' ? p : 1),
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

function allOf({ width, height, unit }: StrokeContext, stroke: Stroke): Float32Array {
  let dabs = made.get(stroke);
  if (!dabs) made.set(stroke, (dabs = dabsOf(stroke, width / unit, height / unit)));
  return dabs;
}

/** Dabs of `stroke` from the one numbered `from` on that touch the region, in its pixels, ready for the kernel; `wider` times their size. */
function dabsIn(context: StrokeContext, stroke: Stroke & Tabled, { x: x0, y: y0, width, height }: Region, wider: number, from: number): Float32Array {
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

/** Key under which the picture of a cut tip is loaded. */
export const tipKey = ({ material }: Pick<Stroke, 'material'>): string => (material ? (material.file ?? `${material.id}:${material.seed}`) : '');

/**
 * Lays strokes on a plane of a region, in the order they were made; each moves it by its strength at most: to where it goes, or all of them
 * `towards` one value.
 */
export function layStrokes(
  context: StrokeContext,
  mask: number,
  region: Region,
  strokes: readonly Stroke[],
  tips: Record<string, Picture> = {},
  towards?: number,
): void {
  for (const stroke of strokes) {
    const { strength, ring } = stroke;
    if (!ring) layOne(context, mask, region, stroke, tips, 1, strength, towards);
    else {
      // Half the strength all around, then what is missing to the whole of it in the middle.
      layOne(context, mask, region, stroke, tips, 2, strength / 2, towards);
      layOne(context, mask, region, stroke, tips, 1, strength / 2 / (1 - strength / 2), towards);
    }
  }
}

function layOne(
  context: StrokeContext,
  mask: number,
  region: Region,
  stroke: Stroke,
  tips: Record<string, Picture>,
  wider: number,
  strength: number,
  towards?: number,
): void {
  const { machine, scratch } = context;
  const mark = scratch.mark();
  const cover = scratch.plane(padded(region.width, region.height) + 8, 0);
  if (stamp(context, cover, region, stroke, tips, wider, 0)) apply(machine, mask, cover, region, stroke, strength, towards);
  scratch.release(mark);
}

/** Stamps a stroke's dabs from the one numbered `from` on into a cover plane; false when none touches it. */
function stamp(
  context: StrokeContext,
  cover: number,
  region: Region,
  stroke: Stroke,
  tips: Record<string, Picture>,
  wider: number,
  from: number,
): boolean {
  const { machine, scratch } = context;
  const dabs = dabsIn(context, stroke, region, wider, from);
  if (dabs.length === 0) return false;
  const mark = scratch.mark();
  const table = scratch.take(dabs.length * 4);
  machine.floats.set(dabs, table / 4);
  const n = dabs.length / DAB;
  const tip = stroke.tip === 'cut' ? tips[tipKey(stroke)] : undefined;
  if (tip)
    machine.kernels.stampCut({
      cover,
      tw: region.width,
      th: region.height,
      dabs: table,
      count: n,
      hardness: stroke.hardness,
      picture: tip.levels[0],
      pw: tip.width,
      ph: tip.height,
      darks: +(stroke.marks === 'darks'),
    });
  else machine.kernels.stampDabs(cover, region.width, region.height, table, n, stroke.hardness, stroke.tip === 'flat' ? FLAT : 1);
  scratch.release(mark);
  return true;
}

function apply(
  machine: StrokeContext['machine'],
  mask: number,
  cover: number,
  { width, height }: Region,
  { does, level }: Stroke,
  strength: number,
  towards?: number,
): void {
  const target = towards ?? (does === 'put' ? 1 : does === 'take' ? 0 : level);
  machine.kernels.applyStroke(mask, cover, padded(width, height), target, strength);
}

/** Lays one stroke whose cover is kept between drawings: only the dabs that came since are stamped. */
export function layGrowing(
  context: StrokeContext,
  mask: number,
  region: Region,
  stroke: Stroke & Tabled,
  tips: Record<string, Picture> = {},
  kept: Grown,
): void {
  const { machine } = context;
  const all = stroke.table?.count ?? allOf(context, stroke).length / DAB;
  const fresh = kept.count > all;
  if (fresh || kept.count === 0) machine.kernels.fill(kept.plane, padded(region.width, region.height), 0);
  stamp(context, kept.plane, region, stroke, tips, 1, fresh ? 0 : kept.count);
  kept.keep(all);
  apply(machine, mask, kept.plane, region, stroke, stroke.strength);
}
