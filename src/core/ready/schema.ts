import * as z from 'zod';
import { slider, toggle } from '../schema';
import { exposureFields } from '../treatments/exposure';
import { colourFields } from '../treatments/colour';
import { monochromeFields } from '../treatments/monochrome';
import { curvesFields } from '../treatments/curves';
import { balanceFields, gainsField } from '../treatments/balance';
import { evenFields } from '../treatments/even';
import { fringeFields } from '../treatments/fringe';
import { hueFields } from '../treatments/hues';
import { levelsFields } from '../treatments/levels';
import { localContrastFields } from '../treatments/local-contrast';
import { localToneFields } from '../treatments/local-tone';
import { noiseFields } from '../treatments/noise';
import { rangesFields } from '../treatments/ranges';
import { lensFields } from './lens';
import { spotsSchema } from './spots/schema';

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

const orNothing = <T extends z.ZodRawShape>(fields: T) => z.object(fields).strict().optional();

/**
 * Readying of the photo, which is never changed itself. It runs in the order of the fields, but for spots, which come first: they mend the
 * file's own pixels.
 */
export const readySchema = z
  .object({
    /** Quarter turns clockwise. */
    quarter: z.number().int().min(-3).max(3).default(0),
    flip: toggle('Mirrored', false, { help: 'Left and right change places, after quarter turns.' }),
    /** What the lens did, put right: its bend, its colour fringes, its dark corners. */
    lens: orNothing(lensFields),
    /** The four points of the photo that become its corners: left above, right above, right below, left below. */
    perspective: z
      .object({ corners: z.tuple([point, point, point, point]) })
      .strict()
      .optional(),
    crop: cropSchema.default(() => cropSchema.parse({})),
    fringe: orNothing(fringeFields),
    whiteBalance: orNothing({ neutral: point.optional(), gains: gainsField.optional(), ...balanceFields }),
    tone: orNothing(exposureFields),
    even: orNothing(evenFields),
    localTone: orNothing(localToneFields),
    localContrast: orNothing(localContrastFields),
    levels: orNothing(levelsFields),
    curves: orNothing(curvesFields),
    colour: orNothing(colourFields),
    ranges: orNothing(rangesFields),
    /** Each works on the colours around one hue. */
    hues: z.array(z.object(hueFields).strict()).max(12).optional(),
    monochrome: orNothing(monochromeFields),
    noise: orNothing(noiseFields),
    /** Taken out of the file before all else, so that no other step has to be done anew for them. */
    spots: spotsSchema.default([]),
  })
  .strict();
export type Ready = z.output<typeof readySchema>;

export const neutralReady: Ready = readySchema.parse({});
