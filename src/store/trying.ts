import { create } from 'zustand';
import type { SourceInput } from '../core/piece/edits';

interface TryingState {
  /** The material that is tried on the photo and not kept yet, and its name. */
  tried: SourceInput | null;
  name: string;
  set(change: Partial<Pick<TryingState, 'tried' | 'name'>>): void;
}

export const useTrying = create<TryingState>((set) => ({ tried: null, name: '', set: (change) => set(change) }));
