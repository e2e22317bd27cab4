import * as z from 'zod';
import { colour } from '../schema';
import { layMarks } from '../strokes/lay';
import { markSchema, movedStroke, type Mark } from '../strokes/schema';
import { strokeToken } from '../strokes/token';
import { shapeFields, shapeFinishes } from './shape';
import { defineSource, type SourceStep } from './source';

export const strokesSourceSchema = z.object({
  kind: z.literal('strokes'),
  colour: colour('Colour of the marks', '#8a2b20', { help: 'Of all marks that have no colour of their own.' }),
  ...shapeFields,
  /** What the brush of this coat is for: colour, or light and dark on neutral grey. */
  use: z.enum(['paint', 'light']).default('paint'),
  strokes: z.array(markSchema).max(5000).default([]),
});
export type StrokesSource = z.output<typeof strokesSourceSchema>;

/** Marks laid in one step: while one paints, only the steps behind the last full one are laid again. */
const CHUNK = 24;

/** A step also carries which it is: the first begins on nothing, the last makes straight alpha of what was laid premultiplied. */
interface Place {
  first: boolean;
  last: boolean;
}

/** Lists of marks that are laid one after another, and whether the last of them is one mark that may be growing. */
function chunks(marks: readonly Mark[]): { lists: (readonly Mark[])[]; growing: Mark | undefined } {
  const last = marks.at(-1);
  // The first dab of a tip that follows the stroke is turned towards the second point.
  const growing = last && !last.ring && last.points.length > 1 ? last : undefined;
  const before = growing ? marks.slice(0, -1) : marks;
  const lists: (readonly Mark[])[] = [];
  for (let i = 0; i < before.length; i += CHUNK) lists.push(before.slice(i, i + CHUNK));
  if (growing) lists.push([growing]);
  return { lists: lists.length > 0 ? lists : [[]], growing };
}

/** Marks painted by hand, in the order they were made, on nothing. */
export default defineSource({
  kind: 'strokes',
  label: 'Marks',
  offers: [
    {
      label: 'Marks',
      says: 'Paint strokes, lines or stamps by hand, in any colour.',
      words: 'paint brush draw stamp cracks splatter line write strokes hand',
    },
    {
      label: 'Dodge and burn',
      says: 'Lighten and darken with a soft brush, on neutral grey.',
      words: 'lighten darken light shadows brush contour',
      params: { use: 'light', colour: '#ffffff' },
      look: { blend: 'soft-light', strength: 1 },
    },
  ],
  schema: strokesSourceSchema,
  firstLook: { blend: 'normal', strength: 1 },
  guards: 0,
  moved: (p, motion) => ({ ...p, strokes: p.strokes.map((mark) => movedStroke(mark, motion)) }),
  finishes: shapeFinishes,
  steps({ colour: paint, strokes }): SourceStep[] {
    const { lists, growing } = chunks(strokes);
    return lists.map((marks, i) => {
      const place: Place = { first: i === 0, last: i === lists.length - 1 };
      return {
        // The marks themselves are needs: long ones are not posted to the workers.
        params: { kind: 'strokes', colour: paint, strokes: [], ...place },
        needs: { strokes: { need: 'strokes', strokes: marks } },
        grows: place.last && growing ? strokeToken(growing) : undefined,
      };
    });
  },
  fill(context, tile, p) {
    const { kernels } = context.machine;
    const { strokes, tips } = context.needed('strokes', 'strokes');
    const { first, last } = p as unknown as Place;
    if (first) for (let c = 0; c < 4; c++) kernels.fill(tile.ptr + c * tile.stride, tile.count, 0);
    layMarks(context, tile, strokes as Mark[], p.colour, tips, context.grown);
    if (last) kernels.premultiply(tile.ptr, tile.stride, tile.count, 1);
  },
});
