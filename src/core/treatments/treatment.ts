import type * as z from 'zod';
import type { RenderContext } from '../render/context';
import type { Tile } from '../image/tile';
import type { Survey, SurveyOrder } from '../render/survey';
import { applyCurves, type Curves } from './curve';

/** A small operation on a coat's pixels. A new one is one file that exports this and its line in the registry. */
export interface Treatment<S extends z.ZodObject = z.ZodObject> {
  kind: string;
  label: string;
  /** Object schema with a literal `kind`; its fields carry what a panel needs. */
  schema: S;
  /** Does something as soon as it is added; the others begin at neutral values. */
  shows?: boolean;
  /** The published source it follows. */
  source: string;
  /** How many pixels around a pixel it reads, with `unit` pixels to one u, its Gaussian not counted. */
  reach(params: z.output<S>, unit: number): number;
  /**
   * Deviation, in pixels, of the one Gaussian that it takes of what it is given or of what lies below. What that reads comes on top of `reach`,
   * unless it is so wide that the treatment finds it as `far` in its context.
   */
  softens?(params: z.output<S>, unit: number): number;
  /** True when it would change nothing, so that it can be skipped. */
  neutral(params: z.output<S>): boolean;
  /** What it wants to know of the whole picture it starts from, measured once on a small drawing of it; `apply` finds it as `survey`. */
  survey?(params: z.output<S>): SurveyOrder;
  /** `below` is what lies under the coat, over the tile's region or a larger one; only for one that says that it reads it. */
  apply(context: RenderContext, tile: Tile, params: z.output<S> & { survey?: Survey }, below?: Tile): void;
  /** The same as `apply`, for one that cuts the tile down by its reach at less cost than cutting it afterwards. */
  applyAndCut?(context: RenderContext, tile: Tile, params: z.output<S>): Tile;
  /** True when it reads what lies below. */
  readsBelow?(params: z.output<S>): boolean;
  /** Whether beyond the picture it wants what lies on the other side. */
  wraps?(params: z.output<S>): boolean;
  /** For one that is a function of each channel's own value: that function. Neighbours of this sort are put on as one. */
  curves?(params: z.output<S>): Curves;
}

export const defineTreatment = <S extends z.ZodObject>(treatment: Treatment<S>): Treatment => treatment as unknown as Treatment;

/** A treatment that is a function of each channel's own value. */
export function defineCurves<S extends z.ZodObject>(
  treatment: Omit<Treatment<S>, 'apply' | 'reach' | 'curves'> & { curves(params: z.output<S>): Curves },
): Treatment {
  const curves = treatment.curves as (params: object) => Curves;
  return defineTreatment({ ...treatment, reach: () => 0, apply: (context, tile, params) => applyCurves(context, tile, [params], curves) });
}
