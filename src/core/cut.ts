/** Longest name from a file that is repeated in a sentence. */
const LONGEST = 80;

/** A name out of a file as it is repeated in a sentence, no longer than it takes to recognise it. */
export const cut = (name: unknown): string => {
  const text = String(name);
  return text.length > LONGEST ? `${text.slice(0, LONGEST)}…` : text;
};
