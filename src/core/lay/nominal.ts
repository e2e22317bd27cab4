import { materialById } from '../materials';
import { NOMINAL, type Size } from './lay';

/**
 * The size of a laid source in pixels of its own, on a photo of the given size: what one u is for a generated material, the file's pixels for a
 * picture. A picture whose size is not known is taken to have the photo's shape.
 */
export function nominalOf(source: Record<string, unknown>, photo: Size): Size {
  if (source.kind !== 'material') return { width: (source.width as number) ?? photo.width, height: (source.height as number) ?? photo.height };
  if (materialById(String(source.id)).shape === 'square') return { width: NOMINAL, height: NOMINAL };
  const aspect = (source.aspect as number | undefined) ?? photo.width / photo.height;
  return { width: NOMINAL * Math.min(1, aspect), height: NOMINAL / Math.max(1, aspect) };
}
