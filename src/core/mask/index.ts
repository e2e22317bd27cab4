import { controlsOf } from '../schema';
import type { Motion } from '../ready/motion';
import type { MaskPart } from './part';
import colours from './parts/colours';
import coat from './parts/coat';
import detail from './parts/detail';
import ellipse from './parts/ellipse';
import gradient from './parts/gradient';
import guard from './parts/guard';
import material from './parts/material';
import strokes from './parts/strokes';
import tones from './parts/tones';

export const maskParts: readonly MaskPart[] = [strokes, ellipse, gradient, tones, colours, detail, material, guard, coat];

const byKind = new Map(maskParts.map((p) => [p.kind, p]));

/** @throws RangeError naming the kind, when there is no such mask part. */
export function maskPartByKind(kind: string): MaskPart {
  const found = byKind.get(kind);
  if (!found) throw new RangeError(`There is no mask part called "${kind}".`);
  return found;
}

/** A part on the same points of the photo after its frame has changed; its lengths in u with it. */
export function movePart(params: Record<string, unknown>, motion: Motion): Record<string, unknown> {
  const part = maskPartByKind(params.kind as string);
  const out = { ...(part.moved ? part.moved(params, motion) : params) };
  for (const { key, meta } of controlsOf(part.schema)) {
    if (meta.unit === 'u' && typeof out[key] === 'number') out[key] = motion.length(out[key] as number);
  }
  return out;
}
export type { MaskPart };
