import { create } from 'zustand';
import { changeCoat, setLay, type Edit } from '../core/piece/edits';
import type { Coat } from '../core/piece/schema';
import type { Lay } from '../core/lay/lay';
import { useSettings } from './settings';

interface LayingState {
  /** The handles move single corners instead of the whole. */
  corners: boolean;
  set(change: Partial<Pick<LayingState, 'corners'>>): void;
}

export const useLaying = create<LayingState>((set) => ({ corners: false, set: (change) => set(change) }));

/** Part of a coat's strength that shows while it is placed see-through. */
const THROUGH = 0.4;

/** An edit that shows a lay while it is being changed; the photo shows through if the user wants that. */
export const placing =
  (coat: Coat, change: Partial<Lay>): Edit =>
  (piece) => {
    const laid = setLay(coat.id, change)(piece);
    return useSettings.getState().seeThrough ? changeCoat(coat.id, (c) => ({ strength: c.strength * THROUGH }))(laid) : laid;
  };
