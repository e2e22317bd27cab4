import { create } from 'zustand';
import * as edits from '../core/piece/edits';
import { sourceName } from '../core/piece/naming';
import type { Coat, Piece } from '../core/piece/schema';
import type { View } from '../core/render/view';
import { complain } from './notices';
import { newId } from './pieces';
import { useShelf } from './shelf';
import * as storage from './storage';

/** Facets of the photo itself, in the order of the work. */
export const photoFacetIds = ['frame', 'lens', 'spots', 'balance', 'light', 'colour', 'detail', 'starts'] as const;
export type ReadyFacetId = (typeof photoFacetIds)[number];
export type FacetId = 'add' | 'material' | 'lay' | 'tone' | 'where' | 'blend' | 'more' | 'contact' | 'guards' | ReadyFacetId;
const READY: readonly (FacetId | null)[] = photoFacetIds;

/** The facet that stays open when another card is chosen; those of the photo and those of a coat do not suit each other. */
const suited = (facet: FacetId | null, chosen: string | null): FacetId | null =>
  facet === 'add' || facet === 'more' || facet === 'guards' || READY.includes(facet) === (chosen === null) ? facet : null;

interface Step {
  name: string;
  piece: Piece;
}

interface BenchState {
  piece: Piece | null;
  /** The picture stored with the card, shown until the engine has drawn. */
  card: string | null;
  /** The piece while a change is not kept yet: a slider is held, a stroke is under way, or a mode is tried. */
  draft: Piece | null;
  chosen: string | null;
  facet: FacetId | null;
  /** A comparison held for the moment. */
  held: View | null;
  maskView: 'none' | 'over' | 'alone';
  past: Step[];
  future: Step[];
  saved: 'saved' | 'waiting' | 'failed';
  open(id: string): Promise<boolean>;
  choose(id: string | null): void;
  openFacet(facet: FacetId | null): void;
  hold(view: View | null): void;
  showMask(view: BenchState['maskView']): void;
  /** Shows a change without keeping it; null goes back. */
  preview(edit: edits.Edit | null): void;
  /** Keeps a change as one named step. Steps of one `run` in a row become one. */
  change(name: string, edit: edits.Edit, run?: string): void;
  undo(): string | null;
  redo(): string | null;
  addCoat(source: edits.SourceInput): void;
  duplicate(id: string): void;
  remove(id: string): void;
  move(id: string, to: number): void;
}

const LONGEST_HISTORY = 200;
let lastRun: string | undefined;

