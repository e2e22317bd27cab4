import { closest } from 'fastest-levenshtein';
import type * as z from 'zod';
import { cut } from '../cut';

/**
 * One clear sentence from a failed validation: where, and what was wrong. A word that is not known is named with the nearest one that is.
 *
 * @param thing - What was read: "recipe", "piece".
 * @param data - What was validated.
 */
export function explain(error: z.ZodError, thing: string, data: unknown): string {
  const [issue] = error.issues;
  const where = pathOf(issue);
  return `This is not a ${thing} that Dermatex can use: ${where ? `at ${where}, ` : ''}${whatOf(issue, data)}.`;
}

const pathOf = ({ path }: z.core.$ZodIssue): string =>
  path
    .map((p) => (typeof p === 'number' ? `[${p + 1}]` : String(p)))
    .join('.')
    .replace(/\.\[/g, '[');

function whatOf(issue: z.core.$ZodIssue, data: unknown): string {
  if (issue.code === 'unrecognized_keys') return `it does not know ${issue.keys.map((key) => `"${cut(key)}"`).join(', ')}`;
  const known = knownWords(issue);
  const word = valueAt(data, issue.path);
  if (known.length > 0 && typeof word === 'string') return `"${cut(word)}" is not known; the nearest that is known is "${closest(word, known)}"`;
  if (issue.code === 'invalid_type' && word === undefined) return 'it is missing';
  if (issue.code === 'invalid_union') return 'a kind is missing';
  return issue.message.charAt(0).toLowerCase() + issue.message.slice(1);
}

/** The words that are accepted where another one was found. */
function knownWords(issue: z.core.$ZodIssue): string[] {
  const words = issue.code === 'invalid_value' ? issue.values : issue.code === 'invalid_union' && 'options' in issue ? issue.options : [];
  return (Array.isArray(words) ? words : []).filter((word): word is string => typeof word === 'string');
}

const valueAt = (data: unknown, path: readonly PropertyKey[]): unknown =>
  path.reduce<unknown>((at, key) => (typeof at === 'object' && at !== null ? (at as Record<PropertyKey, unknown>)[key] : undefined), data);
