import * as z from 'zod';
import { cropSchema, readySteps, type ReadyField } from './steps';

export { cropSchema };
export type Crop = z.output<typeof cropSchema>;

type Shape = { [K in ReadyField]: (typeof readySteps)[K]['schema'] };
const shape = Object.fromEntries(Object.entries(readySteps).map(([field, { schema }]) => [field, schema])) as Shape;

/** Readying of the photo, which is never changed itself: a field for each step of `readySteps`. */
export const readySchema = z.object(shape).strict();
export type Ready = z.output<typeof readySchema>;

export const neutralReady: Ready = readySchema.parse({});
