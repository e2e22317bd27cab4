import { guardChoices, choiceOf, choiceRegions, guardSentence } from './choices';
import { toBase64 } from './bytes';
import { mapShare, MESH_POINTS, personTaken, type Finding } from './finding';
import { amountsOf, guardsSchema, settingsOf, toneAmounts } from './schema';

const face = (score: number): Finding['faces'][number] => ({ score, mesh: Array.from({ length: MESH_POINTS * 3 }, () => 0) });
const found = (...scores: number[]): Finding => ({ version: 1, faces: scores.map(face), person: null });
const guardsOf = (choice: (typeof guardChoices)[number]['id'], amount: number) => guardsSchema.parse({ regions: choiceRegions(choice, amount) });

it.each(guardChoices.map((c) => [c.id]))('%s is read back as it is set', (choice) => {
  for (const amount of [0.6, 0.8, 1]) {
    const back = choiceOf(guardsOf(choice, amount));
    expect(back.choice).toBe(choice);
    expect(back.amount).toBeCloseTo(amount, 3);
  }
});

it('each choice keeps all that the one before it keeps', () => {
  const [features, wholeFace, neck, person] = guardChoices.map(({ id }) => guardsOf(id, 1));
  for (const id of ['eyes', 'brows', 'lips', 'teeth', 'nostrils', 'ears', 'skin', 'body', 'hair', 'subject'] as const) {
    const amounts = [features, wholeFace, neck, person].map((g) => settingsOf(g, id).amount);
    expect([...amounts].sort((a, b) => a - b)).toEqual(amounts);
  }
  // The run-out over jaw and neck.
  expect(settingsOf(wholeFace, 'skin')).toMatchObject({ amount: 1, expand: 8, feather: 40 });
});

it('without any choice the trade’s amounts are eyes and lips', () => {
  expect(choiceOf(guardsSchema.parse({}))).toEqual({ choice: 'features', amount: 1, follow: 0 });
});

it('what is kept follows the tone, but for eyes and lips alone, unless it is told otherwise', () => {
  expect(guardChoices.map(({ id }) => choiceOf(guardsOf(id, 1)).follow)).toEqual([0, 1, 1, 1]);
  expect(choiceOf(guardsSchema.parse({ regions: choiceRegions('person', 1, 0) })).follow).toBe(0);
  const amounts = { ...amountsOf(guardsOf('face', 1), undefined) };
  expect(toneAmounts(guardsOf('features', 1), amounts)).toBeNull();
  expect(toneAmounts(guardsOf('face', 1), amounts)?.skin).toBe(0);
  expect(toneAmounts(guardsSchema.parse({ regions: { eyes: { follow: 0.25 } } }), amounts)).toMatchObject({ eyes: 0.75, teeth: 1 });
});

it('a person without a sure face is only offered', () => {
  const person = { width: 2, height: 2, map: toBase64(new Uint8Array([255, 255, 0, 0])) };
  const nobody: Finding = { ...found(), person };
  expect(mapShare(person)).toBeCloseTo(0.5, 9);
  expect(personTaken(undefined, nobody)).toBe(false);
  expect(personTaken(guardsSchema.parse({ person: true }), nobody)).toBe(true);
  expect(personTaken(undefined, { ...found(0.9), person })).toBe(true);
  expect(personTaken(guardsSchema.parse({ faces: { 0: false } }), { ...found(0.9), person })).toBe(false);
  expect(personTaken(guardsSchema.parse({ person: true }), found())).toBe(false);
  expect(guardSentence(nobody, guardsSchema.parse({}))).toBe('No face found. There may be a person: switch it on below.');
  expect(guardSentence(nobody, guardsSchema.parse({ person: true }))).toBe('No face found. The person found is kept.');
});

it('says in plain words what is kept', () => {
  expect(guardSentence(found(0.9), guardsSchema.parse({}))).toBe('1 face found: eyes clean, lips 35 % textured, skin textured.');
  expect(guardSentence(found(0.9, 0.8), guardsOf('face', 0.5))).toBe('2 faces found: eyes 50 % textured, lips 50 % textured, skin 50 % textured.');
  expect(guardSentence(found(0.9, 0.5), guardsSchema.parse({}))).toMatch(/One more may be a face: switch it on below\.$/);
  expect(guardSentence(found(), guardsSchema.parse({}))).toBe('No face found.');
  // One that was left out is not counted.
  expect(guardSentence(found(0.9, 0.9), guardsSchema.parse({ faces: { 1: false } }))).toMatch(/^1 face found/);
});
