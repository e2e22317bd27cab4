import { SURE, type Finding } from './finding';
import { regions, settingsOf, type Guards, type RegionId, type RegionSettings } from './schema';

/** What of a person is kept, in one choice; each includes the one before it. */
export const guardChoices = [
  { id: 'features', label: 'Eyes and lips' },
  { id: 'face', label: 'Whole face' },
  { id: 'neck', label: 'Face and neck' },
  { id: 'person', label: 'Person' },
] as const;
export type GuardChoice = (typeof guardChoices)[number]['id'];

/** Skin runs out softly over jaw and neck, so that no mask shows: widened, and feathered far (common practice, no source). */
const SOFT = { expand: 8, feather: 40 };
const OF_FACE: readonly RegionId[] = ['brows', 'lips', 'ears', 'skin'];
const ALWAYS: readonly RegionId[] = ['eyes', 'teeth', 'nostrils'];

/** Regions that a choice sets, with their amounts, for one amount of 0..1. Strokes on them stay. */
export function choiceRegions(choice: GuardChoice, amount: number): Partial<Record<RegionId, Partial<RegionSettings>>> {
  const out: Partial<Record<RegionId, Partial<RegionSettings>>> = {};
  for (const { id, amount: own } of regions) {
    if (id !== 'detail' && id !== 'accents' && id !== 'painted') out[id] = { amount: Math.round(own * amount * 1000) / 1000 };
  }
  if (choice === 'features') return out;
  for (const id of ALWAYS) out[id] = { amount };
  for (const id of OF_FACE) out[id] = { amount };
  out.skin = { amount, ...SOFT };
  if (choice === 'face') return out;
  out.body = { amount: Math.round(0.9 * amount * 1000) / 1000, feather: SOFT.feather };
  if (choice === 'neck') return out;
  out.hair = { amount };
  out.subject = { amount, feather: 12 };
  return out;
}

/** The choice that regions come nearest to, and its amount. */
export function choiceOf(guards: Pick<Guards, 'regions'>): { choice: GuardChoice; amount: number } {
  const amount = (id: RegionId) => settingsOf(guards, id).amount;
  if (amount('subject') > 0.5) return { choice: 'person', amount: amount('subject') };
  if (amount('body') > 0) return { choice: 'neck', amount: amount('skin') };
  if (amount('skin') > 0) return { choice: 'face', amount: amount('skin') };
  return { choice: 'features', amount: amount('eyes') };
}

/** "1 face found: eyes clean, lips 35 % textured, skin textured." */
export function guardSentence({ faces, person }: Finding, guards: Pick<Guards, 'regions' | 'faces'>): string {
  const taken = faces.filter((face, i) => guards.faces[String(i)] ?? face.score >= SURE).length;
  const offered = faces.length - taken;
  const more =
    offered === 0
      ? ''
      : ` ${offered === 1 ? 'One more may be a face' : `${offered} more may be faces`}: switch ${offered === 1 ? 'it' : 'them'} on below.`;
  if (taken === 0 && offered === 0) return person ? 'No face found. The person can be kept: choose Person.' : 'No face found.';
  const state = (name: string, id: RegionId) => {
    const { amount } = settingsOf(guards, id);
    const through = Math.round((1 - amount) * 100);
    return `${name} ${through === 0 ? 'clean' : through === 100 ? 'textured' : `${through} % textured`}`;
  };
  const found =
    taken === 0
      ? 'No sure face found.'
      : `${taken} ${taken === 1 ? 'face' : 'faces'} found: ${[state('eyes', 'eyes'), state('lips', 'lips'), state('skin', 'skin')].join(', ')}.`;
  return found + more;
}
