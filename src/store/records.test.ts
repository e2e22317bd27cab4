import { pieceSchema, type Piece } from '../core/piece/schema';
import { newCoat } from '../core/piece/edits';
import { addCoat } from '../core/piece/stacking';
import { AsyncStorageError, createAsyncStorage, faults } from '@/testing/async-storage';
import { TestFileReader } from '@/testing/fileReader';
import { useBench } from './bench';
import { readText, StoreFull, writeTexts } from './database';
import { loadHistory } from './history';
import { newId } from './newId';
import { useNotices } from './notices';
import { savePicture } from './pictures';
import { usePieces } from './pieces';
import { KEPT_DELETED, listCards, listPieces, loadPiece, removePiece, savePiece, Unreadable } from './records';
import { flush, isUnsaved } from './saving';
import { openPiece } from './session';
import { changeOwn, listOwn } from './storage';

Object.assign(globalThis, { FileReader: TestFileReader });

const store = createAsyncStorage('dermatex');
const piece = (more: Partial<Piece> = {}): Piece =>
  pieceSchema.parse({
    dermatex: 1,
    id: newId(),
    name: 'One',
    created: 1,
    changed: 1,
    photo: { key: 'k', name: 'k', width: 10, height: 10 },
    ...more,
  });
const paper = { kind: 'material', id: 'paper.cold-press', seed: 1, params: {} };
const bench = () => useBench.getState();
const full = () => new AsyncStorageError('', 'WebStorageError');

beforeEach(async () => {
  faults.write = null;
  await flush();
  await store.removeMany(await store.getAllKeys());
  useNotices.setState({ list: [] });
});
afterAll(() => flush());

describe('the list of pieces', () => {
  it('has every piece, however many are saved or duplicated at once', async () => {
    const first = piece();
    await savePiece(first);
    await Promise.all([
      ...Array.from({ length: 20 }, () => savePiece(piece())),
      ...Array.from({ length: 10 }, () => usePieces.getState().duplicate(first.id)),
    ]);
    expect(await listCards()).toHaveLength(31);
  });

  it('finds a piece again whose card is missing or damaged, and one from the time of a single list', async () => {
    const [a, b, c] = [piece({ name: 'A' }), piece({ name: 'B' }), piece({ name: 'C', changed: 9 })];
    for (const one of [a, b, c]) await savePiece(one, { picture: 'data:,x' });
    await store.removeMany([`card:${a.id}`, `card:${c.id}`]);
    await store.setMany({ [`card:${b.id}`]: '{"id":', cards: JSON.stringify([{ id: c.id, name: 'C', changed: 9, picture: 'data:,old' }, 7]) });
    expect((await listCards()).map(({ name, picture }) => [name, picture])).toEqual([
      ['C', 'data:,old'],
      ['A', null],
      ['B', null],
    ]);
    expect(await readText('cards')).toBeNull();
    expect((await listCards()).map((card) => card.name)).toEqual(['C', 'A', 'B']);
  });

  it('does not free a picture while a piece that cannot be read might use it', async () => {
    await store.setMany({ 'picture:p': 'data:,1' });
    const [a, b] = [piece(), piece()];
    await savePiece(a);
    await savePiece(b);
    await store.setMany({ [`piece:${b.id}`]: '{"dermatex":1' });
    await removePiece(a.id);
    expect(await readText('picture:p')).not.toBeNull();
    await removePiece(b.id);
    expect(await readText('picture:p')).toBeNull();
  });
});

