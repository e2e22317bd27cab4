import * as z from 'zod';
import type { Motion } from '../image/motion';
import { coordinate } from '../strokes/schema';

/** What a stroke does to a texture, in the order of the kernel's numbers. */
export const nudges = [
  { value: 'push', label: 'Push' },
  { value: 'swell', label: 'Swell' },
  { value: 'pinch', label: 'Pinch' },
  { value: 'turn', label: 'Turn' },
  { value: 'ease', label: 'Ease back' },
  { value: 'hold', label: 'Hold still' },
] as const;
export type NudgeKind = (typeof nudges)[number]['value'];
const kinds = nudges.map(({ value }) => value) as [NudgeKind, ...NudgeKind[]];

/** A stroke that moves a texture by hand. */
export const nudgeStrokeSchema = z
  .object({
    does: z.enum(kinds).default('push'),
    /** Diameter in u. */
    size: z.number().min(4).max(4000).default(240),
    /** How much one pass does; negative turns against the clock. */
    strength: z.number().min(-1).max(1).default(0.7),
    /** (x, y, pressure): fractions of the photo, which may lie outside it; pressure 0..1. */
    points: z
      .array(z.tuple([coordinate, coordinate, z.number().min(0).max(1)]))
      .min(1)
      .max(20000),
  })
  .strict();
export type NudgeStroke = z.output<typeof nudgeStrokeSchema>;

/** A stroke on the same points of the photo after its frame has changed. */
export const movedNudge = (stroke: NudgeStroke, motion: Motion): NudgeStroke => ({
  ...stroke,
  size: Math.min(4000, Math.max(4, motion.length(stroke.size))),
  strength: motion.flip && stroke.does === 'turn' ? -stroke.strength : stroke.strength,
  points: stroke.points.map(([x, y, pressure]): [number, number, number] => [...motion.point([x, y]), pressure]),
});
