import { apply, invert, type Point } from '../image/projection';
import { straightened } from '../ready/lens';
import type { Framing } from '../ready/framing';

/** Takes points of the file, in pixels, to pixels of the readied photo. */
export function placeIn({ map, lens }: Framing): (p: Point) => Point {
  const back = invert(map);
  return (p) => apply(back, lens ? straightened(lens, p) : p);
}
