import { create } from 'zustand';

interface Notice {
  id: number;
  text: string;
  /** An error stays until it is put away; one that offers something stays a little longer than others. */
  lasting: boolean;
  action?: { label: string; run(): void };
}

let next = 0;

/** Sentences for the person: what was wrong and what to do, or what has just happened. */
export const useNotices = create<{ list: Notice[]; put(id: number): void }>((set) => ({
  list: [],
  put: (id) => set((s) => ({ list: s.list.filter((n) => n.id !== id) })),
}));

export function say(text: string, options: { lasting?: boolean; action?: Notice['action'] } = {}): void {
  const notice = { id: ++next, text, lasting: options.lasting ?? false, action: options.action };
  useNotices.setState((s) => ({ list: [...s.list.filter((n) => n.text !== text), notice].slice(-3) }));
}

export const complain = (error: unknown): void => say(error instanceof Error ? error.message : String(error), { lasting: true });
