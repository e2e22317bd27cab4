import { marksOf } from '../materials';
import type { Marks } from '../materials/material';
import type { SourceInput } from './edits';

/** What a mask or a tip is cut from: a made material, or an imported picture by its file. */
export interface Grain {
  id: string;
  seed: number;
  file?: string;
}

/** What of the shelf was chosen, as what a mask or a tip is cut from. */
export const grainOf = (source: SourceInput): Grain =>
  source.kind === 'material'
    ? { id: String(source.id), seed: Number(source.seed ?? 1), file: undefined }
    : { id: '', seed: 1, file: String(source.file) };

/** The reverse: the entry of the shelf that a mask or a tip is cut from. */
export function sourceOfGrain(grain: { id?: unknown; seed?: unknown; file?: unknown } = {}): SourceInput {
  if (typeof grain.file === 'string') return { kind: 'picture', file: grain.file };
  return { kind: 'material', id: String(grain.id ?? ''), seed: Number(grain.seed ?? 1), params: {} };
}

/** What of an entry of the shelf counts first. On own pictures marks are mostly dark: ink and cracks on a light ground. */
export const marksOfSource = (source: SourceInput): Marks => (source.kind === 'material' ? marksOf(String(source.id)) : 'darks');
