import * as z from 'zod';
import type { Region, Tile } from '../image/tile';
import type { Motion } from '../ready/motion';
import type { RenderContext } from '../render/context';
import { choice, share, slider, toggle } from '../schema';

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

/** Switched off, a part is kept and does nothing. */
export const activeField = z.boolean().default(true);
export const densityField = share('Density', 1, { help: 'How completely it works; lower it to let a little texture back.' });
export const invertField = toggle('Turn inside out', false, { help: 'It works everywhere else.' });

/** What every part but strokes can be told: how it joins, how completely, how softly, and whether it is turned inside out. */
export const partFields = {
  op: operationField,
  active: activeField,
  density: densityField,
  feather: slider('Feather', 0, 200, 0, { unit: 'u', step: 1, accepts: [0, 2000], help: 'How softly its edge fades.' }),
  invert: invertField,
};

/** Pictures and sizes that the engine has loaded for a part. */
export interface Loaded {
  /** Of tips cut from materials, by key. */
  tips?: Record<string, import('../image/picture').Picture>;
  picture?: import('../image/picture').Picture;
  nominal?: { width: number; height: number };
  held?: { width: number; height: number };
}

/** One kind of mask part. */
export interface MaskPart<S extends z.ZodObject = z.ZodObject> {
  kind: string;
  label: string;
  schema: S;
  /** Fills a plane of the region, which holds zeros, with where the part is: 0..1. `below` is what lies below the coat, over this region. */
  cover?(context: RenderContext, plane: number, region: Region, params: z.output<S> & Loaded, below: Tile | null): void;
  /** Works on the mask itself, for a part whose doing is more than one value a place. */
  draw?(context: RenderContext, mask: number, region: Region, params: z.output<S>): void;
  /** Whether it reads what lies below the coat. */
  readsBelow?(params: z.output<S>): boolean;
  /** Feather is in its own measure and done by `cover` itself. */
  ownFeather?: boolean;
  /** The same part on the same points of the photo, after its frame has changed. Lengths in u are seen to. */
  moved?(params: z.output<S>, motion: Motion): z.output<S>;
}

export const definePart = <S extends z.ZodObject>(part: MaskPart<S>): MaskPart => part as unknown as MaskPart;
