import { create } from 'zustand';

interface PickingState {
  /** What a tap on the picture gives a colour to; null when nobody asks for one. */
  asked: { words: string; take(hex: string): void } | null;
  /** Where the loupe stands in CSS pixels of the view, and the mean colour there. */
  loupe: { x: number; y: number; hex: string } | null;
  ask(words: string, take: (hex: string) => void): void;
  show(loupe: PickingState['loupe']): void;
  stop(): void;
}

/** One colour is asked for at a time; the next tap on the picture answers. */
export const usePicking = create<PickingState>((set) => ({
  asked: null,
  loupe: null,
  ask: (words, take) => set({ asked: { words, take }, loupe: null }),
  show: (loupe) => set({ loupe }),
  stop: () => set({ asked: null, loupe: null }),
}));
