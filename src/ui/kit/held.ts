import { create } from 'zustand';

interface HeldState {
  /** The slider that is held on a phone: all else fades, so that the picture is seen whole. */
  id: string | null;
  take(id: string): void;
  release(id: string): void;
}

const narrow = () => typeof window !== 'undefined' && window.innerWidth < 700;

export const useHeld = create<HeldState>((set, get) => ({
  id: null,
  take: (id) => narrow() && set({ id }),
  release: (id) => get().id === id && set({ id: null }),
}));
