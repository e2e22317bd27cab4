import type * as z from 'zod';
import type { DrawContext } from '../graph/context';
import type { Need } from '../graph/needs';
import type { Operation } from '../graph/operation';
import type { Tile } from '../image/tile';
import type { Lay } from '../lay/lay';

/** A source's drawing knows how its coat lies on the photo. */
export interface SourceContext extends DrawContext {
  lay: Lay;
}

/** A coat that is offered by name. */
export interface Offer {
  label: string;
  /** What it is for, in at most twelve words. */
  says: string;
  /** Other words by which a search finds it, in lower case. */
  words?: string;
  /** Parameters of the source, where they are not the first ones. */
  params?: Record<string, unknown>;
  /** Mode and strength, where they are not those of its first look. */
  look?: {
    blend: string;
    strength: number;
    treatments?: readonly { kind: string; [key: string]: unknown }[];
    mask?: { parts: readonly { kind: string; [key: string]: unknown }[] };
  };
  /** Good as it comes: nothing has to be set next. */
  isComplete?: boolean;
}

/** A part of laying a source: its own parameters and needs. */
export interface SourceStep {
  params: Record<string, unknown>;
  needs?: Record<string, Need>;
  /** Names what it adds to itself from drawing to drawing; see `GraphNode`. */
  grows?: string;
}

/** What a coat starts from. */
export interface Source<S extends z.ZodObject = z.ZodObject> extends Operation<S> {
  /** For one that is another node of the drawing, pixel for pixel, and draws nothing itself. */
  is?: 'below' | 'photo' | 'group';
  /** Coats of it that are offered by name; left out by one that is chosen from the shelf. */
  offers?: readonly Offer[];
  /** True when the coat's lay says where it sits. */
  laid?: boolean;
  /** Mode and strength in which it is first seen; a material's are its own. */
  firstLook: { blend: string; strength: number };
  /** How far guards hold a new coat of it back: 1 for what is laid over the photo, 0 for what corrects it. */
  guards: 0 | 1;
  /** The file that it reads, where it reads one. */
  file?(params: z.output<S>): string | undefined;
  /** What has to be loaded for it, by name, under a lay. */
  needs?(params: z.output<S>, lay: Lay): Record<string, Need>;
  /** What has to be loaded, under the same names, for its height to be laid in its place. */
  height?(params: z.output<S>, lay: Lay): Record<string, Need>;
  /** The steps in which it is laid, each over the one before, so that what stays the same is kept between drawings; one when left out. */
  steps?(params: z.output<S>): SourceStep[];
  /** Treatments that belong to it, by its own parameters, before those of its coat. */
  finishes?(params: z.output<S>): { kind: string; [key: string]: unknown }[];
  /** Fills a tile, or goes on with what the step before has laid in it. Left out by one that `is` another node. */
  fill?(context: SourceContext, tile: Tile, params: z.output<S>): void;
}

export const defineSource = <S extends z.ZodObject>(source: Source<S>): Source<S> => source;
