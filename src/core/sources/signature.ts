import * as z from 'zod';
import { choice, colour, slider } from '../schema';
import { layMarks } from '../strokes/lay';
import { markSchema, type Mark } from '../strokes/schema';
import { shapeFields, shapeFinishes } from './shape';
import { defineSource } from './source';

const point = z.tuple([z.number().min(-1).max(2), z.number().min(-1).max(2), z.number().min(0).max(1)]);
/** A drawn signature: lines of (x, y, pressure), x from 0 to 1 across it and y on the same scale. */
export const signatureLinesSchema = z.array(z.array(point).min(1).max(2000)).max(60);
export type SignatureLines = z.output<typeof signatureLinesSchema>;

const schema = z.object({
  kind: z.literal('signature'),
  colour: colour('Colour of the signature', '#f4efe3'),
  corner: choice(
    'Corner',
    [
      { value: 'bottom-right', label: 'Bottom right' },
      { value: 'bottom-left', label: 'Bottom left' },
      { value: 'top-right', label: 'Top right' },
      { value: 'top-left', label: 'Top left' },
    ],
    'bottom-right',
  ),
  size: slider('Size', 40, 1200, 260, { unit: 'u', step: 5, help: 'How wide it is.' }),
  width: slider('Line width', 0.5, 30, 4, { unit: 'u', step: 0.25 }),
  margin: slider('From the edges', 0, 400, 70, { unit: 'u', step: 2 }),
  ...shapeFields,
  lines: signatureLinesSchema.default([]),
});
type Params = z.output<typeof schema>;

/** Its lines as marks on a picture of that size in u. */
export function marksOf({ lines, corner, size, width, margin, colour: ink }: Params, picture: { width: number; height: number }): Mark[] {
  const all = lines.flat();
  const [left, right] = [Math.min(...all.map((p) => p[0])), Math.max(...all.map((p) => p[0]))];
  const [top, bottom] = [Math.min(...all.map((p) => p[1])), Math.max(...all.map((p) => p[1]))];
  const scale = size / Math.max(1e-3, right - left, bottom - top);
  const [w, h] = [(right - left) * scale, (bottom - top) * scale];
  const x0 = corner.endsWith('left') ? margin : picture.width - margin - w;
  const y0 = corner.startsWith('top') ? margin : picture.height - margin - h;
  return lines.map((points) =>
    markSchema.parse({
      size: width,
      colour: ink,
      presses: 'size',
      points: points.map(([x, y, p]) => [(x0 + (x - left) * scale) / picture.width, (y0 + (y - top) * scale) / picture.height, 0.5 + 0.5 * p]),
    }),
  );
}

/** Dabs are remembered by their stroke, so that all tiles of a picture need the same marks. */
const made = new WeakMap<object, { size: string; marks: Mark[] }>();

/** A name drawn once and placed in a corner. */
export default defineSource({
  kind: 'signature',
  label: 'Signature',
  offers: [{ label: 'Signature', says: 'Your name in a corner, drawn once and kept.', words: 'sign name autograph initials watermark' }],
  schema,
  firstLook: { blend: 'normal', strength: 0.5 },
  guards: 0,
  finishes: shapeFinishes,
  fill(context, tile, p) {
    const { kernels } = context.machine;
    for (let c = 0; c < 4; c++) kernels.fill(tile.ptr + c * tile.stride, tile.count, 0);
    if (p.lines.length === 0) return;
    const size = { width: context.width / context.unit, height: context.height / context.unit };
    const known = `${size.width}x${size.height}`;
    let kept = made.get(p);
    if (kept?.size !== known) made.set(p, (kept = { size: known, marks: marksOf(p, size) }));
    layMarks(context, tile, kept.marks, p.colour, {});
    kernels.premultiply(tile.ptr, tile.stride, tile.count, 1);
  },
});
