import type * as z from 'zod';
import type { BlendName } from '../blend';
import type { Field } from './field';
import type { FirstSpec, Start } from './first';
import type { Sheet } from './sheet';

export const families = [
  { id: 'paper', label: 'Paper' },
  { id: 'cloth', label: 'Canvas and cloth' },
  { id: 'masonry', label: 'Masonry' },
  { id: 'wood', label: 'Wood and metal' },
  { id: 'cracks', label: 'Cracks' },
  { id: 'wear', label: 'Wear' },
  { id: 'skin', label: 'Skin' },
  { id: 'air', label: 'Light and air' },
  { id: 'brush', label: 'Brushwork' },
  { id: 'living', label: 'Living things' },
  { id: 'edges', label: 'Edges' },
] as const;
export type FamilyId = (typeof families)[number]['id'];

/** Colour and height of a material, and how the light falls on it. */
export interface Paint {
  /** CIE L*, a*, b* (D65); or, with `encoded`, red, green and blue in 0..1. */
  lightness: Field;
  a: Field;
  b: Field;
  encoded?: boolean;
  /** In fractions of the long side. Absent for materials that are light only. */
  height?: Field;
  /** What is handed over as its height, where that is not all of it: skin without the folds that it lies in. */
  surface?: Field;
  /** The height embossed on the colour, in place of light on its slopes: how far apart the two sides lie (fraction of the long side), and how strongly. */
  emboss?: { width: number; gain: number };
  /** Radians from the right downwards; −2.25 is from the top left. */
  azimuth?: number;
  elevation?: number;
  /** Strength of the relief in the colour. It decides whether a surface looks like paper or like stucco. */
  contrast?: number;
  /** Share of light that spreads inside, and how far (fraction of the long side). */
  translucency?: [share: number, spread: number];
  /** Occlusion from the height blurred at two radii. */
  occlusion?: { k1: number; k2: number; s1?: number; s2?: number; amount: number };
  /** Cast shadow: softest and hardest multiplier. */
  shadow?: { low: number; reach: number };
  gain?: number;
  /** Detail of large sheets, finer than what the generator draws: how strong it is, and its cycles across and down, where it runs along a grain. */
  detail?: { amount?: number; stretch?: [number, number] };
  /** Knee under which shadows are compressed. */
  knee?: number;
}

/** Which picture of a material is made: as it looks under its light, or its height as grey. */
export type MaterialPart = 'look' | 'height';

/** Which part of a material paints where it is a mask or a tip. */
export const marksOptions = [
  { value: 'lights', label: 'Its lights' },
  { value: 'darks', label: 'Its darks' },
] as const;
export type Marks = (typeof marksOptions)[number]['value'];

/** One entry of the shelf. A new material is one file that exports this. */
export interface Material<S extends z.ZodObject = z.ZodObject> {
  id: string;
  label: string;
  family: FamilyId;
  /** Continues over its edges. */
  seamless: boolean;
  /** Painted as it looks, so that no light falls on it. */
  unlit?: true;
  /** Has lines finer than a pixel at small sizes: those are made twice as large and reduced. */
  fine?: boolean;
  /** 'piece': made in the shape of the photo, because its edges matter. */
  shape: 'square' | 'piece';
  params: S;
  suggest: { blend: BlendName; strength: number };
  /** How a new coat of it begins besides. */
  start?: Start;
  /** The controls that lead a coat's first page, at most five. */
  first?: readonly FirstSpec[];
  /** Mean luma it aims at, 0..1. */
  luma: number;
  /** Whether its marks are darker or lighter than its ground; by its luma when left out. */
  marks?: Marks;
  help: string;
  paint(sheet: Sheet, params: z.output<S>): Paint;
}

/** Infers the type of `params` for an entry. */
export function defineMaterial<S extends z.ZodObject>(material: Material<S>): Material {
  return material as unknown as Material;
}
