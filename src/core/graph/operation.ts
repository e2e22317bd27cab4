import { cut } from '../cut';
import { closest } from 'fastest-levenshtein';
import type * as z from 'zod';
import type { Motion } from '../image/motion';
import { controlsOf } from '../schema';
import type { InputSpec } from './node';

/** What every registry entry says about itself: sources, treatments and mask parts. */
export interface Operation<S extends z.ZodObject = z.ZodObject> {
  kind: string;
  label: string;
  /** Other words of the trade by which a search finds it, in lower case. */
  words?: string;
  /** Object schema with a literal `kind`; its fields carry what a panel needs. */
  schema: S;
  /** What it reads besides what it starts from, by name. */
  inputs?(params: z.output<S>): Record<string, InputSpec>;
  /** The same on the same points of the photo after its frame has changed. Lengths in u are seen to. */
  moved?(params: z.output<S>, motion: Motion): z.output<S>;
}

/** An operation's parameters on the same points of the photo after its frame has changed; its lengths in u with them. */
export function moveParams(operation: Operation, params: Record<string, unknown>, motion: Motion): Record<string, unknown> {
  const out: Record<string, unknown> = { ...(operation.moved ? operation.moved(params, motion) : params) };
  for (const { key, meta } of controlsOf(operation.schema)) {
    if (meta.unit === 'u' && typeof out[key] === 'number') out[key] = motion.length(out[key] as number);
  }
  return out;
}

/** Finds entries by their kind; the function throws a RangeError with the unknown kind and the nearest known one. */
export function registry<T extends { kind: string }>(entries: readonly T[], what: string): (kind: string) => T {
  const byKind = new Map(entries.map((entry) => [entry.kind, entry]));
  return (kind) => {
    const found = byKind.get(kind);
    if (!found) throw new RangeError(`There is no ${what} called "${cut(kind)}"; the nearest is "${closest(String(kind), [...byKind.keys()])}".`);
    return found;
  };
}
