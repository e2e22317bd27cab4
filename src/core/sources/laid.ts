import { sampleAffine } from '../image/sample';
import type { Tile } from '../image/tile';
import type { RenderContext } from '../render/context';
import type { PlannedCoat } from '../render/plan';
import { layMap } from './lay';

/** A picture or material sampled where the coat's lay puts it. */
export function fillLaid(context: RenderContext, tile: Tile, coat: PlannedCoat): void {
  if (!coat.picture) throw new Error(`The source of coat "${coat.name}" has not been loaded.`);
  const map = layMap(coat.lay, coat.nominal ?? coat.picture, context, coat.held ?? coat.picture);
  sampleAffine(context.machine, coat.picture, map, coat.lay.fit === 'tile' ? 'wrap' : 'clear', tile);
}
