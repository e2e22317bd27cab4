import below from './below';
import colour from './colour';
import cutout from './cutout';
import gradient from './gradient';
import grain from './grain';
import material from './material';
import photo from './photo';
import picture from './picture';
import type { Source } from './source';

export const sources: readonly Source[] = [material, picture, cutout, photo, below, colour, gradient, grain];

const byKind = new Map(sources.map((s) => [s.kind, s]));

/** @throws RangeError naming the kind, when there is no such source. */
export function sourceByKind(kind: string): Source {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no source called "${kind}".`);
  return found;
}
export type { Source };
