import * as z from 'zod';
import type { DrawContext } from '../graph/context';
import type { Need } from '../graph/needs';
import type { InputSpec } from '../graph/node';
import type { Operation } from '../graph/operation';
import type { Region } from '../image/tile';
import { choice, share, slider, toggle } from '../schema';

export const operations = [
  { value: 'add', label: 'Add' },
  { value: 'subtract', label: 'Subtract' },
  { value: 'intersect', label: 'Only inside' },
] as const;
/** How a part joins what is there: numbers as the kernels know them. */
export const operationNumber = { add: 0, subtract: 1, intersect: 2 } as const;
export const operationFieldOf = (neutral: keyof typeof operationNumber) =>
  choice('What it does', operations, neutral, { help: 'Shows or hides the coat here.' });
export const operationField = operationFieldOf('subtract');

/** Switched off, a part is kept and does nothing. */
export const activeField = z.boolean().default(true);
export const densityField = share('Density', 1, { help: 'Lower it to let a little texture back.' });
export const invertField = toggle('Invert', false, { help: 'Swaps inside and outside.' });

/** What every part but strokes can be told: how it joins, how completely, how softly, and whether it is turned inside out. */
export const partFields = {
  op: operationField,
  active: activeField,
  density: densityField,
  feather: slider('Feather', 0, 200, 0, { unit: 'u', step: 1, accepts: [0, 2000], help: 'How soft the edge is.' }),
  invert: invertField,
};

/** What is drawn for a part: mostly one step; strokes that are being painted are two, so that all but the last stroke can be kept. */
export interface PartStep<P> {
  params: P;
  inputs: Record<string, InputSpec>;
  needs: Record<string, Need>;
  /** See `GraphNode.grows`. */
  grows?: string;
}

/** One kind of mask part. It gives `cover` or `draw`. */
export interface MaskPart<S extends z.ZodObject = z.ZodObject> extends Operation<S> {
  /** What has to be loaded for it, by name. */
  needs?(params: z.output<S>): Record<string, Need>;
  /** Fills a plane of the region, which holds zeros, with where the part is: 0..1. */
  cover?(context: DrawContext, plane: number, region: Region, params: z.output<S>): void;
  /** Works on the mask itself, for a part whose doing is more than one value a place. */
  draw?(context: DrawContext, mask: number, region: Region, params: z.output<S>): void;
  /** It applies its feather itself, in a unit of its own. */
  ownFeather?: boolean;
  /** The steps that draw it, one on top of the other; one with all its inputs and needs when left out. */
  steps?(params: z.output<S>): PartStep<z.output<S>>[];
}

export const definePart = <S extends z.ZodObject>(part: MaskPart<S>): MaskPart<S> => part;
