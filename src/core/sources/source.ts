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
  /** True when the coat's lay says where it sits. */
  laid?: boolean;
  fill(context: RenderContext, tile: Tile, coat: PlannedCoat, below: Tile): void;
}

export const defineSource = <S extends z.ZodObject>(source: Source<S>): Source => source as unknown as Source;
