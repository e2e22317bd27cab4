import { readySchema, type Ready } from './schema';

/** Parts of a readying that can be kept, and put on another photo, by themselves. Spots belong to their own photo and are none of them. */
export const readyParts = [
  { id: 'frame', label: 'Frame', fields: ['quarter', 'flip', 'perspective', 'crop'] },
  { id: 'lens', label: 'Lens', fields: ['lens', 'fringe'] },
  { id: 'balance', label: 'Balance', fields: ['whiteBalance'] },
  { id: 'light', label: 'Light', fields: ['tone', 'even', 'localTone', 'levels', 'curves'] },
  { id: 'colour', label: 'Colour', fields: ['colour', 'ranges', 'hues', 'monochrome'] },
  { id: 'detail', label: 'Detail', fields: ['localContrast', 'noise'] },
] as const satisfies readonly { id: string; label: string; fields: readonly (keyof Ready)[] }[];
export type ReadyPart = (typeof readyParts)[number]['id'];

const neutral = readySchema.parse({});
const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Parts in which a readying differs from the photo as it was taken. */
export const partsOf = (ready: Ready): ReadyPart[] =>
  readyParts.filter(({ fields }) => fields.some((f) => ready[f] !== undefined && !same(ready[f], neutral[f]))).map((p) => p.id);

/** One readying with some parts of another. A grey that was picked on the other photo is left behind: it is a place in that photo. */
export function withParts(into: Ready, from: Ready, parts: readonly ReadyPart[]): Ready {
  const out: Record<string, unknown> = { ...into };
  for (const { id, fields } of readyParts) if (parts.includes(id)) for (const f of fields) out[f] = from[f];
  if (parts.includes('balance') && from.whiteBalance) {
    const { neutral: _place, ...rest } = from.whiteBalance;
    out.whiteBalance = rest;
  }
  return out as Ready;
}
