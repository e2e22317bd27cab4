import type * as z from 'zod';
import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { PlannedCoat } from '../render/plan';

/** What a coat starts from. */
export interface Source<S extends z.ZodObject = z.ZodObject> {
  kind: string;
  label: string;
  schema: S;
  /** True when it reads what lies below. */
  readsBelow?: boolean;
  /** True when it is what lies below, pixel for pixel: then that itself may be treated where nobody wants it any more. */
  isBelow?: boolean;
  /** True when the coat's lay says where it sits. */
  laid?: boolean;
  fill(context: RenderContext, tile: Tile, coat: PlannedCoat, below: Tile): void;
}

/** The file that a source reads, where it reads one. */
export const fileOfSource = (source: Record<string, unknown>): string | undefined =>
  source.kind === 'picture' || source.kind === 'cutout' ? (source.file as string | undefined) : undefined;

export const defineSource = <S extends z.ZodObject>(source: Source<S>): Source => source as unknown as Source;
