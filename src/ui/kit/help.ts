import { create } from 'zustand';

/** What the control in hand does, for the one line under a panel that says it. */
export const useHelp = create<{ text: string | null; by: string | null }>(() => ({ text: null, by: null }));

export const showHelp = (by: string, text: string | undefined) => useHelp.setState({ text: text ?? null, by });

/** The control has gone: its help goes with it. */
export const dropHelp = (by: string) => {
  if (useHelp.getState().by === by) useHelp.setState({ text: null, by: null });
};
