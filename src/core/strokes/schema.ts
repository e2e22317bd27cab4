import type { Motion } from '../image/motion';
import { UNITS } from '../image/unit';
import * as z from 'zod';

/** A photo that is cropped to a thousandth of its side still has its strokes within these. */
export const coordinate = z.number().min(-1000).max(1000);
const share = (neutral: number) => z.number().min(0).max(1).default(neutral);

/** Most dabs of one stroke: 28 bytes each. No hand draws a tenth of it. */
const MOST_DABS = 1_000_000;

const strokeFields = z.object({
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
  /** How far dabs stray in size, turn and amount: 0 not at all, 1 down to nothing or once around. */
  varySize: share(0),
  varyTurn: share(0),
  varyAmount: share(0),
  /** Which dabs stray where. */
  seed: z.number().int().min(0).max(1e9).default(0),
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
const TOO_LONG = { error: 'a stroke is longer than a brush can draw', path: ['points'] };
const isDrawable = (stroke: z.output<typeof strokeFields>) => dabsAbout(stroke) <= MOST_DABS;
/** A stroke on a mask. */
export const strokeSchema = strokeFields.refine(isDrawable, TOO_LONG);
export type Stroke = z.output<typeof strokeSchema>;

/** A stroke on a region of a photo. */
export const regionStrokeSchema = strokeFields
  .extend({
    /** Within its tip it goes as far as the photo's edges, and its dabs are those of a round tip. */
    snap: z.boolean().optional(),
  })
  .refine(isDrawable, TOO_LONG);
export type RegionStroke = z.output<typeof regionStrokeSchema>;

/** A stroke of paint. It paints, or erases what was painted before it. */
export const markSchema = strokeFields
  .extend({
    does: z.enum(['put', 'take']).default('put'),
    hardness: share(0.8),
    strength: share(1),
    flow: share(1),
    /** Its own colour, where it is not that of its coat. */
    colour: z
      .string()
      .regex(/^#[0-9a-fA-F]{6}$/, 'a colour is written #rrggbb')
      .optional(),
  })
  .refine(isDrawable, TOO_LONG);
export type Mark = z.output<typeof markSchema>;

/** About how many dabs a stroke has, on a square photo. */
function dabsAbout({ points, size, spacing }: z.output<typeof strokeFields>): number {
  let length = 0;
  for (let i = 1; i < points.length; i++) length += Math.hypot(points[i][0] - points[i - 1][0], points[i][1] - points[i - 1][1]);
  return (length * UNITS) / Math.max(0.5, size * spacing);
}

/** A stroke whose dabs lie ready in kernel memory: where, and how many. */
export interface Tabled {
  table?: { at: number; count: number };
}

/** A stroke on the same points of the photo after its frame has changed. */
export const movedStroke = <S extends Stroke>(stroke: S, motion: Motion): S => ({
  ...stroke,
  size: motion.length(stroke.size),
  points: stroke.points.map(([x, y, pressure]): [number, number, number] => [...motion.point([x, y]), pressure]),
});
