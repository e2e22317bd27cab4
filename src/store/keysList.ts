import { create } from 'zustand';

/** Whether the list of keys is open. */
export const useKeysList = create<{ open: boolean }>(() => ({ open: false }));
