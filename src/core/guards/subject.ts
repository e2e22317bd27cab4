import * as z from 'zod';
import { regionStrokeSchema } from '../strokes/schema';
import { guardsSchema, type Guards } from './schema';

/** How the subject of a picture that is cut out was corrected: strokes on it, on what it is and is not, and along its hair; in fractions of its file. */
export const cutSubjectSchema = z
  .object({
    strokes: z.array(regionStrokeSchema).max(2000).default([]),
    hints: guardsSchema.shape.hints,
    hairs: guardsSchema.shape.hairs,
  })
  .strict();
export type CutSubject = z.output<typeof cutSubjectSchema>;

const NEUTRAL = guardsSchema.parse({});
const known = new WeakMap<CutSubject, Guards>();

/** The corrections as the guards of that picture: the same object for the same ones, by which they are told apart. */
export function guardsOfSubject(subject: CutSubject | undefined): Guards | undefined {
  if (!subject) return undefined;
  let guards = known.get(subject);
  if (!guards)
    known.set(subject, (guards = { ...NEUTRAL, regions: { subject: { strokes: subject.strokes } }, hints: subject.hints, hairs: subject.hairs }));
  return guards;
}
