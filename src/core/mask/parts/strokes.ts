import * as z from 'zod';
import { blurPlane } from '../../image/blur';
import type { RenderContext } from '../../render/context';
import { padded, type Region } from '../../image/tile';
import { activeField, definePart, densityField, partFields } from '../part';

export const strokeSchema = z.object({
  /** Put the coat back, take it away, or set the mask to `level`. */
  does: z.enum(['put', 'take', 'level']).default('take'),
  /** Diameter in u. */
  size: z.number().min(0.01).max(1e6).default(200),
  /** 0 soft to the middle, 1 hard. */
  hardness: z.number().min(0).max(1).default(0),
  /** Most that the whole stroke does. */
  strength: z.number().min(0).max(1).default(0.3),
  /** What one dab of it does. */
  flow: z.number().min(0).max(1).default(0.5),
  level: z.number().min(0).max(1).default(0.5),
  /** (x, y, pressure): fractions of the photo, which may lie outside it; pressure 0..1. */
  points: z
    .array(z.tuple([z.number(), z.number(), z.number().min(0).max(1)]))
    .min(1)
    .max(20000),
});
export type Stroke = z.output<typeof strokeSchema>;

export const strokesSchema = z.object({
  kind: z.literal('strokes'),
  active: activeField,
  density: densityField,
  feather: partFields.feather,
  strokes: z.array(strokeSchema).max(5000).default([]),
});
export type Strokes = z.output<typeof strokesSchema>;

/** Dabs of a stroke: x, y in u, radius in u, flow. Spaced by a tenth of the tip along the path, the same at every scale. */
export function dabsOf(stroke: Stroke, widthU: number, heightU: number): Float32Array {
  const out: number[] = [];
  const put = (x: number, y: number, p: number) => out.push(x, y, (stroke.size / 2) * p, stroke.flow * p);
  const spacing = Math.max(0.5, stroke.size * 0.1);
  let [lx, ly, lp] = stroke.points[0];
  lx *= widthU;
  ly *= heightU;
  put(lx, ly, lp);
  let left = spacing;
  for (const [px, py, p] of stroke.points.slice(1)) {
    const x = px * widthU;
    const y = py * heightU;
    const length = Math.hypot(x - lx, y - ly);
    let at = left;
    for (; at <= length; at += spacing) {
      const t = at / length;
      put(lx + (x - lx) * t, ly + (y - ly) * t, lp + (p - lp) * t);
    }
    left = at - length;
    [lx, ly, lp] = [x, y, p];
  }
  return Float32Array.from(out);
}

const made = new WeakMap<Stroke, Float32Array>();

/** What strokes are laid with: the scale of the whole, in pixels. */
export type StrokeContext = Pick<RenderContext, 'machine' | 'scratch' | 'unit' | 'width' | 'height'>;

/** Dabs of `stroke` that touch the region, in its pixels, ready for the kernel. */
function dabsIn(context: StrokeContext, stroke: Stroke, x0: number, y0: number, w: number, h: number): Float32Array {
  const { unit } = context;
  let dabs = made.get(stroke);
  if (!dabs) made.set(stroke, (dabs = dabsOf(stroke, context.width / unit, context.height / unit)));
  const out = new Float32Array(dabs.length);
  let n = 0;
  for (let i = 0; i < dabs.length; i += 4) {
    const x = dabs[i] * unit - x0;
    const y = dabs[i + 1] * unit - y0;
    const r = dabs[i + 2] * unit + 2;
    if (x + r < 0 || y + r < 0 || x - r > w || y - r > h) continue;
    out[n] = x;
    out[n + 1] = y;
    out[n + 2] = r - 2;
    out[n + 3] = dabs[i + 3];
    n += 4;
  }
  return out.subarray(0, n);
}

/** Lays strokes on a plane of a region, in the order they were made. */
export function layStrokes(context: StrokeContext, mask: number, region: Region, strokes: readonly Stroke[]): void {
  const { machine, scratch } = context;
  const count = padded(region.width, region.height);
  for (const stroke of strokes) {
    const dabs = dabsIn(context, stroke, region.x, region.y, region.width, region.height);
    if (dabs.length === 0) continue;
    const mark = scratch.mark();
    const cover = scratch.plane(count + 8, 0);
    const table = scratch.take(dabs.length * 4);
    machine.floats.set(dabs, table / 4);
    machine.kernels.stampDabs(cover, region.width, region.height, table, dabs.length / 4, stroke.hardness);
    const target = stroke.does === 'put' ? 1 : stroke.does === 'take' ? 0 : stroke.level;
    machine.kernels.applyStroke(mask, cover, count, target, stroke.strength);
    scratch.release(mark);
  }
}

/** Strokes in the order they were made; each bounded by its strength, so that only a second one builds up. */
export default definePart({
  kind: 'strokes',
  label: 'Brush strokes',
  schema: strokesSchema,
  draw(context, mask, region, { strokes, density, feather }) {
    if (density >= 1 && feather === 0) return layStrokes(context, mask, region, strokes);
    // All strokes together are one line, mask' = kept · mask + put, whose two planes can be softened and eased.
    const { machine, scratch, unit } = context;
    const count = padded(region.width, region.height);
    const mark = scratch.mark();
    const [kept, put] = [scratch.plane(count + 8, 1), scratch.plane(count + 8, 0)];
    layStrokes(
      context,
      kept,
      region,
      strokes.map((s) => ({ ...s, does: 'take' as const })),
    );
    layStrokes(context, put, region, strokes);
    for (const plane of [kept, put]) blurPlane(machine, scratch, plane, region.width, region.height, (feather * unit) / 3);
    machine.kernels.mixIn(kept, kept, count, density, 0, 1 - density);
    machine.kernels.times(mask, kept, count, 1, 0);
    machine.kernels.mixIn(mask, put, count, 1, density, 0);
    scratch.release(mark);
  },
  moved: (part, motion) => ({
    ...part,
    strokes: part.strokes.map((stroke) => ({
      ...stroke,
      size: motion.length(stroke.size),
      points: stroke.points.map(([x, y, pressure]): [number, number, number] => [...motion.point([x, y]), pressure]),
    })),
  }),
});
