import { create } from 'zustand';
import { everyCoat } from '../core/piece/groups';
import { materialOf, settingsOf, settingsSchema, type MaterialSettings } from '../core/piece/lastSettings';
import type { Coat, Piece } from '../core/piece/schema';
import { useBench } from './bench';
import { complain } from './notices';
import { changeLastSettings, readLastSettings } from './storage';

/** Materials whose last settings are remembered. */
const MOST = 100;

interface LastSettings {
  /** By material. One that cannot be read is left out. */
  settings: Readonly<Record<string, MaterialSettings>>;
  refresh(): Promise<void>;
}

const readable = (record: object): Record<string, MaterialSettings> =>
  Object.fromEntries(
    Object.entries(record).flatMap(([id, value]) => {
      const { data } = settingsSchema.safeParse(value);
      return data ? [[id, data] as const] : [];
    }),
  );

/** How materials were set the last time that they were used. */
export const useLastSettings = create<LastSettings>((set) => ({
  settings: {},
  async refresh() {
    set({ settings: readable(await readLastSettings()) });
  },
}));

/** Coats that are remembered, or were there when the piece was opened. */
let known = new WeakSet<Coat>();

const coatsOf = (piece: Piece | null) => everyCoat(piece?.coats ?? []);

async function remember(piece: Piece): Promise<void> {
  const fresh = coatsOf(piece).filter((coat) => !known.has(coat));
  fresh.forEach((coat) => known.add(coat));
  const changed = fresh.flatMap((coat) => {
    const settings = settingsOf(coat);
    return settings ? [[materialOf(coat) as string, settings] as const] : [];
  });
  if (changed.length === 0) return;
  const names = new Set(changed.map(([id]) => id));
  const kept = await changeLastSettings((now) => {
    const others = Object.entries(now).filter(([id]) => !names.has(id));
    return Object.fromEntries([...others, ...changed].slice(-MOST));
  });
  useLastSettings.setState({ settings: readable(kept) });
}

useBench.subscribe((now, before) => {
  if (now.piece && now.piece.id !== before.piece?.id) {
    known = new WeakSet(coatsOf(now.piece));
    void useLastSettings.getState().refresh().catch(complain);
  } else if (now.piece && now.saved === 'saved' && before.saved !== 'saved') void remember(now.piece).catch(complain);
});