describe('a deleted piece', () => {
  it('is off the list, comes back to the byte, and is removed with its pictures after 30 days', async () => {
    await store.setMany({ 'picture:p': 'data' });
    const a = piece({ photo: { key: 'p', name: 'p', width: 10, height: 10 } });
    await savePiece(a, { picture: 'data:image/jpeg;base64,AA' });
    const before = [await readText(`piece:${a.id}`), await readText(`card:${a.id}`)];
    await usePieces.getState().remove(a.id);
    expect(await listCards()).toEqual([]);
    expect((await listPieces()).deleted.map(({ id }) => id)).toEqual([a.id]);
    expect(await readText('picture:p')).toBe('data');
    await usePieces.getState().bringBack(a.id);
    expect([await readText(`piece:${a.id}`), await readText(`card:${a.id}`)]).toEqual(before);
    await usePieces.getState().remove(a.id);
    expect((await listPieces(Date.now() + KEPT_DELETED - 60_000)).deleted).toHaveLength(1);
    expect((await listPieces(Date.now() + KEPT_DELETED + 60_000)).deleted).toHaveLength(0);
    expect([await readText(`piece:${a.id}`), await readText('picture:p')]).toEqual([null, null]);
  });
});

describe('a record that cannot be opened', () => {
  it.each([
    ['damaged JSON', '{"dermatex":1,"id":', /damaged.*no JSON/],
    ['another shape', '{"dermatex":1,"id":"x"}', /damaged/],
    ['a newer version', '{"dermatex":2,"id":"x","name":"Later"}', /made by a newer version of Dermatex/],
  ])('%s is said and left as it is', async (_what, text, says) => {
    await store.setMany({ 'piece:x': text });
    await expect(loadPiece('x')).rejects.toThrow(Unreadable);
    await expect(loadPiece('x')).rejects.toThrow(says);
    expect(await listCards()).toHaveLength(1);
    expect(await readText('piece:x')).toBe(text);
  });

  it('of the shelf is set aside, and everything else opens', async () => {
    await store.setMany({ own: '[{"key":7}]' });
    expect(await listOwn()).toEqual([]);
    expect(await readText('damaged:own')).toBe('[{"key":7}]');
    await changeOwn((list) => [...list, { key: 'a', name: 'a.png', width: 1, height: 1, added: 1 }]);
    expect(await listOwn()).toHaveLength(1);
  });
});

describe('saving', () => {
  it('keeps both when the stored piece is not the one it is based on', async () => {
    const one = piece();
    await savePiece(one);
    expect((await savePiece({ ...one, strength: 0.5, changed: 2 }, { base: 1 })).id).toBe(one.id);
    const copy = await savePiece({ ...one, strength: 0.2, changed: 3 }, { base: 1 });
    expect(copy).toMatchObject({ name: 'One, from another tab', strength: 0.2 });
    expect(copy.id).not.toBe(one.id);
    expect((await loadPiece(one.id))?.strength).toBe(0.5);
    expect(await listCards()).toHaveLength(2);
  });

  it('goes on with the copy on the bench, says so, and keeps saving it', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    await savePiece({ ...one, strength: 0.5, changed: 7 }, { base: 1 });
    bench().addCoat(paper);
    await flush();
    expect(bench().piece?.name).toBe('One, from another tab');
    expect(useNotices.getState().list[0].text).toMatch(/changed in another tab as well. Both are kept/);
    bench().addCoat(paper);
    await flush();
    expect(isUnsaved()).toBe(false);
    expect((await loadPiece(bench().piece?.id ?? ''))?.coats).toHaveLength(2);
    expect((await loadPiece(one.id))?.coats).toHaveLength(0);
  });

  it('writes a piece whose store was cleared again, with its photo', async () => {
    const one = piece();
    await savePicture('k', new Blob(['photo']));
    await savePiece(one);
    await openPiece(one.id);
    await store.removeMany(await store.getAllKeys());
    bench().addCoat(paper);
    await flush();
    expect((await loadPiece(one.id))?.coats).toHaveLength(1);
    expect(await readText('picture:k')).toMatch(/^data:/);
    expect(await listCards()).toHaveLength(1);
  });

  it('tries again on a new connection when the browser has closed the old one', async () => {
    let failures = 1;
    faults.write = () => (failures-- > 0 ? new AsyncStorageError('The database connection is closing.', 'WebStorageError') : null);
    await writeTexts({ a: '1' });
    expect(await readText('a')).toBe('1');
  });

  it('says how much a full store lacks, keeps the work, and saves it once there is room', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    faults.write = full;
    await expect(writeTexts({ b: 'x'.repeat(3 * 2 ** 20) })).rejects.toThrow(StoreFull);
    bench().addCoat(paper);
    await flush();
    expect(bench()).toMatchObject({ saved: 'failed', trouble: { isFull: true } });
    expect(bench().trouble?.text).toMatch(/^Not saved: it needs \d kB, and this browser offers no more; delete pieces/);
    expect(isUnsaved()).toBe(true);
    faults.write = null;
    const other = piece();
    await savePiece(other);
    // Deleting another piece is reason enough to try.
    await usePieces.getState().removeForGood(other.id);
    await flush();
    expect(bench()).toMatchObject({ saved: 'saved', trouble: null });
    expect((await loadPiece(one.id))?.coats).toHaveLength(1);
  });
});

