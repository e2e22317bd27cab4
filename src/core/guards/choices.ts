import { faceTaken, mapShare, personTaken, type Finding } from './finding';
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
/** Regions that no choice touches. */
const BESIDE: readonly RegionId[] = ['irises', 'catchlights', 'detail', 'accents', 'kept', 'painted'];
const ALWAYS: readonly RegionId[] = ['eyes', 'teeth', 'nostrils'];

/** Whether what a choice keeps follows the tone of the coats unless it is told otherwise: a whole face that does not looks cut out. */
export const followsTone = (choice: GuardChoice): boolean => choice !== 'features';

/** Regions that a choice sets, with their amounts, for one amount of 0..1, and how far they follow the tone. Strokes on them stay. */
export function choiceRegions(
  choice: GuardChoice,
  amount: number,
  follow = +followsTone(choice),
): Partial<Record<RegionId, Partial<RegionSettings>>> {
  const out = choiceAmounts(choice, amount);
  return Object.fromEntries(Object.entries(out).map(([id, values]) => [id, { ...values, follow }]));
}

function choiceAmounts(choice: GuardChoice, amount: number): Partial<Record<RegionId, Partial<RegionSettings>>> {
  const out: Partial<Record<RegionId, Partial<RegionSettings>>> = {};
  for (const { id, amount: own } of regions) {
    if (!BESIDE.includes(id)) out[id] = { amount: Math.round(own * amount * 1000) / 1000 };
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

/** The choice that regions come nearest to, its amount, and how far what it keeps follows the tone. */
export function choiceOf(guards: Pick<Guards, 'regions'>): { choice: GuardChoice; amount: number; follow: number } {
  const of = (id: RegionId) => settingsOf(guards, id);
  const by = (choice: GuardChoice, id: RegionId) => ({ choice, amount: of(id).amount, follow: of(id).follow });
  if (of('subject').amount > 0.5) return by('person', 'subject');
  if (of('body').amount > 0) return by('neck', 'skin');
  if (of('skin').amount > 0) return by('face', 'skin');
  return by('features', 'eyes');
}

/** Less of a photo than this is no person. */
export const LITTLE = 0.01;

/** "1 face found: eyes clean, lips 35 % textured, skin textured." */
export function guardSentence(finding: Finding, guards: Pick<Guards, 'regions' | 'faces' | 'person'>): string {
  const { faces, person } = finding;
  const taken = faces.filter((_, i) => faceTaken(guards, finding, i)).length;
  const offered = faces.length - taken;
  const more =
    offered === 0
      ? ''
      : ` ${offered === 1 ? 'One more may be a face' : `${offered} more may be faces`}: switch ${offered === 1 ? 'it' : 'them'} on below.`;
  if (taken === 0 && offered === 0) {
    if (personTaken(guards, finding)) return 'No face found. The person found is kept.';
    return person && mapShare(person) > LITTLE ? 'No face found. There may be a person: switch it on below.' : 'No face found.';
  }
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
