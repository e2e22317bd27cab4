import type { Picture } from '../image/picture';
import { padded, type Region } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { Stroke } from './parts/strokes';

/** What strokes are laid with: the scale of the whole, in pixels. */
export type StrokeContext = Pick<RenderContext, 'machine' | 'scratch' | 'unit' | 'width' | 'height'>;

/** Numbers of a dab: x, y, radius, flow, and the turned tip's cosine and sine. */
const DAB = 6;
/** How thick a flat tip is to its width. */
const FLAT = 0.33;

/** A number 0..1 that hangs on a dab alone, so that it strays the same way in every drawing. */
const chance = (i: number) => {
  const v = Math.sin(i * 12.9898 + 4.1414) * 43758.5453;
  return v - Math.floor(v);
};

/** Dabs of a stroke, lengths in u: laid along the path at even distances, the same at every scale. */
export function dabsOf(stroke: Stroke, widthU: number, heightU: number): Float32Array {
  const out: number[] = [];
  const { size, jitter, presses, follow } = stroke;
  const own = (stroke.angle * Math.PI) / 180;
  const sized = presses === 'both' || presses === 'size';
  const flowing = presses === 'both' || presses === 'flow';
  let way = 0;
  const put = (x: number, y: number, p: number) => {
    const n = out.length / DAB;
    const stray = jitter > 0 ? (chance(n) * 2 - 1) * jitter * size : 0;
    const along = jitter > 0 ? (chance(n + 0.5) * 2 - 1) * jitter * size * 0.5 : 0;
    const angle = own + (follow ? way : 0);
    out.push(
      x - Math.sin(way) * stray + Math.cos(way) * along,
      y + Math.cos(way) * stray + Math.sin(way) * along,
      (size / 2) * (sized ? p : 1),
      stroke.flow * (flowing ? p : 1),
      Math.cos(angle),
      Math.sin(angle),
    );
  };
  const spacing = Math.max(0.5, size * stroke.spacing);
  const at = stroke.points.map(([x, y, p]) => [x * widthU, y * heightU, p] as const);
  let [lx, ly, lp] = at[0];
  if (at[1]) way = Math.atan2(at[1][1] - ly, at[1][0] - lx);
  put(lx, ly, lp);
  let left = spacing;
  for (const [x, y, p] of at.slice(1)) {
    const length = Math.hypot(x - lx, y - ly);
    if (length > 0) way = Math.atan2(y - ly, x - lx);
    let s = left;
    for (; s <= length; s += spacing) {
      const t = s / length;
      put(lx + (x - lx) * t, ly + (y - ly) * t, lp + (p - lp) * t);
    }
    left = s - length;
    [lx, ly, lp] = [x, y, p];
  }
  return Float32Array.from(out);
}

const made = new WeakMap<Stroke, Float32Array>();

/** Dabs of `stroke` that touch the region, in its pixels, ready for the kernel; `wider` times their size. */
function dabsIn(context: StrokeContext, stroke: Stroke, { x: x0, y: y0, width, height }: Region, wider: number): Float32Array {
  const { unit } = context;
  let dabs = made.get(stroke);
  if (!dabs) made.set(stroke, (dabs = dabsOf(stroke, context.width / unit, context.height / unit)));
  const out = new Float32Array(dabs.length);
  let n = 0;
  for (let i = 0; i < dabs.length; i += DAB) {
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
export const tipKey = ({ material }: Pick<Stroke, 'material'>): string => (material ? `${material.id}:${material.seed}` : '');

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
  const dabs = dabsIn(context, stroke, region, wider);
  if (dabs.length === 0) return;
  const count = padded(region.width, region.height);
  const mark = scratch.mark();
  const cover = scratch.plane(count + 8, 0);
  const table = scratch.take(dabs.length * 4);
  machine.floats.set(dabs, table / 4);
  const n = dabs.length / DAB;
  const tip = stroke.tip === 'cut' ? tips[tipKey(stroke)] : undefined;
  if (tip) machine.kernels.stampCut(cover, region.width, region.height, table, n, stroke.hardness, tip.levels[0], tip.width, tip.height);
  else machine.kernels.stampDabs(cover, region.width, region.height, table, n, stroke.hardness, stroke.tip === 'flat' ? FLAT : 1);
  const target = towards ?? (stroke.does === 'put' ? 1 : stroke.does === 'take' ? 0 : stroke.level);
  machine.kernels.applyStroke(mask, cover, count, target, strength);
  scratch.release(mark);
}
