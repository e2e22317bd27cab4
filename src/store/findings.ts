import { findingSchema, type Finding } from '../core/guards/finding';
import { browserFind } from '../engine/finder/browser';
import type { Find } from '../engine/guards';
import { loadFinding, saveFinding } from './storage';

const look = browserFind();

/** What was found on a photo is kept with it, so that opening a piece again needs no model. */
export const storedFind: Find = async (key, input, options) => {
  const kept = findingSchema.safeParse(await loadFinding(key).catch(() => null));
  if (kept.success) return kept.data;
  const finding: Finding = await look(key, input, options);
  await saveFinding(key, finding).catch(() => undefined);
  return finding;
};
