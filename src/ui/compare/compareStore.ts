import { create } from 'zustand';
import { createViewport } from '../bench/viewport';

export type CompareWay = 'side' | 'wipe' | 'difference';

/** Fewest and most pictures side by side. */
export const FEWEST = 2;
export const MOST = 4;

interface CompareState {
  way: CompareWay;
  /** Ids of the states that are shown: stages of the piece, or proofs. */
  shown: string[];
  /** By how much a difference is multiplied. */
  gain: '1' | '4' | '16';
  set(change: Partial<Pick<CompareState, 'way' | 'shown' | 'gain'>>): void;
}

export const useCompare = create<CompareState>((set) => ({ way: 'side', shown: [], gain: '4', set }));

/** One view for all pictures that are compared. */
export const useCompareView = createViewport();

/** The states to show: those that were chosen and are still there, filled up with the readied photo and the piece as it is. */
export function shownOf(chosen: readonly string[], offered: readonly string[], way: CompareWay): string[] {
  const there = chosen.filter((id) => offered.includes(id));
  const first = offered.includes('readied') ? 'readied' : 'taken';
  for (const id of [first, 'now', ...offered]) if (there.length < FEWEST && !there.includes(id)) there.push(id);
  return there.slice(0, way === 'side' ? MOST : FEWEST);
}
