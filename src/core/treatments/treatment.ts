import type * as z from 'zod';
import type { DrawContext } from '../graph/context';
import type { Need } from '../graph/needs';
import type { Operation } from '../graph/operation';
import type { Region, Tile } from '../image/tile';
import { applyCurves, type Curves } from './curve';

/** A small operation on a coat's pixels. A new one is one file that exports this and its line in the registry. */
export interface Treatment<S extends z.ZodObject = z.ZodObject> extends Operation<S> {
  /** Works on the surface (its relief, its form) rather than on tone and colour. */
  ofSurface?: boolean;
  /** Lit from one side: it has a `direction`, and mostly an `elevation`, of the light. */
  isLit?: boolean;
  /** Values to begin with when it is added to a coat, where the neutral ones would need a second step. */
  added?: Partial<z.input<S>>;
  /** Does something as soon as it is added; the others begin at neutral values. */
  shows?: boolean;
  /** The published source it follows. */
  source: string;
  /** What has to be loaded for it, by name. */
  needs?(params: z.output<S>): Record<string, Need>;
  /** How many pixels around a pixel it reads, with `unit` pixels to one u, its Gaussian not counted. */
  reach(params: z.output<S>, unit: number): number;
  /**
   * Standard deviation, in pixels, of the one Gaussian that it takes of what it starts from or of an input. What that reads comes on top of `reach`,
   * unless it is so wide that the treatment finds it as `far` in its context.
   */
  softens?(params: z.output<S>, unit: number): number;
  /** A whole factor by which the drawing is smaller that it works on with `context.smaller`, with `unit` pixels to one u here; 1 when it does not. */
  shrinks?(params: z.output<S>, unit: number): number;
  /** It does nothing but enlarge what it makes on that smaller drawing (`onSmaller`), which may then be drawn ahead. */
  worksSmaller?: boolean;
  /** True when it needs nothing of what it starts from but a smaller drawing: the tile that it is given holds nothing, and is filled whole. */
  replaces?(params: z.output<S>, unit: number): boolean;
  /** True when it would change nothing, so that it can be skipped. */
  neutral(params: z.output<S>): boolean;
  /** Changes the tile in place. Pixels nearer to its edges than the reach may be left wrong. */
  apply(context: DrawContext, tile: Tile, params: z.output<S>): void;
  /** The same as `apply`, for one that cuts the tile down by its reach at less cost than cutting it afterwards. */
  applyAndCut?(context: DrawContext, tile: Tile, params: z.output<S>): Tile;
  /** True when it reads what it starts from elsewhere, wherever its inputs say; it is then drawn by `move`. */
  moves?(params: z.output<S>): boolean;
  /** Draws a region; `own` draws what it starts from over a region. The tile is the first that it takes of the scratch memory, and the last that it leaves. */
  move?(context: DrawContext, region: Region, params: z.output<S>, own: (region: Region) => Tile): Tile;
  /** True when it wants what lies on the other side of the picture beyond its edges. */
  wraps?(params: z.output<S>): boolean;
  /** For one that is a function of each channel's own value: that function. Neighbours of this sort are applied as one table. */
  curves?(params: z.output<S>): Curves;
}

export const defineTreatment = <S extends z.ZodObject>(treatment: Treatment<S>): Treatment<S> => treatment;

/** A treatment that is a function of each channel's own value. */
export function defineCurves<S extends z.ZodObject>(
  treatment: Omit<Treatment<S>, 'apply' | 'reach' | 'curves'> & { curves(params: z.output<S>): Curves },
): Treatment<S> {
  return {
    ...treatment,
    reach: () => 0,
    apply: (context, tile, params) => applyCurves(context, tile, [params], (p) => treatment.curves(p as z.output<S>)),
  };
}
