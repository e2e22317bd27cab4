import { create } from 'zustand';
import { duplicateCoat, groupCoats, outermost, removeCoats, setFlags } from '../core/piece/stacking';
import { everyCoat, findCoat, levelOf } from '../core/piece/groups';
import type { Coat } from '../core/piece/schema';
import { useBench } from './bench';
import { newId } from './newId';
import { words } from './words';

interface RailState {
  /** Ids of the coats that are chosen together; null while one is chosen at a time. */
  several: readonly string[] | null;
  /** Groups whose coats are shown on the rail. */
  open: readonly string[];
  begin(): void;
  end(): void;
  /** Takes a coat to those that are chosen, or from them. */
  toggle(id: string): void;
  fold(id: string): void;
}

/** What the rail shows besides the piece: which groups are unfolded, and which coats are chosen together. */
export const useRail = create<RailState>((set, get) => ({
  several: null,
  open: [],
  begin() {
    const { chosen, openFacet } = useBench.getState();
    openFacet(null);
    set({ several: chosen === null ? [] : [chosen] });
  },
  end: () => set({ several: null }),
  toggle(id) {
    const several = get().several ?? [];
    set({ several: several.includes(id) ? several.filter((one) => one !== id) : [...several, id] });
  },
  fold(id) {
    const { open } = get();
    set({ open: open.includes(id) ? open.filter((one) => one !== id) : [...open, id] });
  },
}));

/** The coats that are chosen together, as far as they are still there, bottom to top. */
export function severalCoats(): Coat[] {
  const several = useRail.getState().several ?? [];
  return everyCoat(useBench.getState().piece?.coats ?? []).filter(({ id }) => several.includes(id));
}

const ids = () => severalCoats().map(({ id }) => id);

/** Puts the coats that are chosen together in a group, and chooses that. */
export function groupSeveral(): void {
  const group = newId();
  const { change } = useBench.getState();
  change(words.groups.group, groupCoats(ids(), group));
  if (!findCoat(useBench.getState().piece ?? { coats: [] }, group)) return;
  useRail.getState().end();
  useBench.getState().choose(group);
}

export function duplicateSeveral(): void {
  const { piece, change } = useBench.getState();
  if (!piece) return;
  const own = outermost(piece, ids());
  change(words.groups.duplicate(own.length), (now) => own.reduce((p, id) => duplicateCoat(id, newId)(p), now));
}

export function removeSeveral(): void {
  const own = ids();
  const { change } = useBench.getState();
  change(words.groups.remove(own.length), removeCoats(own));
  const { piece, chosen, choose } = useBench.getState();
  if (!piece || (chosen !== null && !findCoat(piece, chosen))) choose(piece?.coats.at(-1)?.id ?? null);
  if (severalCoats().length === 0) useRail.getState().end();
}

export function showSeveral(visible: boolean): void {
  useBench.getState().change(visible ? words.groups.show(ids().length) : words.groups.hide(ids().length), setFlags(ids(), { visible }));
}

export function lockSeveral(locked: boolean): void {
  useBench.getState().change(locked ? words.groups.lock : words.groups.unlock, setFlags(ids(), { locked }));
}

/** Locks a coat, or unlocks it together with the groups that it lies in. */
export function setLocked(id: string, locked: boolean): void {
  const { piece, change } = useBench.getState();
  const around = (piece && levelOf(piece.coats, id)?.groups.map((group) => group.id)) ?? [];
  change(locked ? words.groups.lock : words.groups.unlock, setFlags(locked ? [id] : [id, ...around], { locked }));
}

// The coats of a group are seen as soon as one of them is chosen; another piece has its own.
useBench.subscribe((now, before) => {
  if (now.piece?.id !== before.piece?.id) return useRail.setState({ several: null, open: [] });
  if (now.chosen === before.chosen || !now.chosen) return;
  const groups = (now.piece && levelOf(now.piece.coats, now.chosen)?.groups.map(({ id }) => id)) ?? [];
  const { open } = useRail.getState();
  if (groups.some((id) => !open.includes(id))) useRail.setState({ open: [...new Set([...open, ...groups])] });
});
