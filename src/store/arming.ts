import { create } from 'zustand';

/** Whether a stroke on the picture paints. Only a switch arms it; it ends with its tab, its coat or region, its screen, or Esc. */
export const useArming = create<{ isArmed: boolean; arm(isArmed: boolean): void }>((set) => ({
  isArmed: false,
  arm: (isArmed) => set({ isArmed }),
}));

export const disarm = () => useArming.setState({ isArmed: false });
