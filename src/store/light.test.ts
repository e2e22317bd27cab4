import type { Light } from '../core/form/light';
import { changeStep } from '../core/piece/edits';
import { pieceSchema } from '../core/piece/schema';
import { readySchema } from '../core/ready/schema';
import { useBench } from './bench';
import { lampOf, lampOnMaterial, litAsKnown, matchLight, readLight, useMatching } from './light';
import { useNotices } from './notices';

let mockLight: Light | null;
jest.mock('./engine', () => ({ getEngine: async () => ({ forms: { light: async () => mockLight } }) }));

const piece = pieceSchema.parse({
  dermatex: 1,
  id: 'p',
  name: 'Keeper',
  created: 1,
  changed: 1,
  photo: { key: 'k', name: 'k.png', width: 1000, height: 800 },
  coats: [{ id: 'a', source: { kind: 'photo' }, treatments: [{ kind: 'relief' }, { kind: 'bevel' }] }],
});
const step = (i: number) => useBench.getState().piece?.coats[0].treatments[i] as { direction: number; elevation?: number } | undefined;
const lit = (i: number) => (lamp: { direction: number; elevation: number }) =>
  changeStep('a', i, lampOf(String(piece.coats[0].treatments[i].kind), lamp));
beforeEach(() => useBench.setState({ piece, past: [], future: [], draft: null }));

it('a step takes the direction and the height of the light, and can be taken back', async () => {
  mockLight = { azimuth: -45, elevation: 0, confidence: 0.9 };
  await matchLight('it', 'Relief: match the photo’s light', lit(0));
  expect(step(0)).toMatchObject({ direction: 270, elevation: 45 });
  expect(useMatching.getState().of).toBeNull();
  expect(useBench.getState().undo()).toBe('Relief: match the photo’s light');
});

it('a step without a height takes the direction alone', async () => {
  mockLight = { azimuth: 45, elevation: 0, confidence: 0.9 };
  await matchLight('it', 'Raised edges: match the photo’s light', lit(1));
  expect(step(1)?.direction).toBe(90);
  expect(step(1)).not.toHaveProperty('elevation');
});

it('on a photo turned by a quarter and mirrored the light is turned and mirrored with it', async () => {
  mockLight = { azimuth: -45, elevation: 0, confidence: 0.9 };
  useBench.setState({ piece: { ...piece, ready: readySchema.parse({ quarter: 1 }) } });
  await matchLight('it', 'x', lit(0));
  // What came from the left comes from the top after a quarter clockwise.
  expect([0, 360]).toContain(step(0)?.direction);
});

it('an uncertain light is replaced by one from the front; without a face nothing changes, and either is said', async () => {
  mockLight = { azimuth: -80, elevation: 70, confidence: 0.1 };
  await matchLight('it', 'x', lit(0));
  expect(step(0)).toMatchObject({ direction: 0, elevation: 60 });
  useBench.setState({ piece });
  mockLight = null;
  await matchLight('it', 'x', lit(0));
  expect(step(0)).toMatchObject({ direction: 315, elevation: 40 });
  expect(
    useNotices
      .getState()
      .list.map((n) => n.text)
      .join(),
  ).toMatch(/too even.*No face was found/);
});

it('a material that is laid is lit as the face is, but not so low that its grain becomes ravines', async () => {
  const paper = { kind: 'material', id: 'paper.laid', seed: 1, params: {} };
  mockLight = { azimuth: -80, elevation: 0, confidence: 0.9 };
  await readLight(piece, {});
  expect(litAsKnown(paper)).toEqual({ ...paper, light: { from: 'side', direction: 270, elevation: 25 } });
  expect(lampOnMaterial({ direction: 10, elevation: 50 })).toEqual({ from: 'side', direction: 10, elevation: 50 });
  // Light does not fall on what is light itself; and one that is lit already stays so.
  expect(litAsKnown({ ...paper, id: 'air.stray' })).toEqual({ ...paper, id: 'air.stray' });
  const own = { ...paper, light: { from: 'none', direction: 0, elevation: 40 } };
  expect(litAsKnown(own)).toBe(own);
  mockLight = { azimuth: -80, elevation: 0, confidence: 0.1 };
  await readLight(piece, {});
  expect(litAsKnown(paper)).toBe(paper);
});
