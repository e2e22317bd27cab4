import { readyPartLabels, readyStepList, type ReadyPart } from './steps';
import { neutralReady, type Ready } from './schema';

export type { ReadyPart };

/** Parts of a readying, each with the fields that it holds. */
export const readyParts = (Object.keys(readyPartLabels) as ReadyPart[]).map((id) => ({
  id,
  label: readyPartLabels[id],
  fields: readyStepList.filter((step) => step.part === id).map((step) => step.field),
}));

const same = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** Parts in which a readying differs from the photo as it was taken. */
export const partsOf = (ready: Ready): ReadyPart[] =>
  readyParts.filter(({ fields }) => fields.some((f) => ready[f] !== undefined && !same(ready[f], neutralReady[f]))).map((p) => p.id);

/**
 * One readying with some parts of another.
 *
 * @param isSamePhoto - The other belongs to the same photo: places in it, such as a spot that was picked as grey, are taken too.
 */
export function withParts(into: Ready, from: Ready, parts: readonly ReadyPart[], isSamePhoto = false): Ready {
  const out: Record<string, unknown> = { ...into };
  for (const { field, part, places = [] } of readyStepList) {
    if (part === null || !parts.includes(part)) continue;
    const value = from[field];
    out[field] = isSamePhoto || places.length === 0 || typeof value !== 'object' ? value : without(value, places);
  }
  return out as Ready;
}

const without = (value: object, names: readonly string[]) => Object.fromEntries(Object.entries(value).filter(([name]) => !names.includes(name)));
