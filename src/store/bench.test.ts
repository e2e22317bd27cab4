import { coatName } from '../core/piece/naming';
import { testPiece } from '@/testing/piece';
import { shownPiece, useBench } from './bench';
import { strokeSentence } from './brush';
import { setLay } from '../core/piece/edits';
import * as records from './records';
import { flush } from './saving';
import { openPiece } from './session';

const state = () => useBench.getState();
const piece = testPiece();

beforeEach(async () => {
  await flush();
  await records.savePiece(piece);
  await openPiece('p1');
});

const paper = { kind: 'material', id: 'paper.cold-press', seed: 1, params: {} };

it('lays, undoes and redoes, each step by its name', () => {
  state().addCoat(paper);
  state().addCoat({ ...paper, id: 'wear.film' });
  expect(state().piece?.coats.map((c) => coatName(c))).toEqual(['Cold-press paper', 'Scratches and dust']);
  expect(state().chosen).toBe(state().piece?.coats[1].id);
  expect(state().undo()).toBe('Add Scratches and dust');
  expect(state().piece?.coats).toHaveLength(1);
  expect(state().chosen).toBe(state().piece?.coats[0].id);
  expect(state().redo()).toBe('Add Scratches and dust');
  expect(state().piece?.coats).toHaveLength(2);
  expect(state().redo()).toBeNull();
});

it('shows a preview without keeping it, and joins a run of changes into one step', () => {
  state().addCoat(paper);
  const id = state().chosen as string;
  state().preview(setLay(id, { turn: 10 }));
  expect(shownPiece(state())?.coats[0].lay.turn).toBe(10);
  expect(state().piece?.coats[0].lay.turn).toBe(0);
  state().change('Turn', setLay(id, { turn: 20 }), 'turn');
  state().change('Turn', setLay(id, { turn: 30 }), 'turn');
  expect(state().draft).toBeNull();
  state().undo();
  expect(state().piece?.coats[0].lay.turn).toBe(0);
});

it('a change after undo forgets what was undone', () => {
  state().addCoat(paper);
  state().undo();
  state().addCoat({ ...paper, id: 'cloth.linen' });
  expect(state().future).toHaveLength(0);
});

it('removing the chosen coat chooses the one below', () => {
  state().addCoat(paper);
  const below = state().chosen;
  state().addCoat(paper);
  state().remove(state().chosen as string);
  expect(state().chosen).toBe(below);
});

it('keeps the piece within two seconds', async () => {
  state().addCoat(paper);
  expect(state().saved).toBe('waiting');
  await new Promise((resolve) => setTimeout(resolve, 900));
  expect((await records.loadPiece('p1'))?.coats).toHaveLength(1);
  expect(state().saved).toBe('saved');
});

it('removing a piece takes its card and leaves the others', async () => {
  await records.savePiece({ ...piece, id: 'p2', changed: 5 });
  await records.removePiece('p1');
  expect((await records.listCards()).map((c) => c.id)).toEqual(['p2']);
  expect(await records.loadPiece('p1')).toBeNull();
});

it('says what a stroke will do', () => {
  expect(strokeSentence({ does: 'take', strength: 0.3, level: 0.5, ring: false }, 'Flaking paint')).toBe('Erasing Flaking paint, 30 %');
  expect(strokeSentence({ does: 'put', strength: 1, level: 0.5, ring: false }, 'Linen')).toBe('Restoring Linen, 100 %');
  expect(strokeSentence({ does: 'level', strength: 0.4, level: 0.5, ring: false }, 'Linen')).toBe('Setting Linen to 50 % here, by 40 %');
});

it('says it when a change cannot be kept, and keeps it with the next one', async () => {
  const save = jest.spyOn(records, 'savePiece').mockRejectedValueOnce(new Error('The store is gone.'));
  state().addCoat(paper);
  await flush();
  expect(state().saved).toBe('failed');
  expect(state().trouble?.text).toBe('The store is gone.');
  save.mockRestore();
  state().addCoat(paper);
  await flush();
  expect(state().saved).toBe('saved');
  expect((await records.loadPiece('p1'))?.coats).toHaveLength(2);
});
