import { pieceSchema, type Piece } from '../core/piece/schema';
import { createAsyncStorage, faults, AsyncStorageError } from '@/testing/async-storage';
import { useBench } from './bench';
import { StoreFull } from './database';
import { loadHistory } from './history';
import { leave, takeUp } from './leaving';
import { listCards, loadPiece, removePiece, savePiece } from './records';
import { flush } from './saving';
import { openPiece } from './session';

/** What the browser writes at once, up to as many characters. */
class TestStorage {
  held = new Map<string, string>();
  most = Infinity;
  get length() {
    return this.held.size;
  }
  key = (i: number) => [...this.held.keys()][i] ?? null;
  getItem = (key: string) => this.held.get(key) ?? null;
  removeItem = (key: string) => void this.held.delete(key);
  setItem(key: string, text: string) {
    if (text.length > this.most) throw new DOMException('', 'QuotaExceededError');
    this.held.set(key, text);
  }
}

const piece = (more: Partial<Piece> = {}): Piece =>
  pieceSchema.parse({ dermatex: 1, id: 'one', name: 'One', created: 1, changed: 1, photo: { key: 'k', name: 'k', width: 10, height: 10 }, ...more });
const store = createAsyncStorage('dermatex');
let left: TestStorage;

beforeEach(async () => {
  faults.write = null;
  await store.removeMany(await store.getAllKeys());
  left = new TestStorage();
  Object.assign(globalThis, { localStorage: left });
});
afterEach(() => delete (globalThis as { localStorage?: unknown }).localStorage);

describe('a page that goes before its last change is stored', () => {
  it('leaves it, with its steps of undo, for the next opening', async () => {
    await savePiece(piece());
    leave(piece({ name: 'Two', changed: 2 }), [1], { 'history:one': '{"of":2,"steps":[{"name":"Rename","back":[]}]}' });
    expect((await loadPiece('one'))?.name).toBe('One');
    await takeUp();
    const now = (await loadPiece('one')) as Piece;
    expect(now.name).toBe('Two');
    expect((await loadHistory(now)).map(({ name }) => name)).toEqual(['Rename']);
    expect(left.length).toBe(0);
  });

  it('goes on from a state that was being written when it went', async () => {
    await savePiece(piece());
    await savePiece(piece({ name: 'Two', changed: 2 }), { base: 1 });
    leave(piece({ name: 'Three', changed: 3 }), [1, 2], {});
    await takeUp();
    expect((await listCards()).map(({ name }) => name)).toEqual(['Three']);
  });

  it('is stored as a copy where another tab has changed the piece meanwhile, and not at all where that tab removed it', async () => {
    await savePiece(piece());
    await savePiece(piece({ name: 'By another', changed: 5 }), { base: 1 });
    leave(piece({ name: 'Left', changed: 2 }), [1], {});
    await takeUp();
    const names = (await listCards()).map(({ name }) => name);
    expect(names).toHaveLength(2);
    expect(names).toContain('By another');
    leave(piece({ name: 'Left', changed: 9 }), [5], {});
    await removePiece('one');
    await takeUp();
    expect(await loadPiece('one')).toBeNull();
  });

  it('leaves the piece without its steps where both do not fit, and nothing where even that does not', async () => {
    await savePiece(piece());
    const two = piece({ name: 'Two', changed: 2 });
    left.most = JSON.stringify(two).length + 100;
    leave(two, [1], { 'history:one': 'x'.repeat(1000) });
    expect(left.length).toBe(1);
    left.removeItem(left.key(0) as string);
    left.most = 10;
    leave(two, [1], {});
    expect(left.length).toBe(0);
  });

  it('stays for the next time when the store is full, and a damaged one is dropped', async () => {
    await savePiece(piece());
    leave(piece({ name: 'Two', changed: 2 }), [1], {});
    faults.write = () => new AsyncStorageError('', 'WebStorageError');
    await expect(takeUp()).rejects.toThrow(StoreFull);
    expect(left.length).toBe(1);
    faults.write = null;
    await takeUp();
    expect((await loadPiece('one'))?.name).toBe('Two');
    left.setItem('dermatex.left:one', '{"piece":');
    await takeUp();
    expect(left.length).toBe(0);
  });

  it('is forgotten once the bench has stored the piece', async () => {
    await savePiece(piece());
    await openPiece('one');
    useBench.setState({ piece: piece({ name: 'Two', changed: 2 }) });
    leave(piece({ name: 'Two', changed: 2 }), [1], {});
    await flush(false);
    expect((await loadPiece('one'))?.name).toBe('Two');
    expect(left.length).toBe(0);
  });
});
