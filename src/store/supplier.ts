import * as z from 'zod';
import { create } from 'zustand';
import { bringIn } from './own';
import { complain } from './notices';
import { words } from './words';

const catalogueSchema = z.object({
  packs: z
    .array(
      z.object({
        id: z.string().regex(/^[a-z0-9-]{1,60}$/),
        name: z.string().max(200),
        maker: z.string().max(200),
        licence: z.string().max(500),
        says: z.string().max(500),
        pictures: z.number().int().positive(),
        bytes: z.number().int().positive(),
      }),
    )
    .max(200),
});
export type SupplierPack = z.output<typeof catalogueSchema>['packs'][number];

interface SupplierState {
  packs: SupplierPack[] | null;
  /** One sentence when there is no catalogue. */
  wrong: string | null;
  asking: boolean;
  /** Share that has come of a pack being fetched. */
  coming: { id: string; share: number } | null;
  fetched: string[];
  refresh(): Promise<void>;
  fetchPack(pack: SupplierPack): Promise<void>;
  stop(): void;
}

const SILENT = 30_000;
let fetching: AbortController | null = null;

const failed = (error: unknown): string =>
  error instanceof SyntaxError || error instanceof z.ZodError ? words.supplier.catalogueDamaged : words.supplier.theSupplierDoesNotAnswer;

export const previewOf = (pack: SupplierPack): string => `/supplier/previews/${pack.id}.jpg`;

/** The made-up supplier: its catalogue, and packs fetched from it onto the shelf. */
export const useSupplier = create<SupplierState>((set, get) => ({
  packs: null,
  wrong: null,
  asking: false,
  coming: null,
  fetched: [],
  async refresh() {
    set({ asking: true, wrong: null });
    try {
      const response = await fetch('/supplier/catalogue.json', { signal: AbortSignal.timeout(SILENT) });
      if (!response.ok) throw new Error(String(response.status));
      set({ packs: catalogueSchema.parse(JSON.parse(await response.text())).packs });
    } catch (error) {
      set({ packs: null, wrong: failed(error) });
    } finally {
      set({ asking: false });
    }
  },
  async fetchPack(pack) {
    if (get().coming) return;
    const controller = new AbortController();
    fetching = controller;
    set({ coming: { id: pack.id, share: 0 } });
    try {
      const bytes = await load(pack, controller.signal, (share) => set({ coming: { id: pack.id, share } }));
      set({ coming: null });
      const taken = await bringIn([new File([bytes], `${pack.name}.zip`, { type: 'application/zip' })]);
      if (taken.length > 0) set({ fetched: [...get().fetched, pack.id] });
    } catch (error) {
      if (!controller.signal.aborted) complain(error);
    } finally {
      fetching = null;
      set({ coming: null });
    }
  },
  stop: () => fetching?.abort(),
}));

/** A pack's bytes as they come. @throws Error with one sentence when they do not, or not all. */
async function load(pack: SupplierPack, signal: AbortSignal, onShare: (share: number) => void): Promise<Uint8Array<ArrayBuffer>> {
  const response = await fetch(`/supplier/packs/${pack.id}.zip`, { signal }).catch(() => null);
  const reader = response?.ok ? response.body?.getReader() : undefined;
  if (!reader) throw new Error(words.supplier.theSupplierDidNotSend(pack.name));
  const bytes = new Uint8Array(pack.bytes);
  let have = 0;
  for (;;) {
    const part = await reader.read().catch(() => null);
    if (!part) throw new Error(words.supplier.downloadBrokeOff(pack.name));
    if (part.done) break;
    if (have + part.value.length > bytes.length) throw new Error(words.supplier.isNotWhatTheCatalogue(pack.name));
    bytes.set(part.value, have);
    have += part.value.length;
    onShare(have / bytes.length);
  }
  if (have < bytes.length) throw new Error(words.supplier.arrivedDamaged(pack.name));
  return bytes;
}
