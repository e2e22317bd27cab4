import type { Fitting } from '../core/materials/fitting/schema';
import type { FamilyId } from '../core/materials/material';
import type { PictureRef } from '../core/piece/schema';
import { readText, removeKeys, writeTexts } from './database';
import { withLock } from './locks';
import { say } from './notices';
import { words } from './words';

export interface OwnMaterial extends PictureRef {
  added: number;
  /** What it is called on the shelf; its file's name when left out. */
  label?: string;
  family?: FamilyId;
  /** How it is made to fit; as it is when left out. */
  fitting?: Fitting;
  /** Its light was found to be uneven. */
  uneven?: boolean;
  /** JPEG data URL of it, small. */
  thumb?: string;
  maker?: string;
  licence?: string;
}

/** What the shelf remembers: ids of materials, or keys of own ones. */
export interface ShelfMemory {
  favourites: string[];
  recent: string[];
}

/** Reads a record of JSON. A damaged one is set aside under another name, and what stands in for it is returned. */
async function read<T>(key: string, otherwise: T, isValid: (data: unknown) => boolean): Promise<T> {
  const text = await readText(key);
  if (text === null) return otherwise;
  try {
    const data = JSON.parse(text) as T;
    if (isValid(data)) return data;
  } catch {
    // Not JSON: set aside below.
  }
  await writeTexts({ [`damaged:${key}`]: text }).then(
    () => removeKeys([key]),
    () => undefined,
  );
  say(words.storage.aRecordOfThisBrowsers(key), { lasting: true });
  return otherwise;
}

const isList = Array.isArray;
const isObject = (data: unknown) => typeof data === 'object' && data !== null && !Array.isArray(data);
const isShelf = (data: unknown) => isObject(data) && isList((data as ShelfMemory).favourites) && isList((data as ShelfMemory).recent);

const isOwn = (list: unknown) =>
  isList(list) && list.every((own: Partial<OwnMaterial> | null) => typeof own?.key === 'string' && typeof own.name === 'string');

/** Changes a list that several tabs may change, one tab at a time. */
function change<T>(key: string, now: () => Promise<T>, to: (now: T) => T): Promise<T> {
  return withLock(key, async () => {
    const next = to(await now());
    await writeTexts({ [key]: JSON.stringify(next) });
    return next;
  });
}

export const listOwn = () => read<OwnMaterial[]>('own', [], isOwn);
export const changeOwn = (to: (list: OwnMaterial[]) => OwnMaterial[]) => change('own', listOwn, to);
export const readShelf = () => read<ShelfMemory>('shelf', { favourites: [], recent: [] }, isShelf);
export const changeShelf = (to: (shelf: ShelfMemory) => ShelfMemory) => change('shelf', readShelf, to);
/** Readyings kept under a name; checked by whoever reads them. */
export const listStarts = () => read<unknown[]>('starts', [], isList);
export const changeStarts = (to: (list: unknown[]) => unknown[]) => change('starts', listStarts, to);

/** How materials were set the last time, by material; checked by whoever reads it. */
export const readLastSettings = () => read<object>('last-settings', {}, isObject);
export const changeLastSettings = (to: (record: object) => object) => change('last-settings', readLastSettings, to);

/** A batch that was left; checked by whoever reads it. */
export const readBatch = () => read<unknown>('batch', null, () => true);

/** Looks kept under a name; checked by whoever reads them. */
export const listLooks = () => read<unknown[]>('looks', [], isList);
export const changeLooks = (to: (list: unknown[]) => unknown[]) => change('looks', listLooks, to);

/** Signatures that were drawn; checked by whoever reads them. */
export const listSignatures = () => read<unknown[]>('signatures', [], isList);
export const changeSignatures = (to: (list: unknown[]) => unknown[]) => change('signatures', listSignatures, to);

/** What was found on a photo; checked by whoever reads it. */
export const loadFinding = (key: string) => read<unknown>(`finding:${key}`, null, () => true);
export const saveFinding = (key: string, finding: object) => writeTexts({ [`finding:${key}`]: JSON.stringify(finding) });
