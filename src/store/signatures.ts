import { create } from 'zustand';
import { signatureLinesSchema, type SignatureLines } from '../core/sources/signature';
import { changeSignatures, listSignatures } from './storage';

/** Most signatures that are kept: the oldest goes. */
const MOST = 12;

interface SignaturesState {
  /** The last one used first. */
  list: SignatureLines[];
  refresh(): Promise<void>;
  keep(lines: SignatureLines): Promise<void>;
  forget(lines: SignatureLines): Promise<void>;
}

/** Signatures drawn once and kept on this device. */
export const useSignatures = create<SignaturesState>((set) => {
  const read = (list: readonly unknown[]): SignatureLines[] =>
    list.flatMap((one) => {
      const { data } = signatureLinesSchema.safeParse(one);
      return data && data.length > 0 ? [data] : [];
    });
  const put = async (to: (kept: unknown[]) => unknown[]) => set({ list: read(await changeSignatures(to)) });
  const without = (kept: unknown[], lines: SignatureLines) => kept.filter((one) => JSON.stringify(one) !== JSON.stringify(lines));
  return {
    list: [],
    async refresh() {
      set({ list: read(await listSignatures()) });
    },
    keep: (lines) => put((kept) => [lines, ...without(kept, lines)].slice(0, MOST)),
    forget: (lines) => put((kept) => without(kept, lines)),
  };
});
