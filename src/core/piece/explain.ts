import type * as z from 'zod';

/** One clear sentence from a failed validation: where, what was wrong. */
export function explain(error: z.ZodError, thing: string): string {
  const [issue] = error.issues;
  const where = issue.path
    .map((p) => (typeof p === 'number' ? `[${p + 1}]` : String(p)))
    .join('.')
    .replace(/\.\[/g, '[');
  const what =
    issue.code === 'unrecognized_keys'
      ? `it does not know ${issue.keys.map((k) => `"${k}"`).join(', ')}`
      : issue.code === 'invalid_union'
        ? 'that kind is not known here'
        : issue.message.charAt(0).toLowerCase() + issue.message.slice(1);
  return `This is not a ${thing} that Dermatex can use: ${where ? `at ${where}, ` : ''}${what}.`;
}
