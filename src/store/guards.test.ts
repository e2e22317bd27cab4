import { findingSchema, GRID, MESH_POINTS, seenSchema, type Finding } from '../core/guards/finding';
import { pieceSchema } from '../core/piece/schema';
import { setReady } from '../core/piece/rebase';
import { readySchema } from '../core/ready/schema';
import { useBench } from './bench';
import * as guards from './guards';
import { useNotices } from './notices';

const face = (score: number) => ({ score, mesh: new Array(MESH_POINTS * 3).fill(0) });
const finding = (...scores: number[]): Finding => findingSchema.parse({ version: 1, faces: scores.map(face), person: null });
let mockAnswer: () => Promise<Finding>;
jest.mock('./engine', () => ({ getEngine: async () => ({ guards: { find: () => mockAnswer() } }) }));

const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'Keeper',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k.png', width: 1000, height: 800 },
  coats: [{ id: 'a', source: { kind: 'photo' } }],
});
beforeEach(() => useBench.setState({ piece, past: [], future: [], draft: null }));

it('finding guards the piece in one step that can be taken back', async () => {
  mockAnswer = async () => finding(0.9);
  await guards.findGuards();
  expect(useBench.getState().piece?.guards).toMatchObject({ regions: {}, faces: {} });
  expect(guards.useGuards.getState()).toMatchObject({ progress: null, finding: { version: 1 } });
  expect(useBench.getState().undo()).toBe('Guard faces and people');
  expect(useBench.getState().piece?.guards).toBeUndefined();
});

it('finding that fails says so and changes nothing', async () => {
  mockAnswer = async () => {
    throw new Error('The models are damaged.');
  };
  await guards.findGuards();
  expect(useBench.getState().piece?.guards).toBeUndefined();
  expect(useNotices.getState().list.map((n) => n.text)).toContain('The models are damaged.');
});

it('regions, faces, hints and a coat’s own amounts are changed one by one', () => {
  const lips = guards.setRegion('lips', { feather: 3 })(guards.setRegion('lips', { amount: 0.4 })(piece));
  expect(lips.guards?.regions).toEqual({ lips: { amount: 0.4, feather: 3 } });
  expect(guards.takeFace(1, true)(lips).guards?.faces).toEqual({ '1': true });
  const hinted = guards.addHair({ size: 20, points: [[0, 0]] })(guards.addHint({ keep: true, points: [[0.5, 0.5]] })(lips));
  expect(hinted.guards).toMatchObject({ hints: [{ keep: true }], hairs: [{ size: 20 }] });
  expect(guards.clearHints(hinted).guards).toMatchObject({ hints: [], hairs: [], regions: lips.guards?.regions });
  const own = guards.setOwnAmount('a', 'eyes', 0.2)(piece);
  expect(own.coats[0].guardAmounts).toEqual({ eyes: 0.2 });
  expect(guards.setOwnAmount('a', 'eyes', undefined)(own).coats[0].guardAmounts).toEqual({});
});

it('what is painted on a cropped photo is kept in the file’s own measure', () => {
  const cropped = setReady(piece, readySchema.parse({ crop: { x: 0.5, y: 0.25, w: 0.5, h: 0.5 } }));
  expect(guards.onFile(cropped, 0.5, 0.5)).toEqual([0.75, 0.5]);
  // 2000 u are the 500 pixels of the crop, half of the file's thousand.
  expect(guards.lengthOnFile(cropped, 100)).toBeCloseTo(50, 6);
});

it('a face that was only seen is kept by one tap, and let go by another', () => {
  const k = GRID / 1000;
  const at = (v: number) => Math.round(v * k);
  const seen = { x: at(300), y: at(200), size: at(100), marks: [280, 190, 320, 190, 300, 210, 300, 230].map(at) };
  const kept = guards.keptOfSeen(seenSchema.parse(seen), piece.photo);
  // A tip of 60 pixels, two u each, half as far from the middle as eyes, nose and mouth, in fractions of 1000 × 800.
  expect(kept.size).toBeCloseTo(120, 0);
  expect(kept.points[3][0]).toBeCloseTo(0.3, 3);
  expect(kept.points[3][1]).toBeCloseTo(215 / 800, 3);
  const taken = guards.keepSeen(kept, true)(piece);
  expect(guards.keepsSeen(taken.guards, kept)).toBe(true);
  expect(guards.keepSeen(kept, true)(taken).guards?.kept).toHaveLength(1);
  expect(guards.keepsSeen(guards.keepSeen(kept, false)(taken).guards, kept)).toBe(false);
});
