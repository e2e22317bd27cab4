import type { Region, Tile } from '../../image/tile';
import type { RenderContext } from '../../render/context';
import { choice } from '../../schema';

/** What a part that looks at pixels looks at. */
export const ofField = choice(
  'Looks at',
  [
    { value: 'photo', label: 'The photo' },
    { value: 'below', label: 'What lies below' },
  ],
  'photo',
);

/** The pixels that a part looks at, over a region; what lies below stands for itself when it is at hand. */
export function lookedAt(context: RenderContext, region: Region, of: 'photo' | 'below', below: Tile | null): Tile {
  if (of === 'below' && below) return below;
  const tile = context.scratch.tile({ x: region.x, y: region.y, width: region.width, height: region.height });
  context.drawPhoto(tile);
  return tile;
}
