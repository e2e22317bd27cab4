import * as z from 'zod';
import { slider, toggle } from '../schema';
import { balanceFields, gainsField } from '../treatments/balance';
import { colourFields } from '../treatments/colour';
import { curvesFields } from '../treatments/curves';
import { evenFields } from '../treatments/even';
import { exposureFields } from '../treatments/exposure';
import { fringeFields } from '../treatments/fringe';
import { hueFields } from '../treatments/hues';
import { levelsFields } from '../treatments/levels';
import { localContrastFields } from '../treatments/local-contrast';
import { localToneFields } from '../treatments/local-tone';
import { monochromeFields } from '../treatments/monochrome';
import { noiseFields } from '../treatments/noise';
import { rangesFields } from '../treatments/ranges';
import { lensFields } from './lens';
import { spotsSchema } from './spots/schema';

/** Parts of a readying that can be saved, and applied to another photo, one by one. */
export const readyPartLabels = { frame: 'Frame', lens: 'Lens', balance: 'Balance', light: 'Light', colour: 'Colour', detail: 'Detail' } as const;
export type ReadyPart = keyof typeof readyPartLabels;

/** The panel in which a step is set. */
export type ReadyPanel = ReadyPart | 'spots';

/** One step of readying the photo: a field of a piece's `ready`. */
interface StepEntry {
  label: string;
  /** What the field holds. */
  schema: z.ZodType;
  /** The part it belongs to; null for what belongs to one photo alone and is never put on another. */
  part: ReadyPart | null;
  panel: ReadyPanel;
  /** The controls that its panel draws, for a step whose panel is drawn from its schema. */
  controls?: z.ZodObject;
  /** The treatment that it is, for a step that works on pixels; a list of values is as many treatments. */
  treatment?: string;
  /** Names of its values that are a place in this photo: left behind when it is put on another. */
  places?: readonly string[];
}

const point = z.tuple([z.number().min(-2).max(3), z.number().min(-2).max(3)]);
const orNothing = <T extends z.ZodRawShape>(fields: T) => z.object(fields).strict().optional();

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

/**
 * Every step of readying, in the order in which they run. The schema of `ready`, its parts, what a recipe carries, panels and the command line follow from
 * this table: a new step is one entry.
 */
export const readySteps = {
  /** They mend the file's own pixels, so that no other step has to be done again for them. */
  spots: { label: 'Spots', part: null, panel: 'spots', schema: spotsSchema.default([]) },
  /** Quarter turns clockwise. */
  quarter: { label: 'Quarter turns', part: 'frame', panel: 'frame', schema: z.number().int().min(-3).max(3).default(0) },
  flip: {
    label: 'Mirrored',
    part: 'frame',
    panel: 'frame',
    schema: toggle('Mirrored', false, { help: 'Left and right change places, after quarter turns.' }),
  },
  /** What the lens did, put right: its bend, its colour fringes, its dark corners. */
  lens: { label: 'Lens', part: 'lens', panel: 'lens', controls: z.object(lensFields), schema: orNothing(lensFields) },
  /** The four points of the photo that become its corners: left above, right above, right below, left below. */
  perspective: {
    label: 'Perspective',
    part: 'frame',
    panel: 'frame',
    schema: z
      .object({ corners: z.tuple([point, point, point, point]) })
      .strict()
      .optional(),
  },
  crop: { label: 'Crop', part: 'frame', panel: 'frame', schema: cropSchema.default(() => cropSchema.parse({})) },
  fringe: {
    label: 'Colour fringes',
    part: 'lens',
    panel: 'lens',
    treatment: 'fringe',
    controls: z.object(fringeFields),
    schema: orNothing(fringeFields),
  },
  whiteBalance: {
    label: 'White balance',
    part: 'balance',
    panel: 'balance',
    treatment: 'balance',
    controls: z.object(balanceFields),
    places: ['neutral'],
    schema: orNothing({ neutral: point.optional(), gains: gainsField.optional(), ...balanceFields }),
  },
  tone: {
    label: 'Light',
    part: 'light',
    panel: 'light',
    treatment: 'exposure',
    controls: z.object(exposureFields),
    schema: orNothing(exposureFields),
  },
  even: { label: 'Even out', part: 'light', panel: 'light', treatment: 'even', controls: z.object(evenFields), schema: orNothing(evenFields) },
  localTone: {
    label: 'Local tone',
    part: 'light',
    panel: 'light',
    treatment: 'local-tone',
    controls: z.object(localToneFields),
    schema: orNothing(localToneFields),
  },
  localContrast: {
    label: 'Local contrast',
    part: 'detail',
    panel: 'detail',
    treatment: 'local-contrast',
    controls: z.object(localContrastFields),
    schema: orNothing(localContrastFields),
  },
  levels: { label: 'Levels', part: 'light', panel: 'light', treatment: 'levels', controls: z.object(levelsFields), schema: orNothing(levelsFields) },
  curves: { label: 'Curves', part: 'light', panel: 'light', treatment: 'curves', controls: z.object(curvesFields), schema: orNothing(curvesFields) },
  colour: {
    label: 'Colour',
    part: 'colour',
    panel: 'colour',
    treatment: 'colour',
    controls: z.object(colourFields),
    schema: orNothing(colourFields),
  },
  ranges: {
    label: 'Colour by tone',
    part: 'colour',
    panel: 'colour',
    treatment: 'ranges',
    controls: z.object(rangesFields),
    schema: orNothing(rangesFields),
  },
  /** Each works on the colours around one hue. */
  hues: {
    label: 'Single colours',
    part: 'colour',
    panel: 'colour',
    treatment: 'hues',
    controls: z.object(hueFields),
    schema: z.array(z.object(hueFields).strict()).max(12).optional(),
  },
  monochrome: {
    label: 'Black and white',
    part: 'colour',
    panel: 'colour',
    treatment: 'monochrome',
    controls: z.object(monochromeFields),
    schema: orNothing(monochromeFields),
  },
  noise: { label: 'Noise', part: 'detail', panel: 'detail', treatment: 'noise', controls: z.object(noiseFields), schema: orNothing(noiseFields) },
} as const satisfies Record<string, StepEntry>;

export type ReadyField = keyof typeof readySteps;

/** The steps in their order, each with its field. */
export const readyStepList: readonly (StepEntry & { field: ReadyField })[] = (Object.keys(readySteps) as ReadyField[]).map((field) => ({
  field,
  ...readySteps[field],
}));
