import * as z from 'zod';
import { blurPlane } from '../../image/blur';
import { padded } from '../../image/tile';
import type { Loaded } from '../part';
import { activeField, definePart, densityField, partFields } from '../part';
import { layStrokes } from '../strokes';

const share = (neutral: number) => z.number().min(0).max(1).default(neutral);

export const strokeSchema = z.object({
  /** Put the coat back, take it away, or set the mask to `level`. */
  does: z.enum(['put', 'take', 'level']).default('take'),
  /** Diameter in u. */
  size: z.number().min(0.01).max(1e6).default(200),
  /** 0 soft to the middle, 1 hard. */
  hardness: share(0),
  /** Most that the whole stroke does. */
  strength: share(0.3),
  /** What one dab of it does. */
  flow: share(0.5),
  level: share(0.5),
  /** Round; flat, a third as thick as it is wide; or cut from a material. */
  tip: z.enum(['round', 'flat', 'cut']).default('round'),
  /** The material of a tip that is cut from one: its lights paint. */
  material: z.object({ id: z.string().max(200), seed: z.number().int().min(0).default(1) }).optional(),
  /** Degrees clockwise that the tip is turned; from the stroke's direction when it follows. */
  angle: z.number().min(-180).max(180).default(0),
  follow: z.boolean().default(true),
  /** From dab to dab, in parts of the tip's size. */
  spacing: z.number().min(0.02).max(2).default(0.1),
  /** How far dabs stray to the sides, in parts of the tip's size. */
  jitter: share(0),
  /** A second tip of twice the size and half the strength goes with it. */
  ring: z.boolean().default(false),
  /** What a pen's pressure changes. */
  presses: z.enum(['both', 'size', 'flow', 'none']).default('both'),
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

/** Strokes in the order they were made; each bounded by its strength, so that only a second one builds up. */
export default definePart({
  kind: 'strokes',
  label: 'Brush strokes',
  schema: strokesSchema,
  draw(context, mask, region, part) {
    const { strokes, density, feather, tips } = part as Strokes & Loaded;
    if (density >= 1 && feather === 0) return layStrokes(context, mask, region, strokes, tips);
    // All strokes together are one line, mask' = kept · mask + put, whose two planes can be softened and eased.
    const { machine, scratch, unit } = context;
    const count = padded(region.width, region.height);
    const mark = scratch.mark();
    const [kept, put] = [scratch.plane(count + 8, 1), scratch.plane(count + 8, 0)];
    layStrokes(context, kept, region, strokes, tips, 0);
    layStrokes(context, put, region, strokes, tips);
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
