import * as z from 'zod';
import type { Region } from '../image/tile';
import type { Motion } from '../ready/motion';
import type { RenderContext } from '../render/context';
import { choice } from '../schema';

export const operations = [
  { value: 'add', label: 'Add' },
  { value: 'subtract', label: 'Take away' },
  { value: 'intersect', label: 'Only inside' },
] as const;
/** How a part joins what is there: numbers as the kernels know them. */
export const operationNumber = { add: 0, subtract: 1, intersect: 2 } as const;
export const operationField = choice('What it does', operations, 'subtract', {
  help: 'Take the coat away inside, put it back, or keep it only inside.',
});

/** One kind of mask part. `draw` combines it into a mask plane of the region, 0..1. */
export interface MaskPart<S extends z.ZodObject = z.ZodObject> {
  kind: string;
  label: string;
  schema: S;
  draw(context: RenderContext, mask: number, region: Region, params: z.output<S>): void;
  /** The same part on the same points of the photo, after its frame has changed. */
  moved(params: z.output<S>, motion: Motion): z.output<S>;
}

export const definePart = <S extends z.ZodObject>(part: MaskPart<S>): MaskPart => part as unknown as MaskPart;
