import { useEffect } from 'react';
import { tinykeys } from 'tinykeys';
import { changeCoat } from '@/core/piece/edits';
import { everyCoat } from '@/core/piece/groups';
import type { View } from '@/core/render/view';
import { useBench } from '@/store/bench';
import { useGuards } from '@/store/guards';
import { disarm } from '@/store/arming';
import { brushInHand, isMarking } from '@/store/brush';
import { isNudging } from '@/store/nudging';
import { useKeysList } from '@/store/keysList';
import { say } from '@/store/notices';
import { useViewport } from './viewport';
import { words } from '../words';

/** What the list under ? shows. */
export const benchKeys: [string, string][] = [
  ['[ and ]', words.benchKeys.brushSmallerLarger],
  ['0 to 9', words.benchKeys.strengthOfTheBrushOr],
  ['X', words.benchKeys.restoreOrErase],
  ['Space', words.benchKeys.holdAndDragToMove],
  ['Shift', words.benchKeys.aStraightStrokeFromThe],
  [words.benchKeys.ctrlOrZ, words.benchKeys.undoWithShiftRedo],
  [words.benchKeys.fA, words.benchKeys.fitHelp],
  ['+ and −', words.benchKeys.zoom],
  ['Arrows', words.benchKeys.arrowsHelp],
  [words.benchKeys.pWL, words.benchKeys.holdThePhotoWithoutThis],
  ['M', words.benchKeys.showTheMaskInColour],
  ['G', words.benchKeys.showTheGuardsInColour],
  [words.benchKeys.pageUpPageDown, words.benchKeys.chooseTheNextCoatUp],
  [words.benchKeys.altWithArrows, words.benchKeys.onACardMoveThe],
  [words.benchKeys.shiftOrCtrlClick, words.benchKeys.chooseSeveral],
  ['Delete', words.benchKeys.removeTheChosenCoat],
  [words.benchKeys.esc, words.benchKeys.stopPainting],
  ['?', words.benchKeys.thisList],
];

const typing = (e: Event) => {
  const t = e.target as HTMLElement | null;
  const isText = t?.tagName === 'INPUT' && !['range', 'checkbox', 'radio', 'button'].includes((t as HTMLInputElement).type);
  return t !== null && (t.isContentEditable || t.tagName === 'TEXTAREA' || isText);
};

export function useBenchKeys(): void {
  useEffect(() => {
    const bench = () => useBench.getState();
    const on = (run: (e: KeyboardEvent) => void) => (e: KeyboardEvent) => {
      if (typing(e)) return;
      e.preventDefault();
      run(e);
    };
    const resize = (k: number) =>
      brushInHand()
        .getState()
        .set({ size: Math.round(Math.min(1000, Math.max(4, brushInHand().getState().size * k))) });
    const strength = (digit: number) => {
      const value = digit === 0 ? 1 : digit / 10;
      const { facet, chosen, change } = bench();
      if (facet === 'where' || isMarking(bench()) || isNudging(bench())) brushInHand().getState().set({ strength: value });
      else if (chosen)
        change(
          words.common.strength,
          changeCoat(chosen, () => ({ strength: value })),
          `${chosen}.strength`,
        );
    };
    const zoom = (k: number) => {
      const v = useViewport.getState();
      v.zoomAt(k, v.width / 2, v.height / 2);
    };
    const step = (by: number) => {
      const { piece, chosen, choose } = bench();
      if (!piece) return;
      const coats = everyCoat(piece.coats);
      const at = coats.findIndex((c) => c.id === chosen) + by;
      choose(at < 0 ? null : (coats[Math.min(at, coats.length - 1)]?.id ?? null));
    };
    const hold = (view: (chosen: string) => View) =>
      on((e) => {
        const { chosen } = bench();
        if (!e.repeat && (chosen || view('').kind === 'photo')) bench().hold(view(chosen ?? ''));
      });
    const told = (what: string, name: string | null) => name && say(`${what}: ${name}`);
    const map: Record<string, (e: KeyboardEvent) => void> = {
      '[': on(() => resize(1 / 1.15)),
      ']': on(() => resize(1.15)),
      x: on(() => {
        const { does, region, set } = useGuards.getState();
        if (bench().facet === 'guards' && region) set({ does: does === 'put' ? 'take' : 'put' });
        else
          brushInHand()
            .getState()
            .set({ does: brushInHand().getState().does === 'take' ? 'put' : 'take' });
      }),
      '$mod+z': on(() => told(words.benchKeys.undone, bench().undo())),
      '$mod+Shift+Z': on(() => told(words.benchKeys.redone, bench().redo())),
      f: on(() => useViewport.getState().fit()),
      a: on(() => useViewport.getState().actual()),
      '+': on(() => zoom(1.25)),
      '=': on(() => zoom(1.25)),
      '-': on(() => zoom(0.8)),
      p: hold(() => ({ kind: 'photo' })),
      w: hold((coat) => ({ kind: 'without', coat })),
      l: hold((coat) => ({ kind: 'alone', coat })),
      g: on(() => {
        const { show, set } = useGuards.getState();
        if (!bench().piece?.guards) return;
        if (bench().facet !== 'guards') bench().openFacet('guards');
        set({ show: show === 'colour' ? 'none' : 'colour' });
      }),
      m: on(() => bench().showMask(bench().maskView === 'over' ? 'none' : 'over')),
      PageUp: on(() => step(1)),
      PageDown: on(() => step(-1)),
      Delete: on(() => {
        const { chosen, remove } = bench();
        if (chosen) remove(chosen);
      }),
      Escape: on(disarm),
      'Shift+?': on(() => useKeysList.setState({ open: true })),
      '?': on(() => useKeysList.setState({ open: true })),
    };
    for (let d = 0; d <= 9; d++) map[String(d)] = on(() => strength(d));
    const off = tinykeys(window, map);
    const release = (e: KeyboardEvent) => ['p', 'w', 'l'].includes(e.key.toLowerCase()) && bench().hold(null);
    window.addEventListener('keyup', release);
    return () => {
      off();
      window.removeEventListener('keyup', release);
    };
  }, []);
}
