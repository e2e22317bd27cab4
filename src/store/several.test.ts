import { changeCoat, setLay } from '../core/piece/edits';
import { findCoat, innerCoats } from '../core/piece/groups';
import { pieceSchema, type Coat } from '../core/piece/schema';
import { testPiece } from '@/testing/piece';
import { setReady } from '../core/piece/rebase';
import { readySchema } from '../core/ready/schema';
import { useBench } from './bench';
import { applySettings } from '../core/piece/lastSettings';
import { useLastSettings } from './lastSettings';
import { useNotices } from './notices';
import * as records from './records';
import { flush } from './saving';
import { openPiece } from './session';
import { duplicateSeveral, groupSeveral, lockSeveral, removeSeveral, setLocked, severalCoats, showSeveral, useRail } from './several';

const state = () => useBench.getState();
const coats = () => state().piece?.coats ?? [];
const find = (id: string) => findCoat({ coats: coats() }, id) as Coat;
const piece = testPiece({ coats: ['a', 'b', 'c'].map((id) => ({ id, source: { kind: 'colour', colour: '#808080' } })) });
const paper = { kind: 'material', id: 'paper.cold-press', seed: 1, params: {} };
const said = () => useNotices.getState().list.map(({ text }) => text);
const choose = (...ids: string[]) => {
  useRail.getState().end();
  useBench.getState().choose(null);
  useRail.getState().begin();
  ids.forEach((id) => useRail.getState().toggle(id));
};

beforeEach(async () => {
  await flush();
  await records.savePiece(piece);
  await openPiece('p1');
});

it('coats chosen together become a group in one step, which is chosen then', () => {
  choose('a', 'c');
  expect(severalCoats().map(({ id }) => id)).toEqual(['a', 'c']);
  groupSeveral();
  expect(coats().map(({ id }) => id)).toEqual(['b', state().chosen]);
  expect(innerCoats(find(state().chosen as string)).map(({ id }) => id)).toEqual(['a', 'c']);
  expect(useRail.getState().several).toBeNull();
  expect(state().undo()).toBe('Group');
  expect(coats().map(({ id }) => id)).toEqual(['a', 'b', 'c']);
});

it('are hidden, copied and removed together, each in one step', () => {
  choose('a', 'b');
  showSeveral(false);
  expect(coats().map(({ visible }) => visible)).toEqual([false, false, true]);
  duplicateSeveral();
  expect(coats()).toHaveLength(5);
  state().undo();
  removeSeveral();
  expect(coats().map(({ id }) => id)).toEqual(['c']);
  expect(useRail.getState().several).toBeNull();
  expect(state().undo()).toBe('Remove 2 coats');
});

it('groups that would lie too deep in each other are refused, because the piece could not be read again', () => {
  for (let i = 0; i < 6; i++) {
    choose(coats()[0].id);
    groupSeveral();
  }
  expect(said()).toContain('Groups can lie at most four deep in each other.');
  expect(pieceSchema.safeParse(state().piece).success).toBe(true);
});

it('a coat in a group unfolds it when it is chosen', () => {
  choose('a', 'b');
  groupSeveral();
  const group = state().chosen as string;
  expect(useRail.getState().open).toEqual([]);
  state().choose('b');
  expect(useRail.getState().open).toEqual([group]);
});

describe('a locked coat', () => {
  it('is neither changed nor removed, and the person is told; it can be hidden, and unlocked', () => {
    setLocked('a', true);
    const before = coats();
    state().change(
      'Strength',
      changeCoat('a', () => ({ strength: 0.5 })),
    );
    state().preview(setLay('a', { turn: 10 }));
    state().remove('a');
    choose('a', 'b');
    removeSeveral();
    expect(coats()).toBe(before);
    expect(state().draft).toBeNull();
    expect(said()).toContain('This coat is locked. Unlock it to change it.');
    showSeveral(false);
    expect(find('a').visible).toBe(false);
    lockSeveral(false);
    expect(find('a').locked).toBe(false);
    state().remove('a');
    expect(coats().map(({ id }) => id)).toEqual(['b', 'c']);
  });
  it('stays on its points of the photo when that is cropped, and other coats may be changed', () => {
    setLocked('a', true);
    state().change('Crop', (now) => setReady(now, readySchema.parse({ crop: { x: 0, y: 0, w: 0.5, h: 1 } })));
    expect(state().piece?.ready?.crop.w).toBe(0.5);
    state().change(
      'Strength',
      changeCoat('b', () => ({ strength: 0.5 })),
    );
    expect(find('b').strength).toBe(0.5);
  });
  it('locks what lies in it when it is a group; a coat in it is unlocked with it', () => {
    choose('a', 'b');
    groupSeveral();
    const group = state().chosen as string;
    setLocked(group, true);
    state().change(
      'Strength',
      changeCoat('a', () => ({ strength: 0.5 })),
    );
    expect(find('a').strength).toBe(1);
    setLocked('a', false);
    expect(find(group).locked).toBe(false);
    state().change(
      'Strength',
      changeCoat('a', () => ({ strength: 0.5 })),
    );
    expect(find('a').strength).toBe(0.5);
  });
});

it('a material is offered as it was set the last time, on another photo too, without where it lay', async () => {
  state().addCoat(paper);
  const first = state().chosen as string;
  state().change('Strength', (now) => changeCoat(first, () => ({ strength: 0.37 }))(setLay(first, { turn: 30, x: 0.2 })(now)));
  await flush();
  await new Promise((resolve) => setTimeout(resolve, 20));
  await records.savePiece({ ...piece, id: 'p2' });
  await openPiece('p2');
  await useLastSettings.getState().refresh();
  state().addCoat(paper);
  const second = state().chosen as string;
  const last = useLastSettings.getState().settings['paper.cold-press'];
  expect(last).toMatchObject({ strength: 0.37, lay: { turn: 30 } });
  state().change('Settings', applySettings(second, last));
  expect(find(second)).toMatchObject({ strength: 0.37, lay: { turn: 30, x: 0 }, blend: find(second).blend });
});
