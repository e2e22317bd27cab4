import { applyPatch, compare, type Operation } from 'fast-json-patch';
import * as z from 'zod';
import { pieceSchema, type Piece } from '../core/piece/schema';
import { readText } from './database';

/** One step of undo: its name, and the piece before it. */
export interface Step {
  readonly name: string;
  readonly piece: Piece;
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

/** What a step leads to: the next step, or the piece itself. */
type Next = Step | Piece;
const stateOf = (next: Next): Piece => ('piece' in next ? next.piece : next);

/** Steps as they are written, with what they led to then. */
const written = new WeakMap<Step, { next: Next; text: string }>();

function textOf(step: Step, next: Next): string {
  const known = written.get(step);
  if (known?.next === next) return known.text;
  const text = JSON.stringify({ name: step.name, back: compare(stateOf(next), step.piece) });
  written.set(step, { next, text });
  return text;
}

/** The record of a piece's last steps, to be written with the piece. */
export function historyRecord(piece: Piece, past: readonly Step[]): Record<string, string> {
  const steps: string[] = [];
  let length = 0;
  for (let i = past.length - 1; i >= 0 && steps.length < KEPT_STEPS; i--) {
    const text = textOf(past[i], past[i + 1] ?? piece);
    length += text.length;
    if (length > MOST_TEXT) break;
    steps.push(text);
  }
  return { [`history:${piece.id}`]: `{"of":${piece.changed},"steps":[${steps.join()}]}` };
}

/** A step whose piece is made when it is first asked for: most kept steps are never undone. */
function laterStep(name: string, back: Operation[], next: Next): Step {
  let made: Piece | null = null;
  return {
    name,
    get piece() {
      made ??= pieceSchema.parse(applyPatch(structuredClone(stateOf(next)), back, true).newDocument);
      return made;
    },
  };
}

/** The last steps of a piece as they were kept; none when they do not belong to this state of it. */
export async function loadHistory(piece: Piece): Promise<Step[]> {
  const record = await readText(`history:${piece.id}`)
    .then((text) => recordSchema.safeParse(JSON.parse(text ?? 'null')))
    .catch(() => null);
  if (!record?.success || record.data.of !== piece.changed) return [];
  const past: Step[] = [];
  for (const { name, back } of record.data.steps) {
    const next = past[0] ?? piece;
    const step = laterStep(name, back as unknown as Operation[], next);
    written.set(step, { next, text: JSON.stringify({ name, back }) });
    past.unshift(step);
  }
  return past;
}
