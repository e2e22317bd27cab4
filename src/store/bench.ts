import { create } from 'zustand';
import * as edits from '../core/piece/edits';
import { depthOf, findCoat, levelOf } from '../core/piece/groups';
import * as stacking from '../core/piece/stacking';
import { sourceName } from '../core/piece/naming';
import { DEEPEST, type Coat, type Piece } from '../core/piece/schema';
import type { View } from '../core/render/view';
import type { Step } from './history';
import { breaksLock } from './locked';
import { newId } from './newId';
import { say } from './notices';
import { useShelf } from './shelf';
import { words } from './words';

/** Facets of the photo itself, in the order of the work. */
export const photoFacetIds = ['frame', 'spots', 'light', 'colour', 'detail', 'starts'] as const;
export type ReadyFacetId = (typeof photoFacetIds)[number];
export type FacetId = 'add' | 'material' | 'lay' | 'tone' | 'surface' | 'where' | 'blend' | 'more' | 'contact' | 'guards' | 'finish' | ReadyFacetId;
const READY: readonly (FacetId | null)[] = photoFacetIds;

/** Facets of the whole piece. */
const ANY: readonly (FacetId | null)[] = ['add', 'more', 'guards', 'finish'];

/** The facet that stays open when another card is chosen; those of the photo and those of a coat do not suit each other. */
const suited = (facet: FacetId | null, chosen: string | null): FacetId | null =>
  ANY.includes(facet) || READY.includes(facet) === (chosen === null) ? facet : null;

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
  /** Why the piece could not be saved, and whether the store is full; null once it is saved. */
  trouble: { text: string; isFull: boolean } | null;
  /** True while another tab works on the piece; this one then only shows it. */
  follows: boolean;
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
  /** Adds a coat above the chosen one and chooses it; `look` where it is not to begin with the source's own. */
  addCoat(source: edits.SourceInput, look?: edits.FirstLook): void;
  duplicate(id: string): void;
  remove(id: string): void;
  move(id: string, to: number): void;
}

/** Most steps of undo. */
export const LONGEST_HISTORY = 200;
let lastRun: string | undefined;
let saidLongest = false;

const ELSEWHERE = words.bench.thisPieceIsOpenIn;

/** The time of a change: later than that of the state before, since records are told apart by it. */
const stamp = ({ changed }: Piece): number => Math.max(Date.now(), changed + 1);

/** Why a change cannot be kept; null when it can. */
function refusal(before: Piece, after: Piece): string | null {
  if (breaksLock(before, after)) return words.bench.locked;
  return depthOf(after.coats) > DEEPEST + 1 ? words.groups.tooDeep : null;
}

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
  trouble: null,
  follows: false,
  choose: (chosen) => set({ chosen, maskView: 'none', facet: suited(get().facet, chosen) }),
  openFacet: (facet) => set({ facet, maskView: 'none' }),
  hold: (held) => set({ held }),
  showMask: (maskView) => set({ maskView }),
  preview(edit) {
    const { piece, follows } = get();
    if (!piece || follows) return;
    const draft = edit ? edit(piece) : null;
    set({ draft: draft && refusal(piece, draft) ? null : draft });
  },
  change(name, edit, run) {
    const { piece, past, follows } = get();
    if (!piece) return;
    if (follows) return say(ELSEWHERE);
    const next = edit(piece);
    if (next === piece) return set({ draft: null });
    const refused = refusal(piece, next);
    if (refused) {
      set({ draft: null });
      return say(refused);
    }
    const joins = run !== undefined && run === lastRun;
    lastRun = run;
    const steps = joins ? past : [...past, { name, piece }];
    if (steps.length === LONGEST_HISTORY + 1 && past.length === LONGEST_HISTORY && !saidLongest) {
      saidLongest = true;
      say(words.bench.onlyTheLastSteps(LONGEST_HISTORY));
    }
    set({ piece: { ...next, changed: stamp(piece) }, draft: null, past: steps.slice(-LONGEST_HISTORY), future: [] });
  },
  undo() {
    const { past, future, piece } = get();
    const step = past[past.length - 1];
    if (!step || !piece || get().follows) return null;
    lastRun = undefined;
    const before = pieceBefore(step);
    if (!before) {
      set({ past: [] });
      say(words.bench.theStepsFromBeforeThe);
      return null;
    }
    set({ ...settle(before, get().chosen), past: past.slice(0, -1), future: [{ name: step.name, piece }, ...future] });
    return step.name;
  },
  redo() {
    const { past, future, piece } = get();
    const [step] = future;
    if (!step || !piece || get().follows) return null;
    lastRun = undefined;
    set({ ...settle(step.piece, get().chosen), past: [...past, { name: step.name, piece }], future: future.slice(1) });
    return step.name;
  },
  addCoat(source, look) {
    const coat = edits.newCoat(newId(), source, look);
    useShelf.getState().laid(source);
    get().change(words.bench.add(look?.name ?? sourceName(source)), stacking.addCoat(coat, get().chosen));
    if (!findCoat(get().piece ?? { coats: [] }, coat.id)) return;
    set({ chosen: coat.id, facet: suited(get().facet, coat.id) });
  },
  duplicate(id) {
    const { piece } = get();
    get().change(words.bench.duplicateTheCoat, stacking.duplicateCoat(id, newId));
    const now = get().piece;
    const level = now && now !== piece ? levelOf(now.coats, id) : null;
    // The copy is directly above.
    if (level) set({ chosen: level.coats[level.at + 1].id });
  },
  remove(id) {
    const { piece, chosen } = get();
    if (!piece) return;
    const level = levelOf(piece.coats, id);
    get().change(words.bench.removeTheCoat, stacking.removeCoat(id));
    if (!level || findCoat(get().piece ?? piece, id)) return;
    const { coats, at, groups } = level;
    if (chosen === id) set({ chosen: (coats[at - 1] ?? coats[at + 1] ?? groups.at(-1))?.id ?? null });
  },
  move: (id, to) => get().change(words.bench.moveTheCoat, stacking.moveCoat(id, to)),
}));

/** Shows a piece that has just been opened. `past` holds the steps of undo that came with it. */
export function putOnBench(piece: Piece | null, { card, past, follows }: { card: string | null; past: Step[]; follows: boolean }): void {
  lastRun = undefined;
  const chosen = piece?.coats[piece.coats.length - 1]?.id ?? null;
  useBench.setState({
    piece,
    card,
    draft: null,
    chosen,
    facet: null,
    held: null,
    maskView: 'none',
    past,
    future: [],
    saved: 'saved',
    trouble: null,
    follows,
  });
}

/** Shows the piece on the bench as another tab has saved it. */
export function followTo(piece: Piece, past: Step[]): void {
  const { chosen } = useBench.getState();
  useBench.setState({ ...settle(piece, chosen), piece, past, future: [], saved: 'saved' });
}

/** The piece before a step; null for a kept step whose record is damaged. */
function pieceBefore(step: Step): Piece | null {
  try {
    return step.piece;
  } catch {
    return null;
  }
}

function settle(piece: Piece, chosen: string | null) {
  const there = chosen === null || findCoat(piece, chosen) !== null;
  return { piece: { ...piece, changed: stamp(piece) }, draft: null, chosen: there ? chosen : (piece.coats[piece.coats.length - 1]?.id ?? null) };
}

export const shownPiece = (s: BenchState): Piece | null => s.draft ?? s.piece;
export const chosenCoat = (s: BenchState): Coat | null => findCoat(shownPiece(s) ?? { coats: [] }, s.chosen);
