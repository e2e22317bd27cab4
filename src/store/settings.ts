import { create } from 'zustand';
import * as z from 'zod';

const schema = z.object({
  theme: z.enum(['system', 'light', 'dark']).catch('system'),
  maskColour: z.string().catch('madder'),
  penPressure: z.boolean().catch(true),
  /** A coat shows at part of its strength while it is placed. */
  seeThrough: z.boolean().catch(false),
  /** First hints that were dismissed. */
  seenHints: z.array(z.string()).catch([]),
  /** Width of the panel beside the picture, in CSS pixels. */
  panelWidth: z.number().min(340).max(420).catch(380),
});
type Settings = z.output<typeof schema>;

const KEY = 'dermatex.settings';

function read(): Settings {
  try {
    return schema.parse(JSON.parse(localStorage.getItem(KEY) ?? '{}'));
  } catch {
    return schema.parse({});
  }
}

/** Small choices of the person, kept in localStorage because they are wanted before anything is drawn. */
export const useSettings = create<Settings & { set(change: Partial<Settings>): void }>((set, get) => ({
  ...read(),
  set(change) {
    set(change);
    const { theme, maskColour, penPressure, seeThrough, panelWidth, seenHints } = get();
    try {
      localStorage.setItem(KEY, JSON.stringify({ theme, maskColour, penPressure, seeThrough, panelWidth, seenHints }));
    } catch {
      // A full or forbidden store only means that the choice is not remembered.
    }
  },
}));
