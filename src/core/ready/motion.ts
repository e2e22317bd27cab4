import { motionBy, type Motion, type Size } from '../image/motion';
import { between, fromFile, readiedSize, toFile } from './geometry';
import type { Ready } from './schema';

export function motionOf(photo: Size, before: Ready, after: Ready): Motion {
  const map = between(photo, before, after);
  const frames = motionBy(map, readiedSize(photo, before), readiedSize(photo, after));
  // Another lens moves every point its own way; scale and turn are those of the frame.
  const sameLens = JSON.stringify(before.lens) === JSON.stringify(after.lens);
  return sameLens ? frames : { ...frames, point: (p) => fromFile(photo, after, toFile(photo, before, p)) };
}
