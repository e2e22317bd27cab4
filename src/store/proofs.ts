import { create } from 'zustand';
import * as z from 'zod';
import { pieceSchema, type Piece } from '../core/piece/schema';
import { useBench } from './bench';
import { allKeys, readTexts, removeKeys, writeTexts } from './database';
import { newId } from './newId';
import { proofsOf } from './records';
import { words } from './words';

/** A named state of a piece that is kept, with its picture. */
const proofSchema = z.object({
  id: z.string().min(1),
  name: z.string().max(200),
  /** When it was kept. */
  at: z.number(),
  /** JPEG data URL. */
  picture: z.string().nullable(),
  piece: pieceSchema,
});
export type Proof = z.output<typeof proofSchema>;

interface ProofsState {
  /** Of the piece that is open, the last kept first. */
  list: readonly Proof[];
  refresh(pieceId: string): Promise<void>;
  keep(piece: Piece, name: string, picture: string | null): Promise<Proof>;
  remove(proof: Proof): Promise<void>;
  /** Brings one back that was removed. */
  bringBack(proof: Proof): Promise<void>;
}

const keyOf = ({ id, piece }: Proof) => `${proofsOf(piece.id)}${id}`;

/** A damaged record is left where it is and is not listed. */
function read(text: string | null): Proof[] {
  try {
    const { data } = proofSchema.safeParse(JSON.parse(text ?? 'null'));
    return data ? [data] : [];
  } catch {
    return [];
  }
}

export const useProofs = create<ProofsState>((set, get) => {
  const write = async (proof: Proof) => {
    await writeTexts({ [keyOf(proof)]: JSON.stringify(proof) });
    set({ list: [proof, ...get().list.filter(({ id }) => id !== proof.id)].sort((a, b) => b.at - a.at) });
  };
  return {
    list: [],
    async refresh(pieceId) {
      const texts = await readTexts((await allKeys()).filter((key) => key.startsWith(proofsOf(pieceId))));
      set({
        list: Object.values(texts)
          .flatMap(read)
          .sort((a, b) => b.at - a.at),
      });
    },
    async keep(piece, name, picture) {
      const proof: Proof = { id: newId(), name: name.trim().slice(0, 200) || nextName(), at: Date.now(), picture, piece };
      await write(proof);
      return proof;
    },
    async remove(proof) {
      await removeKeys([keyOf(proof)]);
      set({ list: get().list.filter(({ id }) => id !== proof.id) });
    },
    bringBack: write,
  };
});

/** A name that no proof of the piece has yet. */
export function nextName(): string {
  const taken = new Set(useProofs.getState().list.map(({ name }) => name));
  let n = 1;
  while (taken.has(words.proofs.numbered(n))) n++;
  return words.proofs.numbered(n);
}

/** Makes the open piece what it was when the proof was kept: one step of undo. It keeps its own name. */
export function goBackTo({ name, piece }: Proof): void {
  const { ready, guards, ...kept } = piece;
  useBench.getState().change(words.proofs.goBackTo(name), ({ id, name: own, created, changed }) => ({
    ...kept,
    ...(ready ? { ready } : {}),
    ...(guards ? { guards } : {}),
    id,
    name: own,
    created,
    changed,
  }));
}
