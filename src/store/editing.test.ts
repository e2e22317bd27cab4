import { changeCoat, newCoat } from '../core/piece/edits';
import { addCoat } from '../core/piece/stacking';
import { testPiece } from '@/testing/piece';
import { shownPiece, useBench } from './bench';
import { controlEdit, HeldEdit, panelEdit, stepOf, setVisible } from './editing';
import * as records from './records';
import { flush } from './saving';
import { openPiece } from './session';

const state = () => useBench.getState();
const strength = () => ({ shown: shownPiece(state())?.coats[0].strength, kept: state().piece?.coats[0].strength });
const to = (v: unknown) => changeCoat('a', () => ({ strength: v as number }));
const empty = testPiece();

beforeEach(async () => {
  await flush();
  const source = { kind: 'material', id: 'paper.cold-press', seed: 1, params: {} };
  await records.savePiece(addCoat(newCoat('a', source, { blend: 'multiply', strength: 0.5 }), null)(empty));
  await openPiece('p1');
});

describe('a panel’s handlers', () => {
  const { onPreview, onCommit } = panelEdit((_key, v) => to(v), stepOf('Blend'), 'a.blend');
  it('show while a control is held and keep one named step when it is released', () => {
    onPreview('strength', 0.7);
    expect(strength()).toEqual({ shown: 0.7, kept: 0.5 });
    onCommit('strength', 0.8, 'Strength');
    expect(strength()).toEqual({ shown: 0.8, kept: 0.8 });
    expect(state().undo()).toBe('Blend: strength');
    expect(strength().kept).toBe(0.5);
  });
  it('make one step of the same control in a row, and another of another control', () => {
    for (const v of [0.6, 0.7, 0.8]) onCommit('strength', v, 'Strength');
    onCommit('other', 0.9, 'Other');
    expect(state().undo()).toBe('Blend: other');
    expect(strength().kept).toBe(0.8);
    state().undo();
    expect(strength().kept).toBe(0.5);
  });
  it('may show something else than what is kept', () => {
    const seen = panelEdit(
      (_key, v) => to(v),
      stepOf('Place'),
      'a.place',
      () => to(0.1),
    );
    seen.onPreview('strength', 0.7);
    expect(strength().shown).toBe(0.1);
    seen.onCommit('strength', 0.7, 'Strength');
    expect(strength()).toEqual({ shown: 0.7, kept: 0.7 });
  });
});

it('a single control does the same', () => {
  const { onPreview, onCommit } = controlEdit<number>(to, 'Strength', 'a.strength');
  onPreview(0.2);
  expect(strength()).toEqual({ shown: 0.2, kept: 0.5 });
  onCommit(0.3);
  expect(state().undo()).toBe('Strength');
});

describe('an edit that a pointer holds', () => {
  it('keeps the change that was last shown', () => {
    const held = new HeldEdit();
    held.show(to(0.2));
    held.show(to(0.3), to(0.4));
    expect(strength()).toEqual({ shown: 0.3, kept: 0.5 });
    held.keep('Move');
    expect(strength()).toEqual({ shown: 0.4, kept: 0.4 });
    // A second lift keeps nothing more.
    held.keep('Move');
    state().undo();
    expect(strength().kept).toBe(0.5);
  });
  it('changes nothing when it is dropped, or when nothing has moved', () => {
    const held = new HeldEdit();
    held.show(to(0.2));
    held.drop();
    held.keep('Move');
    expect(strength()).toEqual({ shown: 0.5, kept: 0.5 });
    expect(state().undo()).toBeNull();
  });
});

it('a coat is hidden and shown again, each as one named step', () => {
  const isVisible = () => state().piece?.coats[0].visible;
  setVisible('a', false);
  expect(isVisible()).toBe(false);
  setVisible('a', true);
  expect(isVisible()).toBe(true);
  expect([state().undo(), state().undo()]).toEqual(['Show the coat', 'Hide the coat']);
  expect(isVisible()).toBe(true);
});
