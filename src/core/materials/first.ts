/**
 * First controls: the few controls that lead a coat's first page. A material declares them in its file as data; core/first turns them into steps of the
 * coat. Values at 30, 60 and 100 % were tuned by eye on portraits (common practice, no source).
 */

/** Values of a step at 30, 60 and 100 %. */
export type Stops = readonly [at30: number, at60: number, at100: number];

export type FirstSpec =
  | Only
  | { control: 'amount'; black: number; white: Stops }
  | { control: 'colour' }
  | { control: 'raised'; depth: number; soften: number }
  | { control: 'form'; map: 'below' | 'photo' }
  /** `grey` when the grain's own colour would stain the photo. */
  | { control: 'grain'; grey: boolean }
  /** Through the soft colour under the grain, or by saturation; `lift` is the brightness that greyed paper needs. */
  | { control: 'colour-strength'; by: 'split' | 'saturation'; lift: number }
  | { control: 'dark'; label: string; strength: number }
  | { control: 'limits' }
  /** A parameter of the material itself, or how large it lies. */
  | { control: 'parameter'; key: string }
  | { control: 'size' };

/** Keeps the marks of a material and drops its ground. */
export interface Only {
  control: 'only';
  label: string;
  /** What is darker than the first becomes black, what is lighter than the second white. */
  black: number | Stops;
  white: number | Stops;
  /** Coloured grounds are greyed first, or their channels would clip apart. */
  grey: boolean;
  /** Fine detail is taken out of an uneven ground first: radius in u, and its weight. */
  detail?: readonly [radius: number, weight: number];
  /** Colour of the marks and what the ground becomes: mid grey for hard light, white for multiply. */
  marks?: { colour: string; ground: '#808080' | '#ffffff' };
  blend: 'hard-light' | 'multiply' | 'screen';
  strength: number;
}

/** A step that a material begins with. */
export type StartStep = { kind: string } & Record<string, unknown>;

/** How a new coat of a material begins, besides its mode and strength. */
export interface Start {
  steps?: readonly StartStep[];
  /** Parameters that differ from the generator's own. */
  params?: Record<string, unknown>;
  scale?: number;
  limits?: [number, number, number, number];
  /** How far regions hold it back, where that differs from the guards' own amounts. */
  guardAmounts?: Record<string, number>;
  /** First controls that are on, with their amounts. */
  first?: { only?: number; raised?: number };
}

const GREY = '#808080';
const WHITE = '#ffffff';

/** Cracks and gaps as grooves with a lit edge. */
export const onlyGrooves = (black: number, white: number | Stops, colour: string, label = 'Only the marks', strength = 0.9, grey = true): Only => ({
  control: 'only',
  label,
  black,
  white,
  grey,
  marks: { colour, ground: GREY },
  blend: 'hard-light',
  strength,
});

/** Stains and ink on paper. */
export const onlyStains = (black: number, white: number | Stops, colour: string, strength: number, more: Partial<Only> = {}): Only => ({
  control: 'only',
  label: 'Only the marks',
  black,
  white,
  grey: true,
  marks: { colour, ground: WHITE },
  blend: 'multiply',
  strength,
  ...more,
});

export const amount = (black: number, white: Stops): FirstSpec => ({ control: 'amount', black, white });
export const colourFirst: FirstSpec = { control: 'colour' };
export const raised = (depth: number, soften: number): FirstSpec => ({ control: 'raised', depth, soften });
export const follow: FirstSpec = { control: 'form', map: 'below' };
/** Brushwork is laid along the photo itself, not along what was painted over it. */
export const followPhoto: FirstSpec = { control: 'form', map: 'photo' };
export const grain: FirstSpec = { control: 'grain', grey: false };
export const greyGrain: FirstSpec = { control: 'grain', grey: true };
export const colourStrength: FirstSpec = { control: 'colour-strength', by: 'split', lift: 0 };
export const paleColour = (lift = 0.05): FirstSpec => ({ control: 'colour-strength', by: 'saturation', lift });
export const dark = (strength = 0.8): FirstSpec => ({ control: 'dark', label: 'Dark instead', strength });
export const otherEnd = (label: string): FirstSpec => ({ control: 'dark', label, strength: 1 });
export const awayFromEnds: FirstSpec = { control: 'limits' };
export const parameter = (key: string): FirstSpec => ({ control: 'parameter', key });
export const size: FirstSpec = { control: 'size' };

/** Steps that materials begin with, in the order of the chain. */
export const tone = (brightness: number, contrast: number, saturation: number): StartStep => ({ kind: 'tone', brightness, contrast, saturation });
export const detail = (weight: number, colour: number): StartStep => ({ kind: 'split', radius: 14, detail: weight, colour });
export const range = (black: number, white: number): StartStep => ({ kind: 'levels', black, white });
