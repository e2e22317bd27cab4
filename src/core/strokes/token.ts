import type { Stroke } from './schema';

/** What was last seen of a stroke that grows. */
interface Growth {
  id: number;
  length: number;
  lastPoint: object;
}

const growths = new WeakMap<object, Map<string, Growth>>();
let lastId = 0;

/**
 * Names a stroke while it grows: the same as long as points are only added to it. A stroke is known by the first of its points, which stays the same
 * object, and by its tip; one that went on in another way after an undo is another stroke.
 */
export function strokeToken({ points, ...tip }: Stroke): string {
  const [first] = points;
  const text = JSON.stringify(tip);
  let tips = growths.get(first);
  if (!tips) growths.set(first, (tips = new Map()));
  const known = tips.get(text);
  const goesOn = known && known.length <= points.length && points[known.length - 1] === known.lastPoint;
  const id = goesOn ? known.id : ++lastId;
  tips.set(text, { id, length: points.length, lastPoint: points[points.length - 1] });
  return `stroke${id}`;
}
