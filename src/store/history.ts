import { applyPatch, compare, type Operation } from 'fast-json-patch';
import * as z from 'zod';
import { pieceSchema, type Piece } from '../core/piece/schema';
import { readText } from './database';

/** One step of undo: its name, and the piece before it. */
export interface Step {
  name: string;
  piece: Piece;
}

/** Steps that survive a reload, and most characters that their record takes; the oldest are left out. */
const KEPT_STEPS = 50;
const MOST_TEXT = 4 * 2 ** 20;

const recordSchema = z.object({
  /** `changed` of the piece that the newest step leads to. */
  of: z.number(),
  /** The newest first: each takes the state after the step to the one before it (RFC 6902). */
  steps: z.array(z.object({ name: z.string(), back: z.array(z.record(z.string(), z.unknown())) })),
});

/** Patches by the state before a step; the states of a piece never change. */
const patches = new WeakMap<Piece, { after: Piece; text: string }>();

function patchText(before: Piece, after: Piece, name: string): string {
  const known = patches.get(before);
  if (known?.after === after) return known.text;
  const text = JSON.stringify({ name, back: compare(after, before) });
  patches.set(before, { after, text });
  return text;
}

/** The record of a piece's last steps, to be written with the piece. */
export function historyRecord(piece: Piece, past: readonly Step[]): Record<string, string> {
  const steps: string[] = [];
  let after = piece;
  let length = 0;
  for (let i = past.length - 1; i >= 0 && steps.length < KEPT_STEPS; i--) {
    const text = patchText(past[i].piece, after, past[i].name);
    length += text.length;
    if (length > MOST_TEXT) break;
    steps.push(text);
    after = past[i].piece;
  }
  return { [`history:${piece.id}`]: `{"of":${piece.changed},"steps":[${steps.join()}]}` };
}

/** The last steps of a piece as they were kept; none when they do not fit the piece. */
export async function loadHistory(piece: Piece): Promise<Step[]> {
  try {
    const record = recordSchema.safeParse(JSON.parse((await readText(`history:${piece.id}`)) ?? 'null'));
    if (!record.success || record.data.of !== piece.changed) return [];
    const past: Step[] = [];
    let state: unknown = piece;
    for (const { name, back } of record.data.steps) {
      state = applyPatch(structuredClone(state), back as unknown as Operation[], true).newDocument;
      past.unshift({ name, piece: pieceSchema.parse(state) });
    }
    return past;
  } catch {
    return [];
  }
}