export const useBench = create<BenchState>((set, get) => ({
  piece: null,
  card: null,
  draft: null,
  chosen: null,
  facet: null,
  held: null,
  maskView: 'none',
  past: [],
  future: [],
  saved: 'saved',
  async open(id) {
    await flush();
    const [piece, cards] = await Promise.all([storage.loadPiece(id), storage.listCards()]);
    const card = cards.find((c) => c.id === id)?.picture ?? null;
    lastRun = undefined;
    const top = piece?.coats[piece.coats.length - 1]?.id ?? null;
    set({ piece, card, draft: null, chosen: top, facet: null, held: null, maskView: 'none', past: [], future: [], saved: 'saved' });
    return piece !== null;
  },
  choose: (chosen) => set({ chosen, maskView: 'none', facet: suited(get().facet, chosen) }),
  openFacet: (facet) => set({ facet, maskView: 'none' }),
  hold: (held) => set({ held }),
  showMask: (maskView) => set({ maskView }),
  preview(edit) {
    const { piece } = get();
    if (piece) set({ draft: edit ? edit(piece) : null });
  },
  change(name, edit, run) {
    const { piece, past } = get();
    if (!piece) return;
    const next = edit(piece);
    if (next === piece) return set({ draft: null });
    const joins = run !== undefined && run === lastRun;
    lastRun = run;
    const steps = joins ? past : [...past, { name, piece }].slice(-LONGEST_HISTORY);
    set({ piece: { ...next, changed: Date.now() }, draft: null, past: steps, future: [] });
  },
  undo() {
    const { past, future, piece } = get();
    const step = past[past.length - 1];
    if (!step || !piece) return null;
    lastRun = undefined;
    set({ ...settle(step.piece, get().chosen), past: past.slice(0, -1), future: [{ name: step.name, piece }, ...future] });
    return step.name;
  },
  redo() {
    const { past, future, piece } = get();
    const [step] = future;
    if (!step || !piece) return null;
    lastRun = undefined;
    set({ ...settle(step.piece, get().chosen), past: [...past, { name: step.name, piece }], future: future.slice(1) });
    return step.name;
  },
  addCoat(source) {
    const coat = edits.newCoat(newId(), source);
    useShelf.getState().laid(source);
    get().change(`Lay ${sourceName(source)}`, edits.addCoat(coat, get().chosen));
    set({ chosen: coat.id, facet: suited(get().facet, coat.id) });
  },
  duplicate(id) {
    const copy = newId();
    get().change('Duplicate the coat', edits.duplicateCoat(id, copy));
    set({ chosen: copy });
  },
  remove(id) {
    const { piece, chosen } = get();
    if (!piece) return;
    const at = edits.indexOf(piece, id);
    get().change('Remove the coat', edits.removeCoat(id));
    if (chosen === id) set({ chosen: piece.coats[at - 1]?.id ?? piece.coats[at + 1]?.id ?? null });
  },
  move: (id, to) => get().change('Move the coat', edits.moveCoat(id, to)),
}));

function settle(piece: Piece, chosen: string | null) {
  const there = chosen === null || piece.coats.some((c) => c.id === chosen);
  return { piece: { ...piece, changed: Date.now() }, draft: null, chosen: there ? chosen : (piece.coats[piece.coats.length - 1]?.id ?? null) };
}

export const shownPiece = (s: BenchState): Piece | null => s.draft ?? s.piece;
export const chosenCoat = (s: BenchState): Coat | null => shownPiece(s)?.coats.find((c) => c.id === s.chosen) ?? null;

// Saving: soon after the last change, and at most 1.5 s after the first that is not saved.
let timer: ReturnType<typeof setTimeout> | undefined;
let since = 0;
let writing: Promise<void> = Promise.resolve();
let thumbnail: (() => Promise<string | null>) | null = null;

/** The bench says how to make the card's picture. */
export const provideThumbnail = (make: typeof thumbnail): void => void (thumbnail = make);

useBench.subscribe((now, before) => {
  if (now.piece === before.piece || !now.piece || now.piece.id !== before.piece?.id) return;
  if (!timer) since = Date.now();
  clearTimeout(timer);
  timer = setTimeout(() => void flush(), Math.max(0, Math.min(500, 1500 - (Date.now() - since))));
  useBench.setState({ saved: 'waiting' });
});

/** Writes what is not saved. Writes follow one another, so that an older state never lands on a newer one. */
export function flush(withPicture = true): Promise<void> {
  if (!timer) return writing;
  clearTimeout(timer);
  timer = undefined;
  const { piece } = useBench.getState();
  if (!piece) return writing;
  writing = writing
    .then(() => storage.savePiece(piece, null))
    .then(() => {
      if (!timer) useBench.setState({ saved: 'saved' });
    })
    .then(async () => {
      const picture = withPicture && !timer ? await thumbnail?.().catch(() => null) : null;
      if (picture && useBench.getState().piece?.id === piece.id) await storage.savePiece(piece, picture);
    })
    .catch((error: Error) => {
      useBench.setState({ saved: 'failed' });
      complain(error);
    });
  return writing;
}

if (typeof document !== 'undefined') {
  const now = () => void flush(false);
  document.addEventListener('visibilitychange', () => document.visibilityState === 'hidden' && now());
  window.addEventListener('pagehide', now);
}
