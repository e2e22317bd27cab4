import { create } from 'zustand';
import * as z from 'zod';

/** How a picture was exported last. */
export const exportSchema = z.object({
  type: z.enum(['image/jpeg', 'image/png', 'image/webp', 'image/tiff']).catch('image/jpeg'),
  /** Bits a channel, where the format may have 16. */
  bits: z.enum(['8', '16']).catch('8'),
  /** Of JPEG and WebP. */
  quality: z.number().min(0.3).max(1).catch(0.92),
  /** Its size as a part of the photo's, or a long side of one's own. */
  share: z.enum(['1', '0.5', '0.25', 'own']).catch('1'),
  long: z.number().int().min(64).max(30000).catch(2000),
  /** Capture data of the photo is passed on. */
  capture: z.boolean().catch(true),
  /** Materials are as fine as the photo, however large it is. */
  detail: z.boolean().catch(true),
});
export type ExportChoice = z.output<typeof exportSchema>;

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
  exportAs: exportSchema.catch(() => exportSchema.parse({})),
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
    const { set: _set, ...kept } = get();
    try {
      localStorage.setItem(KEY, JSON.stringify(kept));
    } catch {
      // A full or forbidden store only means that the choice is not remembered.
    }
  },
}));
