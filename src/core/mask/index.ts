import type { MaskPart } from './part';
import ellipse from './parts/ellipse';
import strokes from './parts/strokes';

export const maskParts: readonly MaskPart[] = [strokes, ellipse];

const byKind = new Map(maskParts.map((p) => [p.kind, p]));

/** @throws RangeError naming the kind, when there is no such mask part. */
export function maskPartByKind(kind: string): MaskPart {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no mask part called "${kind}".`);
  return found;
}
export type { MaskPart };
