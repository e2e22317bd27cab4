import { coatSchema, pieceSchema, type Piece } from '../core/piece/schema';
import { createAsyncStorage } from '@/testing/async-storage';
import { putOnBench, useBench } from './bench';
import { readText, writeTexts } from './database';
import { goBackTo, nextName, useProofs } from './proofs';
import { removePiece, savePiece } from './records';
import { flush } from './saving';

const store = createAsyncStorage('dermatex');
const proofs = () => useProofs.getState();
const make = (id: string, file?: string): Piece =>
  pieceSchema.parse({
    dermatex: 1,
    id,
    name: `Piece ${id}`,
    created: 1,
    changed: 1,
    photo: { key: `photo-${id}`, name: 'k', width: 10, height: 10 },
    coats: file ? [coatSchema.parse({ id: 'a', source: { kind: 'picture', file, width: 4, height: 4 } })] : [],
  });
const open = (piece: Piece) => putOnBench(piece, { card: null, past: [], follows: false });

beforeEach(async () => {
  await flush();
  await store.removeMany(await store.getAllKeys());
  useProofs.setState({ list: [] });
});
afterAll(() => flush());

it('keeps states of a piece by name, the last first, and finds them again; those of another piece are not among them', async () => {
  await proofs().keep(make('p'), 'With paper', 'data:,1');
  await proofs().keep(make('p'), '  ', null);
  await proofs().keep(make('q'), 'Other', null);
  expect(nextName()).toBe('Proof 2');
  await proofs().refresh('p');
  expect(proofs().list.map(({ name, picture }) => [name, picture])).toEqual(
    expect.arrayContaining([
      ['With paper', 'data:,1'],
      ['Proof 1', null],
    ]),
  );
  expect(proofs().list).toHaveLength(2);
});

it('a proof whose record is damaged is not listed, and stays where it is', async () => {
  await proofs().keep(make('p'), 'Good', null);
  await writeTexts({ 'proof:p:bad': '{"id":' });
  await proofs().refresh('p');
  expect(proofs().list.map(({ name }) => name)).toEqual(['Good']);
  expect(await readText('proof:p:bad')).toBe('{"id":');
});

it('going back to one is one step of undo, and leaves the piece its own name', async () => {
  const now = make('p');
  const proof = await proofs().keep(make('p', 'x'), 'With paper', null);
  open({ ...now, name: 'Renamed since', ready: undefined });
  goBackTo(proof);
  const { piece, past, undo } = useBench.getState();
  expect(piece?.coats.map(({ id }) => id)).toEqual(['a']);
  expect(piece?.name).toBe('Renamed since');
  expect(past.map(({ name }) => name)).toEqual(['Go back to With paper']);
  undo();
  expect(useBench.getState().piece?.coats).toEqual([]);
});

it('pictures that only a proof uses are kept as long as the proof is; both go with the piece', async () => {
  const text = 'data:image/png;base64,AAAA';
  await writeTexts({ 'picture:photo-p': text, 'picture:cloud': text, 'picture:photo-q': text });
  for (const piece of [make('p'), make('q')]) await savePiece(piece);
  await proofs().keep(make('p', 'cloud'), 'With clouds', null);
  await removePiece('q');
  expect(await readText('picture:photo-q')).toBeNull();
  expect(await readText('picture:cloud')).toBe(text);
  await removePiece('p');
  expect((await store.getAllKeys()).filter((key) => /^(proof|picture):/.test(key))).toEqual([]);
});

it('one that is removed comes back', async () => {
  const proof = await proofs().keep(make('p'), 'One', null);
  await proofs().remove(proof);
  expect(proofs().list).toEqual([]);
  await proofs().bringBack(proof);
  await proofs().refresh('p');
  expect(proofs().list).toEqual([proof]);
});
