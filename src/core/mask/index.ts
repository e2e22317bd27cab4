import { registry } from '../graph/operation';
import type { MaskPart } from './part';
import colours from './parts/colours';
import coat from './parts/coat';
import contour from './parts/contour';
import detail from './parts/detail';
import ellipse from './parts/ellipse';
import gradient from './parts/gradient';
import guard from './parts/guard';
import material from './parts/material';
import reveal from './parts/reveal';
import strokes from './parts/strokes';
import tones from './parts/tones';

export const maskParts: readonly MaskPart[] = [strokes, ellipse, gradient, tones, colours, detail, material, reveal, guard, contour, coat];

/** @throws RangeError naming the kind, when there is no such mask part. */
export const maskPartByKind = registry(maskParts, 'mask part');

export type { MaskPart };
