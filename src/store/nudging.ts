import { create } from 'zustand';
import type { NudgeKind } from '../core/nudge/schema';
import { nudgeStepOf } from '../core/piece/nudges';
import { chosenCoat, useBench } from './bench';

interface NudgingState {
  does: NudgeKind;
  /** How much of the coat shows while it is moved, so that the photo is seen through. */
  through: number;
  /** Turns against the clock. */
  isReversed: boolean;
  set(change: Partial<Omit<NudgingState, 'set'>>): void;
}

/** What a stroke that moves a texture does; its size and strength are the brush's. */
export const useNudging = create<NudgingState>((set) => ({ does: 'push', through: 0.6, isReversed: false, set: (change) => set(change) }));

/** True on the tab on which the chosen coat is moved by hand. */
export const isNudging = (bench: ReturnType<typeof useBench.getState>): boolean => bench.facet === 'surface' && nudgeStepOf(chosenCoat(bench)) >= 0;