describe('history', () => {
  it('of the last 50 steps survives a reload; one that belongs to another state is left out', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    for (let i = 0; i < 60; i++) bench().change(`Strength ${i}`, (p) => ({ ...p, strength: (i + 1) / 100 }));
    bench().change('Lay', addCoat(newCoat('c', paper), null));
    await flush();
    const saved = bench().piece as Piece;
    useBench.setState({ piece: null, past: [] });
    await openPiece(one.id);
    expect(bench().past).toHaveLength(50);
    expect(bench().undo()).toBe('Lay');
    expect(bench().piece?.coats).toEqual([]);
    expect(bench().undo()).toBe('Strength 59');
    expect(bench().piece?.strength).toBe(0.59);
    for (let i = 0; i < 48; i++) bench().undo();
    expect(bench().piece?.strength).toBe(0.11);
    expect(bench().undo()).toBeNull();
    expect(await loadHistory({ ...saved, changed: 5 })).toEqual([]);
  });

  it('says it when a kept step is damaged, and leaves the piece as it is', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    bench().change('Strength', (p) => ({ ...p, strength: 0.5 }));
    await flush();
    const text = (await readText(`history:${one.id}`)) as string;
    await store.setMany({ [`history:${one.id}`]: text.replace('"path":"/strength"', '"path":"/nowhere/else"') });
    useBench.setState({ piece: null, past: [] });
    await openPiece(one.id);
    expect(bench().past).toHaveLength(1);
    expect(bench().undo()).toBeNull();
    expect(bench().piece?.strength).toBe(0.5);
    expect(useNotices.getState().list.at(-1)?.text).toMatch(/^The steps from before the last reload are damaged/);
  });

  it('of a reloaded piece is written again without working the kept steps out', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    for (const strength of [0.2, 0.4, 0.6]) bench().change(`To ${strength}`, (p) => ({ ...p, strength }));
    await flush();
    const before = JSON.parse((await readText(`history:${one.id}`)) as string) as { steps: { name: string }[] };
    useBench.setState({ piece: null, past: [] });
    await openPiece(one.id);
    bench().change('To 0.8', (p) => ({ ...p, strength: 0.8 }));
    await flush();
    const after = JSON.parse((await readText(`history:${one.id}`)) as string) as { steps: { name: string }[] };
    expect(after.steps.map((step) => step.name)).toEqual(['To 0.8', 'To 0.6', 'To 0.4', 'To 0.2']);
    expect(after.steps.slice(1)).toEqual(before.steps);
    for (const strength of [0.6, 0.4, 0.2, 1]) {
      bench().undo();
      expect(bench().piece?.strength).toBe(strength);
    }
  });

  it('says once that the oldest step is forgotten', async () => {
    const one = piece();
    await savePiece(one);
    await openPiece(one.id);
    for (let i = 0; i < 205; i++) bench().change('Strength', (p) => ({ ...p, strength: (i % 100) / 100 }));
    expect(bench().past).toHaveLength(200);
    expect(useNotices.getState().list.filter((n) => /last 200 steps can be undone/.test(n.text))).toHaveLength(1);
  });
});
