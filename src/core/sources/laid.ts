import { sampleAffine, sampleInPerspective, type Edge } from '../image/sample';
import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { PlannedCoat } from '../render/plan';
import { layMap, layProjection, type Lay } from './lay';

const edgeOf = ({ fit, mirror }: Lay): Edge => (fit !== 'tile' ? 'clear' : mirror ? 'mirror' : 'wrap');

/** What is laid: a picture and how. */
export type Laid = Pick<PlannedCoat, 'lay' | 'picture' | 'nominal' | 'held' | 'name'>;

/** A picture or material sampled where the coat's lay puts it. */
export function fillLaid(context: RenderContext, tile: Tile, coat: Laid): void {
  const { picture, lay } = coat;
  if (!picture) throw new Error(`The source of coat "${coat.name}" has not been loaded.`);
  const sizes = [coat.nominal ?? picture, context, coat.held ?? picture] as const;
  if (lay.corners) sampleInPerspective(context.machine, picture, layProjection(lay, ...sizes), edgeOf(lay), tile);
  else sampleAffine(context.machine, picture, layMap(lay, ...sizes), edgeOf(lay), tile);
}
