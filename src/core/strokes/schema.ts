import { UNITS } from '../image/unit';
import * as z from 'zod';

/** A photo that is cropped to a thousandth of its side still has its strokes within these. */
export const coordinate = z.number().min(-1000).max(1000);
const share = (neutral: number) => z.number().min(0).max(1).default(neutral);

/** Most dabs of one stroke: 28 bytes each. No hand draws a tenth of it. */
const MOST_DABS = 1_000_000;

const fieldsOfStroke = z.object({
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
  /** What a cut tip is cut from: a made material, or an imported picture by its file (inside a piece, its key). */
  material: z
    .object({ id: z.string().max(200).default(''), seed: z.number().int().min(0).default(1), file: z.string().max(500).optional() })
    .optional(),
  /** What of it paints. */
  marks: z.enum(['lights', 'darks']).default('lights'),
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
    .array(z.tuple([coordinate, coordinate, z.number().min(0).max(1)]))
    .min(1)
    .max(20000),
});
export const strokeSchema = fieldsOfStroke.refine((stroke) => dabsAbout(stroke) <= MOST_DABS, {
  error: 'a stroke is longer than a brush can draw',
  path: ['points'],
});
export type Stroke = z.output<typeof strokeSchema>;

/** About how many dabs a stroke has, on a square photo. */
function dabsAbout({ points, size, spacing }: z.output<typeof fieldsOfStroke>): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) length += Math.hypot(points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]);
  return (length * UNITS) / Math.max(0.5, size * spacing);
}

/** A stroke whose dabs lie ready in kernel memory: where, and how many. */
export interface Tabled {
  table?: { at: number; count: number };
}
