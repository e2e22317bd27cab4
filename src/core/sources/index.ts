import { registry } from '../graph/operation';
import below from './below';
import border from './border';
import colour from './colour';
import cutout from './cutout';
import gradient from './gradient';
import grain from './grain';
import group from './group';
import material from './material';
import photo from './photo';
import picture from './picture';
import signature from './signature';
import splatter from './splatter';
import strokes from './strokes';
import vignette from './vignette';
import type { Source } from './source';

export const sources: readonly Source[] = [
  material,
  picture,
  strokes,
  below,
  photo,
  cutout,
  splatter,
  border,
  signature,
  vignette,
  grain,
  gradient,
  colour,
  group,
];

/** @throws RangeError naming the kind, when there is no such source. */
export const sourceByKind = registry(sources, 'source');

/** The file that a source reads, where it reads one. */
export const fileOfSource = (source: Record<string, unknown>): string | undefined => sourceByKind(source.kind as string).file?.(source);

export type { Source };
