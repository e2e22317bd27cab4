import * as z from 'zod';
import { slider, toggle } from '../schema';
import { exposureFields } from '../treatments/exposure';
import { colourFields } from '../treatments/colour';
import { monochromeFields } from '../treatments/monochrome';
import { curvesFields } from '../treatments/curves';
import { balanceFields, gainsField } from '../treatments/balance';

const point = z.tuple([z.number().min(-2).max(3), z.number().min(-2).max(3)]);

/** The frame in fractions of the photo after quarter turns and perspective, turned clockwise about its own centre. */
export const cropSchema = z
  .object({
    x: z.number().min(-2).max(3).default(0),
    y: z.number().min(-2).max(3).default(0),
    w: z.number().gt(0).max(4).default(1),
    h: z.number().gt(0).max(4).default(1),
    turn: slider('Level', -45, 45, 0, { unit: '°', step: 0.1, help: 'Turns the frame, clockwise; the largest one without empty corners is kept.' }),
  })
  .strict();
export type Crop = z.output<typeof cropSchema>;

const orNothing = <T extends z.ZodObject>(schema: T) => schema.strict().optional();

/**
 * Readying of the photo, which is never changed itself. It runs in the order of the fields: quarter turns and flip, perspective, crop,
 * white balance, tone, curves, colour, black and white.
 */
export const readySchema = z
  .object({
    /** Quarter turns clockwise. */
    quarter: z.number().int().min(-3).max(3).default(0),
    flip: toggle('Mirrored', false, { help: 'Left and right change places, after quarter turns.' }),
    /** The four points of the photo that become its corners: left above, right above, right below, left below. */
    perspective: z
      .object({ corners: z.tuple([point, point, point, point]) })
      .strict()
      .optional(),
    crop: cropSchema.default(() => cropSchema.parse({})),
    whiteBalance: orNothing(z.object({ neutral: point.optional(), gains: gainsField.optional(), ...balanceFields })),
    tone: orNothing(z.object(exposureFields)),
    curves: orNothing(z.object(curvesFields)),
    colour: orNothing(z.object(colourFields)),
    monochrome: orNothing(z.object(monochromeFields)),
  })
  .strict();
export type Ready = z.output<typeof readySchema>;

export const neutralReady: Ready = readySchema.parse({});
